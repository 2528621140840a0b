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
    public string Text => text ??= TextOf(Words.AsSpan());

    /// <summary>The words that stand together.</summary>
    public ImmutableArray<Cell> Cells => cells.IsDefault ? cells = PartIntoCells(Words) : cells;

    /// <summary>The words' text with one blank between each two.</summary>
    public static string TextOf(ReadOnlySpan<Word> words)
    {
        switch (words.Length)
        {
            case 0: return "";
            case 1: return words[0].Text;
            case 2: return string.Concat(words[0].Text, " ", words[1].Text);
            default:
                var length = words.Length - 1;
                foreach (var word in words)
                    length += word.Text.Length;
                return string.Create(length, words, static (text, words) =>
                {
                    foreach (var word in words)
                    {
                        word.Text.CopyTo(text);
                        text = text[word.Text.Length..];
                        if (text.IsEmpty)
                            break;
                        text[0] = ' ';
                        text = text[1..];
                    }
                });
        }
    }

    public override string ToString() => Text;

    /// <summary>The lines of a page, from top to bottom, out of its upright words.</summary>
    public static ImmutableArray<TextLine> Of(int page, ImmutableArray<Word> words)
    {
        var sorted = words.All(word => word.Turn == Turn.Upright) ? [.. words] : words.Where(word => word.Turn == Turn.Upright).ToArray();
        SortBy(sorted, word => word.Baseline);
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
            SortBy(line, word => word.Box.Left);
            lines.Add(new TextLine(page, ImmutableCollectionsMarshal.AsImmutableArray(line)));
            start = end;
        }
        return lines.ToImmutable();
    }

    /// <summary>Sorts words that mostly stand in order already, as a producer draws them; equal ones keep their order.</summary>
    private static void SortBy(Word[] words, Func<Word, double> key)
    {
        var keys = new double[words.Length];
        var inOrder = true;
        for (var index = 0; index < words.Length; index++)
        {
            keys[index] = key(words[index]);
            inOrder &= index == 0 || keys[index - 1] <= keys[index];
        }
        if (!inOrder)
            Array.Sort(keys, words);
    }

    /// <summary>Says that the gap between two neighbours is wider than a wide blank.</summary>
    public static bool IsCellGap(Word left, Word right) =>
        right.Box.Left - left.Box.Right > CellGap * Math.Max(left.Size, right.Size);

    /// <summary>How much of the gap that parts two cells there is between two neighbours, from 0 to 1.</summary>
    public static double PartOfCellGap(Word left, Word right) =>
        Math.Clamp((right.Box.Left - left.Box.Right) / (CellGap * Math.Max(left.Size, right.Size)), 0, 1);

    /// <summary>Parts words that stand side by side into cells.</summary>
    public static ImmutableArray<Cell> PartIntoCells(ImmutableArray<Word> words)
    {
        // Counted first, so that the cells of each of many lines take their own room and no more.
        var count = 1;
        for (var index = 1; index < words.Length; index++)
            count += IsCellGap(words[index - 1], words[index]) ? 1 : 0;
        var cells = new Cell[count];
        var (start, cell) = (0, 0);
        for (var index = 1; index <= words.Length; index++)
        {
            if (index < words.Length && !IsCellGap(words[index - 1], words[index]))
                continue;
            cells[cell++] = new Cell(words, start, index - start);
            start = index;
        }
        return ImmutableCollectionsMarshal.AsImmutableArray(cells);
    }
}
