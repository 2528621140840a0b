using Daxlin.Core.Pages;

namespace Daxlin.Core.Drafting;

/// <summary>Printed words that the trade's vocabulary knows, where they stand.</summary>
/// <param name="Text">As printed, without a colon at the end: a cue for the template.</param>
/// <param name="Line">The line, or the upper one of two.</param>
/// <param name="FirstWord">Index in the line's words.</param>
/// <param name="Words">How many words of the line it takes.</param>
internal sealed record Caption(string Text, Meanings Meanings, TextLine Line, Box Box, int FirstWord, int Words);
