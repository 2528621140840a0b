namespace Daxlin.Core.History;

/// <summary>Where the history is not as it was written.</summary>
/// <param name="Entry">The id of the first entry that shows it.</param>
/// <param name="Sentence">What is wrong, for a clerk.</param>
public sealed record BrokenLink(string Stream, int Entry, string Sentence);
