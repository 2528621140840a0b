using System.Collections.Immutable;
using Daxlin.Core.Capture;
using Daxlin.Core.Checks;
using Daxlin.Core.Pages;
using Daxlin.Core.Recognition;
using Daxlin.Core.Templates;

namespace Daxlin.Core;

/// <summary>The way of a document that has been read: recognise → capture → check. The service, the bench and the tests all go it.</summary>
public static class InvoicePath
{
    /// <param name="facts">What is known of the document without reading it.</param>
    /// <param name="chosen">Which templates a person said that pages of it are for.</param>
    /// <returns>The invoices of the document in the order of their pages, one at least.</returns>
    public static ImmutableArray<TakenInvoice> Take(
        ImmutableArray<Page> pages, TemplateSet templates, DocumentFacts facts, params ImmutableArray<ChosenTemplate> chosen) =>
        [.. InvoiceSplitter.Split(pages, templates, chosen).Select(found => new TakenInvoice(found, CheckedOf(found, facts)))];

    private static CheckedInvoice? CheckedOf(FoundInvoice found, DocumentFacts facts)
    {
        if (found.Template is not { } template)
            return null;
        var invoice = InvoiceChecks.Check(InvoiceCapture.Capture(found.Pages, template, facts));
        if (found.Chosen is { } choice)
            invoice = invoice with { Findings = invoice.Findings.Add(choice.ToFinding(Recogniser.Choice(found.Matches))) };
        // Where a file was parted is worth knowing only if something is wrong with the part.
        return found.Parting is not { } parting || invoice.IsClear ? invoice
            : invoice with { Findings = invoice.Findings.Add(parting.ToFinding()) };
    }
}
