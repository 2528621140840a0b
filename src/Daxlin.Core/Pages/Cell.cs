using System.Collections.Immutable;

namespace Daxlin.Core.Pages;

/// <summary>Words of one line that stand together: no gap between them is wider than a wide blank.</summary>
public sealed record Cell(ImmutableArray<Word> Words)
{
    private string? text;

    /// <summary>The words with one blank between each two.</summary>
    public string Text => text ??= string.Join(' ', Words.Select(word => word.Text));

    public Box Box { get; } = Words[0].Box.Union(Words[^1].Box);
}
