using System.Collections.Immutable;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Capture.Blocks;

/// <summary>
/// Shares the words of one line out among columns, in order, at the least cost: near their headings, with no column
/// holding a text that it cannot hold, and parted at gaps rather than at blanks.
/// </summary>
/// <remarks>
/// A shortest-path search over (words taken, columns passed), after the way lines are broken in Knuth and Plass,
/// "Breaking Paragraphs into Lines" (1981). With n words and c columns it weighs n²c/2 runs; an item row has some 15
/// words and 7 columns. Example: in <c>25 13 428,00</c> under the headings "Tax %" and "Amount", where all gaps are
/// blanks, only 25 | 13 428,00 gives both columns a number near its heading.
/// </remarks>
internal static class WordAssignment
{
    private const double NotItsKind = 300;
    private const double EmptyRequired = 40;
    private const double EmptyOptional = 12;
    private const double PartedAtBlank = 8;
    private const double PartedAtGlue = 1;
    private const double GapWithin = 0.5;

    /// <summary>Numbers are printed in no more words than this, blanks between their groups and a currency mark included.</summary>
    private const int MostNumberWords = 6;

    private const int MostOnStack = 40;

    /// <summary>For each word the index of its column.</summary>
    /// <param name="words">The words of a whole row, or of one cell of it that reaches over several columns.</param>
    /// <param name="columns">The columns that may hold them, from left to right.</param>
    /// <param name="habits">How the vendor writes numbers.</param>
    /// <param name="filled">Says for a column that other words fill it already, so that leaving it empty costs nothing.</param>
    public static int[] Assign(
        ReadOnlySpan<Word> words, ReadOnlySpan<ColumnSpan> columns, Habits habits, Func<int, bool> filled)
    {
        var (n, m) = (words.Length, columns.Length);
        // Rows are short; only a very long one takes its tables from the heap.
        var isSmall = n <= MostOnStack && m <= MostOnStack;
        var states = (m + 1) * (n + 1);
        Span<double> cost = isSmall ? stackalloc double[states] : new double[states];
        Span<int> from = isSmall ? stackalloc int[states] : new int[states];
        Span<double> elsewhere = isSmall ? stackalloc double[(n + 1) * (n + 1)] : new double[(n + 1) * (n + 1)];
        Span<double> parting = isSmall ? stackalloc double[n] : new double[n];
        Span<double> withinUpTo = isSmall ? stackalloc double[n] : new double[n];
        MeasureHeadings(words, columns, elsewhere);
        MeasureGaps(words, parting, withinUpTo);
        cost.Clear();
        cost.Slice(1, n).Fill(double.PositiveInfinity);
        for (var column = 1; column <= m; column++)
        {
            var span = columns[column - 1];
            var empty = filled(column - 1) ? 0 : span.IsFilled ? EmptyRequired : EmptyOptional;
            var (before, at) = ((column - 1) * (n + 1), column * (n + 1));
            for (var end = 0; end <= n; end++)
            {
                var (best, bestStart) = (cost[before + end] + empty, end);
                for (var start = end - 1; start >= 0; start--)
                {
                    if (double.IsPositiveInfinity(cost[before + start]))
                        continue;
                    var (left, right) = (words[start].Box.Left, words[end - 1].Box.Right);
                    var own = Math.Max(0, Math.Min(right, span.Heading.Right) - Math.Max(left, span.Heading.Left));
                    var total = cost[before + start] + span.Apart(left, right) + elsewhere[start * (n + 1) + end] - own
                        + parting[start] + withinUpTo[end - 1] - withinUpTo[start];
                    // Reading a number costs far more than measuring gaps, so it is done last and seldom.
                    if (total < best)
                        total += KindCost(words[start..end], span.Rule, habits);
                    if (total < best)
                        (best, bestStart) = (total, start);
                }
                (cost[at + end], from[at + end]) = (best, bestStart);
            }
        }
        var assigned = new int[n];
        for (var (column, end) = (m, n); column > 0; column--)
        {
            var start = from[column * (n + 1) + end];
            assigned.AsSpan(start, end - start).Fill(column - 1);
            end = start;
        }
        // A word is two only where its second part begins an amount: "PAL-EUR" is a code, whatever column follows it.
        for (var word = 1; word < n; word++)
        {
            if (words[word].IsGluedTo(words[word - 1]) && !columns[assigned[word]].HoldsMoney)
                assigned[word] = assigned[word - 1];
        }
        return assigned;
    }

    /// <summary>For each run of words how many points of headings it stands under, all columns together.</summary>
    private static void MeasureHeadings(ReadOnlySpan<Word> words, ReadOnlySpan<ColumnSpan> columns, Span<double> under)
    {
        for (var start = 0; start < words.Length; start++)
        {
            for (var end = start + 1; end <= words.Length; end++)
            {
                var sum = 0.0;
                foreach (var column in columns)
                {
                    sum += Math.Max(
                        0, Math.Min(words[end - 1].Box.Right, column.Heading.Right) - Math.Max(words[start].Box.Left, column.Heading.Left));
                }
                under[start * (words.Length + 1) + end] = sum;
            }
        }
    }

    /// <summary>What the gaps before words cost.</summary>
    /// <param name="words">From left to right.</param>
    /// <param name="parting">
    /// What it costs to begin a column at a word: something only if a mere blank stands before it, and less the wider it is.
    /// In "– 14 992,26", a dash for no discount and an amount, the blank that groups the digits is the narrower one.
    /// </param>
    /// <param name="withinUpTo">What the wide gaps up to a word cost if they stand within one column.</param>
    private static void MeasureGaps(ReadOnlySpan<Word> words, Span<double> parting, Span<double> withinUpTo)
    {
        parting.Clear();
        withinUpTo.Clear();
        for (var word = 1; word < words.Length; word++)
        {
            var gap = words[word].Box.Left - words[word - 1].Box.Right;
            var isBlank = !TextLine.IsCellGap(words[word - 1], words[word]);
            parting[word] = words[word].IsGluedTo(words[word - 1]) ? PartedAtGlue
                : isBlank ? PartedAtBlank * (1 - TextLine.PartOfCellGap(words[word - 1], words[word])) : 0;
            withinUpTo[word] = withinUpTo[word - 1] + (isBlank ? 0 : gap * GapWithin);
        }
    }

    private static double KindCost(ReadOnlySpan<Word> words, ColumnRule? rule, Habits habits) =>
        rule is null || rule.Kind == ValueKind.Text || (words.Length <= MostNumberWords && IsItsKind(words, rule, habits)) ? 0 : NotItsKind;

    private static bool IsItsKind(ReadOnlySpan<Word> words, ColumnRule rule, Habits habits)
    {
        var text = TextLine.TextOf(words);
        return Printed.IsDash(text) || new Printed(text, []).Read(rule.Tidy, rule.Kind, habits).Reading.IsGood;
    }
}
