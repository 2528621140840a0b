using System.Collections.Immutable;
using System.Text;
using Daxlin.Core.Pages;

namespace Daxlin.Reading;

/// <summary>Builds words out of letters' positions: what stands on one baseline without a gap is a word.</summary>
/// <remarks>
/// Nothing is taken from the order in which letters were drawn, since producers draw bold text twice, table cells row by
/// row or column by column, and letters one by one. Drawn blanks part words; so do gaps, measured against the gaps that
/// the letters around have anyway: "I N V O I C E" spaced out by 6 pt is one word, "Qty 4" with a gap of 3 pt is two.
/// </remarks>
internal static class WordBuilder
{
    /// <summary>Letters whose baselines differ by less than this part of their size are on one line.</summary>
    private const double BaselineSlack = 0.22;

    /// <summary>A gap over this part of the size ends a run; letters further apart say nothing about each other.</summary>
    private const double RunGap = 1.1;

    /// <summary>A gap this much wider than the run's usual one parts two words. LaTeX's narrowest blank is about 0.2.</summary>
    private const double WordGap = 0.16;

    /// <summary>Letters spaced out further than this part of their size are spaced out on purpose.</summary>
    private const double SpacedOut = 0.06;

    public static void AddWords(List<Letter> letters, Turn turn, ImmutableArray<Word>.Builder words)
    {
        letters.Sort((a, b) => a.Baseline.CompareTo(b.Baseline));
        var row = new List<Letter>();
        for (var start = 0; start < letters.Count;)
        {
            var end = start + 1;
            while (end < letters.Count
                && letters[end].Baseline - letters[start].Baseline
                    <= BaselineSlack * Math.Min(letters[start].Size, letters[end].Size))
                end++;
            row.Clear();
            for (var index = start; index < end; index++)
                row.Add(letters[index]);
            row.Sort((a, b) => a.Start.CompareTo(b.Start));
            AddRow(WithoutDoubles(row), turn, words);
            start = end;
        }
    }

    /// <summary>Leaves out letters drawn a second time almost in the same place, which makes text look bold.</summary>
    private static List<Letter> WithoutDoubles(List<Letter> row)
    {
        var kept = new List<Letter>(row.Count);
        foreach (var letter in row)
        {
            var isDouble = false;
            for (var back = kept.Count - 1; back >= Math.Max(0, kept.Count - 4) && !isDouble; back--)
            {
                var other = kept[back];
                isDouble = other.Text == letter.Text
                    && Math.Abs(other.Start - letter.Start) < 0.35 * Math.Max(0.5, other.End - other.Start);
            }
            if (!isDouble)
                kept.Add(letter);
        }
        return kept;
    }

    private static void AddRow(List<Letter> row, Turn turn, ImmutableArray<Word>.Builder words)
    {
        for (var start = 0; start < row.Count;)
        {
            var end = start + 1;
            while (end < row.Count && row[end].Start - row[end - 1].End
                <= RunGap * Math.Max(row[end].Size, row[end - 1].Size))
                end++;
            AddRun(row, start, end, turn, words);
            start = end;
        }
    }

    private static void AddRun(List<Letter> row, int start, int end, Turn turn, ImmutableArray<Word>.Builder words)
    {
        var usualGap = UsualGap(row, start, end);
        var parts = new List<(int Start, int End)>();
        var from = -1;
        for (var index = start; index < end; index++)
        {
            if (row[index].IsBlank)
            {
                Close(index);
                continue;
            }
            if (from >= 0)
            {
                var gap = row[index].Start - row[index - 1].End;
                var size = Math.Max(row[index].Size, row[index - 1].Size);
                if (gap > usualGap * size + WordGap * size + (usualGap > SpacedOut ? 0.5 * usualGap * size : 0))
                    Close(index);
            }
            if (from < 0)
                from = index;
        }
        Close(end);

        foreach (var (first, last) in JoinTypedOut(row, parts))
            words.Add(WordOf(row, first, last, turn));

        void Close(int at)
        {
            if (from >= 0)
                parts.Add((from, at));
            from = -1;
        }
    }

    /// <summary>The median gap between neighbouring letters of a run, as part of the type's size; never below 0.</summary>
    private static double UsualGap(List<Letter> row, int start, int end)
    {
        Span<double> gaps = end - start <= 256 ? stackalloc double[end - start] : new double[end - start];
        var count = 0;
        for (var index = start + 1; index < end; index++)
        {
            if (!row[index].IsBlank && !row[index - 1].IsBlank)
                gaps[count++] = (row[index].Start - row[index - 1].End) / Math.Max(1, row[index].Size);
        }
        if (count < 3)
            return 0;
        gaps = gaps[..count];
        gaps.Sort();
        return Math.Max(0, gaps[count / 2]);
    }

    /// <summary>Joins titles typed with a blank after every letter: four or more single letters, evenly apart.</summary>
    private static IEnumerable<(int Start, int End)> JoinTypedOut(List<Letter> row, List<(int Start, int End)> parts)
    {
        for (var index = 0; index < parts.Count;)
        {
            var end = index;
            while (end < parts.Count && IsSingleLetter(row, parts[end])
                && (end == index || IsEvenStep(row, parts, index, end)))
                end++;
            if (end - index >= 4)
            {
                yield return (parts[index].Start, parts[end - 1].End);
                index = end;
            }
            else
            {
                yield return parts[index++];
            }
        }
    }

    private static bool IsSingleLetter(List<Letter> row, (int Start, int End) part) =>
        part.End - part.Start == 1 && row[part.Start].Text is [var letter] && char.IsLetter(letter);

    private static bool IsEvenStep(List<Letter> row, List<(int Start, int End)> parts, int first, int at)
    {
        var gap = row[parts[at].Start].Start - row[parts[at - 1].Start].End;
        var firstGap = row[parts[first + 1].Start].Start - row[parts[first].Start].End;
        return gap <= 1.5 * firstGap + 0.5;
    }

    private static Word WordOf(List<Letter> row, int start, int end, Turn turn)
    {
        var text = new StringBuilder();
        var stops = ImmutableArray.CreateBuilder<double>();
        var (size, right) = (0d, double.MinValue);
        for (var index = start; index < end; index++)
        {
            var letter = row[index];
            if (letter.IsBlank)
                continue;
            text.Append(letter.Text);
            for (var part = 1; part <= letter.Text.Length; part++)
                stops.Add(letter.Start + (letter.End - letter.Start) * part / letter.Text.Length);
            size = Math.Max(size, letter.Size);
            right = Math.Max(right, letter.End);
        }
        var baseline = row[start].Baseline;
        // Capitals and ascenders reach about 0.75 of the size above the baseline, descenders about 0.22 below.
        var box = new Box(row[start].Start, baseline - 0.75 * size, right, baseline + 0.22 * size);
        return new Word(text.ToString(), box, baseline, size, stops.ToImmutable(), turn);
    }
}
