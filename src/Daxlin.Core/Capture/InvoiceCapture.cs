using System.Collections.Immutable;
using Daxlin.Core.Capture.Blocks;
using Daxlin.Core.Capture.Fields;
using Daxlin.Core.Checks;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Capture;

/// <summary>Captures an invoice: from pages and a template to values, each with its trace.</summary>
public static class InvoiceCapture
{
    /// <summary>Captures all that the template speaks of. What is in doubt becomes a finding, never an exception.</summary>
    public static CapturedInvoice Capture(ImmutableArray<Page> pages, Template template)
    {
        var invoice = InvoicePages.Of(pages, template.Pages);
        var findings = ImmutableArray.CreateBuilder<Finding>();
        var fields = ImmutableArray.CreateBuilder<CapturedValue>();
        foreach (var rule in template.Fields)
        {
            var (value, doubts) = FieldCapture.Capture(rule, invoice, template.Reads);
            if (value is not null)
                fields.Add(value);
            findings.AddRange(doubts);
        }

        findings.AddRange(SkippedInvoices(pages, template));

        var lines = ImmutableArray.CreateBuilder<CapturedLine>();
        var taxes = ImmutableArray.CreateBuilder<CapturedLine>();
        var leftOut = ImmutableArray.CreateBuilder<LeftOutLine>();
        foreach (var block in template.Blocks)
        {
            var result = block.Row is not null
                ? PatternBlockCapture.Capture(block, invoice)
                : BlockCapture.Capture(block, invoice, template.Reads);
            leftOut.AddRange(result.LeftOut);
            findings.AddRange(result.Findings);
            var rows = block.IsTaxSummary ? taxes : lines;
            foreach (var printed in result.Rows)
            {
                var (line, doubts) = RowReader.Read(block, rows.Count + 1, printed, template.Reads);
                rows.Add(line);
                findings.AddRange(doubts);
            }
            if (result.Rows.IsEmpty && block.Required)
                findings.Add(Finding.Hold("no-rows", $"The block {block.Name} has no rows on this invoice.", block.Name));
        }
        if (lines.Count == 0 && template.Blocks.Any(block => !block.IsTaxSummary) && !findings.Any(finding => finding.Code == "no-rows"))
            findings.Add(Finding.Hold("no-rows", "No item row was found on this invoice.", "lines"));

        var total = fields.FirstOrDefault(field => field.Name == TradeNames.Total);
        var isCreditNote = total?.Number < 0
            || template.Recognise.CreditNote.Any(cue => invoice.Pages.Any(cue.IsOn));
        return new CapturedInvoice(
            template, isCreditNote, fields.ToImmutable(), lines.ToImmutable(), taxes.ToImmutable(), leftOut.ToImmutable(),
            [.. findings, .. CurrencyDoubts(fields, lines, template.Reads)]);
    }

    /// <summary>Pages skipped as a cover that the template itself would recognise as an invoice.</summary>
    private static IEnumerable<Finding> SkippedInvoices(ImmutableArray<Page> pages, Template template)
    {
        foreach (var page in pages.Take(template.Pages.SkipFirst))
        {
            if (template.Recognise.Must.All(cue => cue.IsOn(page)))
            {
                yield return Finding.Hold(
                    "invoice-skipped",
                    $"Page {page.Number} is skipped as a cover by the template, but looks like an invoice of {template.Vendor}.",
                    "pages");
            }
        }
    }

    /// <summary>Amounts printed with another currency's mark than the template reads.</summary>
    private static IEnumerable<Finding> CurrencyDoubts(
        IEnumerable<CapturedValue> fields, IEnumerable<CapturedLine> lines, Habits habits)
    {
        var values = fields.Select(value => (value.Name, Value: value))
            .Concat(lines.SelectMany(line => line.Cells.Select(cell => ($"lines[{line.Number}].{cell.Name}", cell))));
        foreach (var (about, value) in values)
        {
            var mark = value.Kind is ValueKind.Money or ValueKind.Number ? NumberReader.Read(value.Trace.Raw, habits).Mark
                : value.Kind is ValueKind.Currency ? value.Value : "";
            if (mark.Length > 0 && !habits.Currency.CanBePrintedAs(mark))
            {
                yield return Finding.Hold(
                    "currency-differs",
                    $"“{value.Trace.Raw}” is not in {habits.Currency.Code}, which the template reads all amounts as.",
                    about);
            }
        }
    }
}
