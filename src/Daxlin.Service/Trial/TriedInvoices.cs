using System.Collections.Immutable;
using Daxlin.Core;
using Daxlin.Core.Capture;
using Daxlin.Core.Checks;
using Daxlin.Core.Recognition;
using Daxlin.Core.Templates;
using Daxlin.Reading;
using Daxlin.Service.Invoices;

namespace Daxlin.Service.Trial;

/// <summary>Invoices that were captured and not stored, in the interface's own form.</summary>
internal static class TriedInvoices
{
    /// <summary>The invoices of a document by the templates that recognise them.</summary>
    public static IEnumerable<InvoiceDetail> Of(InvoiceDocument document, ReadDocument read, TemplateSet templates) =>
        InvoicePath.Take(read.Pages, templates, read.FactsWith(new DocumentFacts(document.File, "", null)))
            .Select(taken => Of(document, read.Pages.Length, taken.FirstPage, taken.LastPage, taken.Found.Template ?? taken.Checked?.Captured.Template, taken.Checked, taken.Found));

    /// <summary>One that was captured by a template, whether or not that recognises it.</summary>
    public static InvoiceDetail Of(InvoiceDocument document, int pages, CheckedInvoice invoice) =>
        Of(document, pages, 1, pages, invoice.Captured.Template, invoice, null);

    private static InvoiceDetail Of(
        InvoiceDocument document, int pages, int firstPage, int lastPage, Template? template, CheckedInvoice? invoice, FoundInvoice? found)
    {
        var record = invoice is not null ? InvoiceRecords.Of(invoice)
            : InvoiceRecord.Empty with { Findings = InvoiceRecords.OfFile(Placing.FindingsOf(found!)) };
        return new InvoiceDetail(
            0, 1, invoice is null ? "unplaced" : invoice.IsClear ? "clear" : "held", record.Kind, 0, "",
            document, pages, firstPage, lastPage,
            template?.Name ?? "", 0, template?.Vendor ?? "", template?.Reads.Currency.Code ?? "",
            record.Fields, record.Lines, record.Taxes, record.Others, record.Findings, record.Ties, record.Tied, record.Unproved, record.LeftOut, [], null,
            record.Entered, record.Struck, record.Accepted, "", null, record.Proof, record.Unsure, [], [], record.Electronic)
        {
            CapturedPages = invoice?.Captured.Pages ?? [],
        };
    }
}
