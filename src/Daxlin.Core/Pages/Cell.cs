using System.Collections.Immutable;

namespace Daxlin.Core.Pages;

/// <summary>Words of one line that stand together: no gap between them is wider than a wide blank.</summary>
public sealed record Cell(ImmutableArray<Word> Words)
{
    public string Text { get; } = string.Join(' ', Words.Select(word => word.Text));
    public Box Box { get; } = Box.Around(Words.Select(word => word.Box));

    /// <summary>The words that stand in for this cell when it is cut off at <paramref name="from"/>.</summary>
    public Cell From(int from) => new(Words[from..]);
}
