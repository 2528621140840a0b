namespace Daxlin.Reading.Containers;

/// <summary>A file that stood in a container.</summary>
/// <param name="Name">Its own, without folders.</param>
/// <param name="Within">The way to it: the folders and containers that it stood in, with <c>/</c> between them; empty for none.</param>
/// <param name="File">Where its bytes were put; empty if it was left out.</param>
/// <param name="LeftOut">Why it was left out, as a sentence; empty if it was not.</param>
public sealed record FoundFile(string Name, string Within, string File, string LeftOut)
{
    /// <summary>Says that it is no invoice but a cover sheet, by its name.</summary>
    public bool IsCover { get; init; }
}
