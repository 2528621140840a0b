using System.Collections.Immutable;

namespace Daxlin.Core.Rehearsal;

/// <summary>Finds which rows of two captures are the same row of the page.</summary>
/// <remarks>
/// One row lost must not make all rows below it look changed, so rows are paired in order such that the most cells agree
/// (the alignment of Needleman and Wunsch, 1970). What is left between two pairs is paired in order too: a row of which
/// every cell came out otherwise is still that row.
/// </remarks>
internal static class RowAlignment
{
    /// <summary>More pairs than this are not weighed; rows beyond are paired by their numbers.</summary>
    private const long MostWeighed = 4_000_000;

    /// <summary>Rows of which fewer cells agree are not taken for the same.</summary>
    private const double LeastAlike = 0.34;

    /// <summary>Pairs in order; one of the two is null where a row has no other.</summary>
    public static IEnumerable<(RehearsedRow? Before, RehearsedRow? After)> Of(ImmutableArray<RehearsedRow> before, ImmutableArray<RehearsedRow> after)
    {
        var head = 0;
        while (head < before.Length && head < after.Length && Same(before[head], after[head]))
            head++;
        var tail = 0;
        while (tail < before.Length - head && tail < after.Length - head && Same(before[^(tail + 1)], after[^(tail + 1)]))
            tail++;
        for (var index = 0; index < head; index++)
            yield return (before[index], after[index]);
        foreach (var pair in Filled(before[head..^tail], after[head..^tail]))
            yield return pair;
        for (var index = tail; index > 0; index--)
            yield return (before[^index], after[^index]);
    }

    private static bool Same(RehearsedRow one, RehearsedRow other) => one.Cells.SequenceEqual(other.Cells);

    private static IEnumerable<(RehearsedRow? Before, RehearsedRow? After)> Filled(ImmutableArray<RehearsedRow> before, ImmutableArray<RehearsedRow> after)
    {
        var (left, right) = (0, 0);
        foreach (var (old, next) in Alike(before, after).Append((before.Length, after.Length)))
        {
            for (; left < old && right < next; left++, right++)
                yield return (before[left], after[right]);
            for (; left < old; left++)
                yield return (before[left], null);
            for (; right < next; right++)
                yield return (null, after[right]);
            if (old < before.Length)
                yield return (before[left++], after[right++]);
        }
    }

    /// <summary>Indexes of rows that are alike, in order.</summary>
    private static List<(int Before, int After)> Alike(ImmutableArray<RehearsedRow> before, ImmutableArray<RehearsedRow> after)
    {
        var pairs = new List<(int, int)>();
        if (before.IsEmpty || after.IsEmpty || (long)before.Length * after.Length > MostWeighed)
            return pairs;
        var best = new float[before.Length + 1, after.Length + 1];
        for (var i = before.Length - 1; i >= 0; i--)
        {
            for (var j = after.Length - 1; j >= 0; j--)
                best[i, j] = Math.Max(best[i + 1, j + 1] + Likeness(before[i], after[j]), Math.Max(best[i + 1, j], best[i, j + 1]));
        }
        for (var (i, j) = (0, 0); i < before.Length && j < after.Length;)
        {
            var alike = Likeness(before[i], after[j]);
            if (alike > 0 && best[i, j] == best[i + 1, j + 1] + alike)
                pairs.Add((i++, j++));
            else if (best[i, j] == best[i + 1, j])
                i++;
            else
                j++;
        }
        return pairs;
    }

    /// <summary>The share of cells that agree; 0 where it is too small.</summary>
    private static float Likeness(RehearsedRow one, RehearsedRow other)
    {
        var same = one.Cells.Count(cell => other.Cells.GetValueOrDefault(cell.Key) == cell.Value);
        var share = same / (double)Math.Max(1, Math.Max(one.Cells.Count, other.Cells.Count));
        return share < LeastAlike ? 0 : (float)share;
    }
}
