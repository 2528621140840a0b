using System.Collections.Immutable;
using System.Runtime.InteropServices;

namespace Daxlin.Core.Pages;

/// <summary>Words that stand on one baseline, from left to right.</summary>
public sealed class TextLine
{
    /// <summary>Baselines closer than this part of the type's size are one line (a caption in 7 pt, its value in 10 pt).</summary>
    private const double BaselineSlack = 0.3;

    /// <summary>Gaps wider than this part of the type's size part two cells; a blank is about a quarter.</summary>
    private const double CellGap = 0.62;

    private ImmutableArray<Cell> cells;
    private string? text;

    public TextLine(int page, ImmutableArray<Word> words)
    {
        Page = page;
        Words = words;
        Box = words[0].Box;
        foreach (var word in words)
            Box = Box.Union(word.Box);
    }

    public int Page { get; }
    public ImmutableArray<Word> Words { get; }
    public Box Box { get; }

    /// <summary>The words with one blank between each two.</summary>
    public string Text => text ??= string.Join(' ', Words.Select(word => word.Text));

    /// <summary>The words that stand together.</summary>
    public ImmutableArray<Cell> Cells => cells.IsDefault ? cells = PartIntoCells(Words) : cells;

    public override string ToString() => Text;

    /// <summary>The lines of a page, from top to bottom, out of its upright words.</summary>
    public static ImmutableArray<TextLine> Of(int page, IEnumerable<Word> words)
    {
        var sorted = words.Where(word => word.Turn == Turn.Upright).ToArray();
        Array.Sort([.. sorted.Select(word => word.Baseline)], sorted);
        var lines = ImmutableArray.CreateBuilder<TextLine>();
        for (var start = 0; start < sorted.Length;)
        {
            var end = start + 1;
            // The slack is measured from the line's first word, so that a staircase of baselines does not become one line.
            while (end < sorted.Length
                && sorted[end].Baseline - sorted[start].Baseline
                    <= BaselineSlack * Math.Min(sorted[start].Size, sorted[end].Size))
                end++;
            var line = sorted[start..end];
            Array.Sort([.. line.Select(word => word.Box.Left)], line);
            lines.Add(new TextLine(page, ImmutableCollectionsMarshal.AsImmutableArray(line)));
            start = end;
        }
        return lines.ToImmutable();
    }

    /// <summary>Parts words that stand side by side into cells.</summary>
    public static ImmutableArray<Cell> PartIntoCells(ImmutableArray<Word> words)
    {
        var cells = ImmutableArray.CreateBuilder<Cell>();
        var start = 0;
        for (var index = 1; index <= words.Length; index++)
        {
            if (index < words.Length)
            {
                var gap = words[index].Box.Left - words[index - 1].Box.Right;
                if (gap <= CellGap * Math.Max(words[index].Size, words[index - 1].Size))
                    continue;
            }
            cells.Add(new Cell(words[start..index]));
            start = index;
        }
        return cells.ToImmutable();
    }
}
