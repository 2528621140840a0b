using System.Collections.Immutable;

namespace Daxlin.Core.Templates;

/// <summary>Which pages of a document are captured from, and where in a file a new invoice begins.</summary>
/// <param name="SkipFirst">How many pages at most stand before the invoice: a cover letter. A page with item headings is none.</param>
/// <param name="SkipLast">How many pages stand behind the invoice: terms of delivery.</param>
/// <param name="Only">The pages that are left after skipping and are captured from.</param>
/// <param name="LeaveOut">Pages with one of these cues are no part of the invoice: annexes.</param>
/// <param name="NewInvoice">Where a new invoice begins within a file.</param>
public sealed record PageRule(
    int SkipFirst, int SkipLast, PageRange Only, ImmutableArray<Cue> LeaveOut, NewInvoiceRule NewInvoice)
{
    /// <summary>All pages, and a new invoice where the invoice number changes.</summary>
    public static PageRule Usual { get; } = new(0, 0, PageRange.All, [], new NewInvoiceRule([], TradeNames.InvoiceNumber));
}
