using System.Collections.Immutable;
using Daxlin.Core.Capture;
using Daxlin.Core.Checks;
using Daxlin.Core.Electronic;
using Daxlin.Core.Pages;
using Daxlin.Core.Readings;
using Daxlin.Core.Recognition;
using Daxlin.Core.Templates;

namespace Daxlin.Core;

/// <summary>The way of a document that has been read: recognise → capture → check. The service, the bench and the tests all go it.</summary>
public static class InvoicePath
{
    /// <param name="facts">What is known of the document beside its pages.</param>
    /// <param name="chosen">Which templates a person said that pages of it are for.</param>
    /// <returns>The invoices of the document in the order of their pages, one at least.</returns>
    public static ImmutableArray<TakenInvoice> Take(
        ImmutableArray<Page> pages, TemplateSet templates, DocumentFacts facts, params ImmutableArray<ChosenTemplate> chosen)
    {
        if (facts.Plain is { } sheet)
            return [new TakenInvoice(new FoundInvoice(pages, []), InvoiceChecks.Check(ElectronicCapture.Capture(sheet)))];
        var found = InvoiceSplitter.Split(pages, templates, chosen);
        if (found.Any(one => one.Matches.IsEmpty) && MisreadCues.Recognisable(pages, templates) is { } mended)
            found = InvoiceSplitter.Split(mended, templates, chosen);
        var captured = found.Select(one => one.Template is { } template ? DecidedReadings.Capture(one.Pages, template, facts) : null).ToImmutableArray();
        return [.. found.Zip(WithWitnesses(captured, facts.Electronic), (one, invoice) => new TakenInvoice(one, invoice is null ? null : CheckedOf(one, invoice, facts)))];
    }

    /// <summary>Gives each electronic invoice to the invoice of its number; one that is nobody's holds the first, so that it is not passed over.</summary>
    private static ImmutableArray<CapturedInvoice?> WithWitnesses(ImmutableArray<CapturedInvoice?> invoices, ImmutableArray<ElectronicFile> files)
    {
        foreach (var file in files)
        {
            var own = invoices.FirstOrDefault(invoice => invoice is not null && file.Invoice is { } electronic && ElectronicWitness.IsOf(invoice, electronic))
                ?? invoices.FirstOrDefault(invoice => invoice is not null);
            if (own is not null)
                invoices = invoices.Replace(own, own with { Electronic = own.Electronic.Add(file) });
        }
        return invoices;
    }

    /// <summary>Says that a finding is of the file that an invoice came in, whatever the invoice's own figures are corrected to.</summary>
    public static bool IsOfFile(Finding finding) => finding.Code is Parting.Code or ChosenTemplate.Code or SaidTemplate.Code or MendedFile.Code;

    private static CheckedInvoice CheckedOf(FoundInvoice found, CapturedInvoice captured, DocumentFacts facts)
    {
        var invoice = InvoiceChecks.Check(captured);
        if (found.Chosen is { } choice)
            invoice = invoice with { Findings = invoice.Findings.Add(choice.ToFinding(Recogniser.Choice(found.Matches))) };
        if (found.Said is { } said && !SaidTemplate.IsAmong(said, found.Matches))
            invoice = invoice with { Findings = invoice.Findings.Add(SaidTemplate.ToFinding(said, found.Template)) };
        if (facts.Mended.Length > 0)
            invoice = invoice with { Findings = invoice.Findings.Add(MendedFile.ToFinding(facts.Mended)) };
        // Where a file was parted is worth knowing only if something is wrong with the part.
        return found.Parting is not { } parting || invoice.IsClear ? invoice
            : invoice with { Findings = invoice.Findings.Add(parting.ToFinding()) };
    }
}
