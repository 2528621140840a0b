namespace Daxlin.Core.Pages;

/// <summary>Where a cue stands on a page.</summary>
/// <param name="Line">Index of its line on the page.</param>
/// <param name="Box">The printed cue.</param>
/// <param name="FirstWord">Index in the line's words of the word that the cue begins in.</param>
/// <param name="FirstChar">Index of the cue's first character in that word.</param>
/// <param name="LastWord">Index of the word that the cue ends in.</param>
/// <param name="EndChar">Index after the cue's last character in that word.</param>
public readonly record struct CuePlace(int Line, Box Box, int FirstWord, int FirstChar, int LastWord, int EndChar);
