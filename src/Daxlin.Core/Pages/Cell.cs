using System.Collections.Immutable;

namespace Daxlin.Core.Pages;

/// <summary>Words of one line that stand together: no gap between them is wider than a wide blank.</summary>
public readonly struct Cell
{
    private readonly ImmutableArray<Word> line;
    private readonly int start;
    private readonly int count;

    /// <param name="line">All words of the line.</param>
    /// <param name="start">Index of the cell's first word.</param>
    /// <param name="count">How many words it has, one at least.</param>
    public Cell(ImmutableArray<Word> line, int start, int count)
    {
        (this.line, this.start, this.count) = (line, start, count);
        Box = line[start].Box.Union(line[start + count - 1].Box);
    }

    public ReadOnlySpan<Word> Words => line.AsSpan(start, count);

    public Box Box { get; }

    /// <summary>The words with one blank between each two.</summary>
    public string Text => count == 1 ? line[start].Text : TextLine.TextOf(Words);
}
