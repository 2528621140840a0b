using System.Collections.Immutable;
using Daxlin.Core.Capture;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Corrections;

/// <summary>Counts what stands above a printed sum anew when rows were corrected.</summary>
internal sealed class SumsOfRows
{
    private readonly ImmutableArray<(CapturedSum Sum, HashSet<int>? Rows)> sums;

    /// <param name="captured">As captured: which rows a sum counts is told by it.</param>
    public SumsOfRows(CapturedInvoice captured) => sums = [.. captured.Sums.Select(sum => (sum, RowsOf(sum, captured)))];

    /// <summary>The sums with what their rows come to now.</summary>
    public ImmutableArray<CapturedSum> Anew(CapturedInvoice corrected)
    {
        if (sums.IsEmpty)
            return [];
        var anew = ImmutableArray.CreateBuilder<CapturedSum>(sums.Length);
        foreach (var (sum, rows) in sums)
        {
            if (rows is null)
            {
                anew.Add(sum);
                continue;
            }
            var (first, end) = (FirstAt(corrected, rows), LastAt(corrected, rows));
            anew.Add(sum with { Counted = first < 0 ? 0 : corrected.Lines[first..(end + 1)].Sum(Amount) });
        }
        return anew.MoveToImmutable();
    }

    /// <summary>The numbers of the rows that a sum counts; null if that is not known, or none.</summary>
    /// <remarks>
    /// Whether a sum counts all rows above it or those since the sum before is told by what it came to when it was captured. A
    /// row that a person added counts where it stands in the order of the rows.
    /// </remarks>
    private static HashSet<int>? RowsOf(CapturedSum sum, CapturedInvoice captured)
    {
        var above = captured.Lines.Where(line => IsAbove(line, sum.Place)).ToList();
        // The other sums stand between the rows, too: those since the nearest one above.
        var last = captured.Sums.Where(other => IsBefore(other.Place, sum.Place)).Select(other => (PlaceOnPage?)other.Place).LastOrDefault();
        var since = last is { } from ? above.FindAll(line => !IsAbove(line, from)) : above;
        var counted = Sum(above) == sum.Counted ? above : Sum(since) == sum.Counted ? since : null;
        return counted is null || counted.Count == 0 ? null : [.. counted.Select(line => line.Number)];
    }

    private static int FirstAt(CapturedInvoice invoice, HashSet<int> numbers)
    {
        for (var at = 0; at < invoice.Lines.Length; at++)
        {
            if (numbers.Contains(invoice.Lines[at].Number))
                return at;
        }
        return -1;
    }

    /// <summary>The last of the rows, with rows directly below it that a person added.</summary>
    private static int LastAt(CapturedInvoice invoice, HashSet<int> numbers)
    {
        var last = -1;
        for (var at = 0; at < invoice.Lines.Length; at++)
        {
            if (numbers.Contains(invoice.Lines[at].Number) || (last == at - 1 && at > 0 && IsUnprinted(invoice.Lines[at])))
                last = at;
        }
        return last;
    }

    private static bool IsUnprinted(CapturedLine line) => line.Cells.All(cell => cell.Trace.Places.IsEmpty);

    private static decimal Sum(List<CapturedLine> lines) => lines.Sum(Amount);

    private static decimal Amount(CapturedLine line) => line.NumberIn(TradeNames.Amount) ?? 0;

    private static bool IsAbove(CapturedLine line, PlaceOnPage place)
    {
        foreach (var cell in line.Cells)
        {
            if (!cell.Trace.Places.IsEmpty)
                return IsBefore(cell.Trace.Places[0], place);
        }
        return false;
    }

    private static bool IsBefore(PlaceOnPage one, PlaceOnPage other) =>
        one.Page < other.Page || (one.Page == other.Page && one.Box.Top < other.Box.Top);
}
