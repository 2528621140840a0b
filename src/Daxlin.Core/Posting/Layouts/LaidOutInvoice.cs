using System.Collections.Immutable;
using Daxlin.Core.Posting.Ubl;

namespace Daxlin.Core.Posting.Layouts;

/// <summary>What a layout writes of one invoice.</summary>
/// <param name="Sign">1 if amounts are written as printed, -1 with the other sign.</param>
/// <param name="IsTaken">False for an invoice that the layout does not ask for: it stays approved.</param>
/// <param name="Records">Those of the first table, then those of the next; empty if the layout has faults with the invoice.</param>
public sealed record LaidOutInvoice(ApprovedInvoice Invoice, int Sign, bool IsTaken, ImmutableArray<LaidOutRecord> Records, ImmutableArray<LayoutFault> Faults)
{
    /// <summary>What each side of its journal comes to; 0 if none is written.</summary>
    public decimal JournalSide { get; init; }

    /// <summary>The electronic invoice that a layout of that format writes; null by any other.</summary>
    public UblInvoice? Ubl { get; init; }
}
