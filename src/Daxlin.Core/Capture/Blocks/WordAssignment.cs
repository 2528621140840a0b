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
    private const double GapWithin = 0.5;

    /// <summary>Numbers are printed in no more words than this, blanks between their groups and a currency mark included.</summary>
    private const int MostNumberWords = 6;

    /// <summary>For each word the index of its column.</summary>
    /// <param name="words">The words of a whole row, or of one cell of it that reaches over several columns.</param>
    /// <param name="columns">The columns that may hold them, from left to right.</param>
    /// <param name="habits">How the vendor writes numbers.</param>
    /// <param name="filled">Says for a column that other words fill it already, so that leaving it empty costs nothing.</param>
    public static int[] Assign(
        IReadOnlyList<Word> words, IReadOnlyList<ColumnSpan> columns, Habits habits, Func<int, bool> filled)
    {
        var (n, m) = (words.Count, columns.Count);
        var cost = new double[m + 1, n + 1];
        var from = new int[m + 1, n + 1];
        for (var end = 1; end <= n; end++)
            cost[0, end] = double.PositiveInfinity;
        for (var column = 1; column <= m; column++)
        {
            for (var end = 0; end <= n; end++)
            {
                cost[column, end] = double.PositiveInfinity;
                for (var start = end; start >= 0; start--)
                {
                    if (double.IsPositiveInfinity(cost[column - 1, start]))
                        continue;
                    var total = cost[column - 1, start]
                        + (start == end && filled(column - 1) ? 0 : PlaceCost(words, start, end, columns, column - 1));
                    // Reading a number costs far more than measuring gaps, so it is done last and seldom.
                    if (total < cost[column, end] && start < end)
                        total += KindCost(words, start, end, columns[column - 1].Rule, habits);
                    if (total < cost[column, end])
                        (cost[column, end], from[column, end]) = (total, start);
                }
            }
        }
        var assigned = new int[n];
        for (var (column, end) = (m, n); column > 0; column--)
        {
            var start = from[column, end];
            for (var word = start; word < end; word++)
                assigned[word] = column - 1;
            end = start;
        }
        return assigned;
    }

    private static double PlaceCost(IReadOnlyList<Word> words, int start, int end, IReadOnlyList<ColumnSpan> columns, int at)
    {
        var column = columns[at];
        if (start == end)
            return column.Rule is { Required: true } ? EmptyRequired : EmptyOptional;
        var (left, right) = (words[start].Box.Left, words[end - 1].Box.Right);
        var cost = column.Apart(left, right);
        for (var other = 0; other < columns.Count; other++)
        {
            if (other != at)
                cost += Math.Max(0, Math.Min(right, columns[other].Heading.Right) - Math.Max(left, columns[other].Heading.Left));
        }
        if (start > 0 && Gap(words, start) < BlankWidth(words, start))
            cost += PartedAtBlank;
        for (var word = start + 1; word < end; word++)
        {
            if (Gap(words, word) > BlankWidth(words, word))
                cost += Gap(words, word) * GapWithin;
        }
        return cost;
    }

    private static double KindCost(IReadOnlyList<Word> words, int start, int end, ColumnRule? rule, Habits habits) =>
        rule is null || rule.Kind == ValueKind.Text
            || (end - start <= MostNumberWords && IsItsKind(words, start, end, rule, habits)) ? 0 : NotItsKind;

    private static double Gap(IReadOnlyList<Word> words, int at) => words[at].Box.Left - words[at - 1].Box.Right;

    private static double BlankWidth(IReadOnlyList<Word> words, int at) => 0.62 * Math.Max(words[at].Size, words[at - 1].Size);

    private static bool IsItsKind(IReadOnlyList<Word> words, int start, int end, ColumnRule rule, Habits habits)
    {
        var text = words[start].Text;
        for (var word = start + 1; word < end; word++)
            text += " " + words[word].Text;
        return Printed.IsDash(text) || new Printed(text, []).Read(rule.Tidy, rule.Kind, habits).Reading.IsGood;
    }
}
