using System.Collections.Immutable;
using Daxlin.Core.Capture;
using Daxlin.Core.Checks;

namespace Daxlin.Core.Drift;

/// <summary>How an invoice was captured, without what was captured: by this, invoices of one layout are alike.</summary>
/// <param name="Found">For each field and column that was found, by which whereabouts; for columns only that they are filled.</param>
/// <param name="IsHeld">Says that something of it is in doubt.</param>
public sealed record InvoiceTraits(ImmutableSortedDictionary<string, string> Found, bool IsHeld)
{
    public static InvoiceTraits Of(CheckedInvoice invoice)
    {
        var found = ImmutableSortedDictionary.CreateBuilder<string, string>(StringComparer.Ordinal);
        foreach (var field in invoice.Captured.Fields)
            found[field.Name] = field.Trace.Whereabouts;
        foreach (var cell in invoice.Captured.Lines.SelectMany(line => line.Cells))
            found[ValueNames.Column("lines", cell.Name)] = "";
        return new InvoiceTraits(found.ToImmutable(), !invoice.IsClear);
    }
}
