using Daxlin.Core.Capture;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Corrections;

/// <summary>Counts what stands above a printed sum anew when rows were corrected.</summary>
internal static class SumsOfRows
{
    /// <remarks>
    /// Whether a sum counts all rows above it or those since the sum before is told by what it came to when it was captured. A
    /// row that a person added counts where it stands in the order of the rows.
    /// </remarks>
    public static CapturedSum Anew(CapturedSum sum, CapturedInvoice captured, CapturedInvoice corrected)
    {
        var above = captured.Lines.Where(line => IsAbove(line, sum.Place)).ToList();
        // The other sums stand between the rows, too: those since the nearest one above.
        var last = captured.Sums.Where(other => IsBefore(other.Place, sum.Place)).Select(other => (PlaceOnPage?)other.Place).LastOrDefault();
        var since = last is { } from ? above.FindAll(line => !IsAbove(line, from)) : above;
        var counted = Sum(above) == sum.Counted ? above : Sum(since) == sum.Counted ? since : null;
        if (counted is null || counted.Count == 0)
            return sum;
        var numbers = counted.Select(line => line.Number).ToHashSet();
        var (first, end) = (FirstAt(corrected, numbers), LastAt(corrected, numbers));
        return first < 0 ? sum with { Counted = 0 } : sum with { Counted = corrected.Lines[first..(end + 1)].Sum(Amount) };
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
