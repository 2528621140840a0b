using System.Collections.Immutable;
using System.Globalization;
using System.Runtime.InteropServices;
using Daxlin.Core.Pages;
using Daxlin.Reading.Pdf.Fonts;

namespace Daxlin.Reading;

/// <summary>Builds words out of letters' positions: what stands on one baseline without a gap is a word.</summary>
/// <remarks>
/// Nothing is taken from the order in which letters were drawn, since producers draw bold text twice, table cells row by
/// row or column by column, and letters one by one. Drawn blanks part words; so do gaps, measured against the gaps that
/// the letters around have anyway: "I N V O I C E" spaced out by 6 pt is one word, "Qty 4" with a gap of 3 pt is two.
/// </remarks>
internal static class WordBuilder
{
    [ThreadStatic]
    private static List<List<Letter>>? keptRows;

    [ThreadStatic]
    private static List<(int Start, int End)>? keptParts;

    /// <summary>Letters whose baselines differ by less than this part of their size are on one line.</summary>
    private const double BaselineSlack = 0.22;

    /// <summary>A gap over this part of the size ends a run; letters further apart say nothing about each other.</summary>
    private const double RunGap = 1.1;

    /// <summary>A gap this much wider than the run's usual one parts two words. LaTeX's narrowest blank is about 0.2.</summary>
    private const double WordGap = 0.16;

    /// <summary>Letters spaced out further than this part of their size are spaced out on purpose.</summary>
    private const double SpacedOut = 0.06;

    public static void AddWords(List<Letter> letters, Turn turn, WordStore store, ImmutableArray<Word>.Builder words)
    {
        // The lists are kept for the thread's next page: a page's letters are many and large, and gone in a millisecond.
        var parts = keptParts ??= [];
        foreach (var row in RowsOf(letters, keptRows ??= []))
        {
            SortByStart(row);
            DropDoubles(row);
            Accents.Join(row);
            NameUnnamed(CollectionsMarshal.AsSpan(row));
            AddRow(CollectionsMarshal.AsSpan(row), turn, parts, store, words);
        }
    }

    /// <summary>Letters by baseline, top to bottom. Producers draw in runs, so most letters join the row of the one before.</summary>
    private static Span<List<Letter>> RowsOf(List<Letter> letters, List<List<Letter>> rows)
    {
        var count = 0;
        List<Letter>? current = null;
        foreach (ref readonly var letter in CollectionsMarshal.AsSpan(letters))
        {
            if (current is null || !IsOnRow(letter, current[0]))
            {
                current = null;
                for (var row = count - 1; row >= 0 && current is null; row--)
                {
                    if (IsOnRow(letter, rows[row][0]))
                        current = rows[row];
                }
                if (current is null)
                {
                    if (count == rows.Count)
                        rows.Add(new List<Letter>(64));
                    current = rows[count++];
                    current.Clear();
                }
            }
            current.Add(letter);
        }
        var used = CollectionsMarshal.AsSpan(rows)[..count];
        used.Sort((a, b) => a[0].Baseline.CompareTo(b[0].Baseline));
        return used;
    }

    private static bool IsOnRow(in Letter letter, in Letter first) =>
        Math.Abs(letter.Baseline - first.Baseline) <= BaselineSlack * Math.Min(letter.Size, first.Size);

    /// <summary>Sorts from left to right; rows are drawn in order but for a few cells, where insertion is quickest.</summary>
    private static void SortByStart(List<Letter> row)
    {
        var letters = CollectionsMarshal.AsSpan(row);
        var moves = 0;
        for (var index = 1; index < letters.Length; index++)
        {
            var letter = letters[index];
            var at = index;
            while (at > 0 && letters[at - 1].Start > letter.Start)
            {
                letters[at] = letters[at - 1];
                at--;
            }
            letters[at] = letter;
            moves += index - at;
            if (moves > 20 * letters.Length)
            {
                letters.Sort((a, b) => a.Start.CompareTo(b.Start));
                return;
            }
        }
    }

    /// <summary>Drops letters drawn a second time almost in the same place, which makes text look bold.</summary>
    private static void DropDoubles(List<Letter> row)
    {
        var letters = CollectionsMarshal.AsSpan(row);
        var kept = 0;
        for (var index = 0; index < letters.Length; index++)
        {
            ref readonly var letter = ref letters[index];
            var isDouble = false;
            for (var back = kept - 1; back >= Math.Max(0, kept - 4) && !isDouble; back--)
            {
                ref readonly var other = ref letters[back];
                isDouble = Math.Abs(other.Start - letter.Start) < 0.35 * Math.Max(0.5, other.End - other.Start) && other.Text == letter.Text;
            }
            if (!isDouble)
                letters[kept++] = letter;
        }
        if (kept < row.Count)
            row.RemoveRange(kept, row.Count - kept);
    }

    /// <summary>Glyphs that nothing names, and of which the font does not say whether they leave a mark: a blank beside words, else a letter that nobody knows.</summary>
    /// <remarks>
    /// Producers draw a tab with such a glyph, as between "VAT" and "20 %"; but it may be a ligature within a word, or a figure at either
    /// end of a number, and those must not vanish: "1,20" with such a glyph behind it is no 1,20.
    /// </remarks>
    private static void NameUnnamed(Span<Letter> row)
    {
        for (var index = 0; index < row.Length; index++)
        {
            if (row[index].Text != Glyph.Unnamed)
                continue;
            var (before, after) = (index > 0 && IsBeside(row[index - 1], row[index]) ? row[index - 1].Text[^1] : ' ', index + 1 < row.Length && IsBeside(row[index], row[index + 1]) ? row[index + 1].Text[0] : ' ');
            var isBlank = char.IsLetter(before) ? !char.IsLetter(after) : !IsOfNumber(before) && !IsOfNumber(after);
            row[index] = new Letter(isBlank ? " " : Glyph.Unknown, row[index].Start, row[index].End, row[index].Baseline, row[index].Size);
        }
    }

    private static bool IsBeside(in Letter left, in Letter right) => right.Start - left.End <= WordGap * Math.Max(left.Size, right.Size);

    /// <summary>Says that a glyph beside it may belong to a number; what is unknown on one side may go on.</summary>
    private static bool IsOfNumber(char letter) => char.IsDigit(letter) || char.GetUnicodeCategory(letter) is UnicodeCategory.CurrencySymbol || letter is '.' or ',' or '-' or '\0' or '\uFFFD';

    private static void AddRow(
        ReadOnlySpan<Letter> row, Turn turn, List<(int Start, int End)> parts, WordStore store, ImmutableArray<Word>.Builder words)
    {
        for (var start = 0; start < row.Length;)
        {
            var end = start + 1;
            while (end < row.Length && row[end].Start - row[end - 1].End
                <= RunGap * Math.Max(row[end].Size, row[end - 1].Size))
                end++;
            AddRun(row[start..end], turn, parts, store, words);
            start = end;
        }
    }

    private static void AddRun(
        ReadOnlySpan<Letter> run, Turn turn, List<(int Start, int End)> parts, WordStore store, ImmutableArray<Word>.Builder words)
    {
        var usualGap = UsualGap(run);
        var partingGap = usualGap + WordGap + (usualGap > SpacedOut ? 0.5 * usualGap : 0);
        parts.Clear();
        var (from, singles) = (-1, 0);
        for (var index = 0; index <= run.Length; index++)
        {
            var isEnd = index == run.Length || run[index].IsBlank;
            if (from >= 0 && (isEnd
                || run[index].Start - run[index - 1].End > partingGap * Math.Max(run[index].Size, run[index - 1].Size)))
            {
                parts.Add((from, index));
                singles += index - from == 1 ? 1 : 0;
                from = -1;
            }
            if (!isEnd && from < 0)
                from = index;
        }
        if (singles >= FewestTypedOut)
            JoinTypedOut(run, parts);
        foreach (var (first, last) in parts)
            words.Add(WordOf(run[first..last], turn, store));
    }

    /// <summary>The median gap between neighbouring letters of a run, as part of the type's size; 0 unless it is spaced out.</summary>
    private static double UsualGap(ReadOnlySpan<Letter> run)
    {
        var (count, wide) = (0, 0);
        for (var index = 1; index < run.Length; index++)
        {
            if (run[index].IsBlank || run[index - 1].IsBlank)
                continue;
            count++;
            wide += run[index].Start - run[index - 1].End > SpacedOut * run[index].Size ? 1 : 0;
        }
        // The median is wide only if more than half of the gaps are.
        if (count < 3 || wide * 2 <= count)
            return 0;
        Span<double> gaps = count <= 256 ? stackalloc double[count] : new double[count];
        count = 0;
        for (var index = 1; index < run.Length; index++)
        {
            if (!run[index].IsBlank && !run[index - 1].IsBlank)
                gaps[count++] = (run[index].Start - run[index - 1].End) / Math.Max(1, run[index].Size);
        }
        gaps.Sort();
        return Math.Max(0, gaps[count / 2]);
    }

    /// <summary>Titles typed with a blank after every letter have at least this many.</summary>
    private const int FewestTypedOut = 4;

    /// <summary>Joins titles typed with a blank after every letter: four or more single letters, evenly apart.</summary>
    private static void JoinTypedOut(ReadOnlySpan<Letter> run, List<(int Start, int End)> parts)
    {
        for (var index = 0; index < parts.Count; index++)
        {
            var end = index;
            while (end < parts.Count && IsSingleLetter(run, parts[end]) && (end == index || IsEvenStep(run, parts, index, end)))
                end++;
            if (end - index >= FewestTypedOut)
            {
                parts[index] = (parts[index].Start, parts[end - 1].End);
                parts.RemoveRange(index + 1, end - index - 1);
            }
        }
    }

    private static bool IsSingleLetter(ReadOnlySpan<Letter> run, (int Start, int End) part) =>
        part.End - part.Start == 1 && run[part.Start].Text is [var letter] && char.IsLetter(letter);

    private static bool IsEvenStep(ReadOnlySpan<Letter> run, List<(int Start, int End)> parts, int first, int at)
    {
        var gap = run[parts[at].Start].Start - run[parts[at - 1].Start].End;
        var firstGap = run[parts[first + 1].Start].Start - run[parts[first].Start].End;
        return gap <= 1.5 * firstGap + 0.5;
    }

    private static Word WordOf(ReadOnlySpan<Letter> letters, Turn turn, WordStore store)
    {
        var length = 0;
        foreach (ref readonly var letter in letters)
            length += letter.IsBlank ? 0 : letter.Text.Length;
        Span<char> text = length <= 256 ? stackalloc char[length] : new char[length];
        var stops = store.Stops(length);
        var edges = stops.Span;
        var (at, size, right, isOver) = (0, 0d, double.MinValue, false);
        var before = -1;
        for (var index = 0; index < letters.Length; index++)
        {
            ref readonly var letter = ref letters[index];
            if (letter.IsBlank)
                continue;
            isOver |= before >= 0 && IsOver(letters[before], letter);
            before = index;
            letter.Text.CopyTo(text[at..]);
            for (var part = 1; part <= letter.Text.Length; part++)
                edges[at++] = letter.Start + (letter.End - letter.Start) * part / letter.Text.Length;
            size = Math.Max(size, letter.Size);
            right = Math.Max(right, letter.End);
        }
        var baseline = letters[0].Baseline;
        // Capitals and ascenders reach about 0.75 of the size above the baseline, descenders about 0.22 below.
        var box = new Box(letters[0].Start, baseline - 0.75 * size, right, baseline + 0.22 * size);
        return new Word(store.Text(text), box, baseline, size, stops, turn) { IsOverprinted = isOver };
    }

    /// <summary>Letters that share more than this part of the narrower one's width cannot be told apart.</summary>
    private const double MostShared = 0.5;

    /// <summary>What is narrower than this part of its size is a mark on another letter.</summary>
    private const double Narrowest = 0.05;

    /// <summary>Says that two letters or figures lie over each other; a figure on the line of a form, drawn as “____”, is no such thing.</summary>
    /// <param name="right">The one that begins further to the right, or at the same place.</param>
    private static bool IsOver(in Letter left, in Letter right)
    {
        if (!char.IsLetterOrDigit(left.Text[0]) || !char.IsLetterOrDigit(right.Text[0]))
            return false;
        var narrower = Math.Min(left.End - left.Start, right.End - right.Start);
        return narrower > Narrowest * right.Size && Math.Min(left.End, right.End) - right.Start > MostShared * narrower;
    }
}
