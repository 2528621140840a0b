using System.Collections.Immutable;
using Daxlin.Core.Capture.Blocks;
using Daxlin.Core.Capture.Fields;
using Daxlin.Core.Checks;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Capture;

/// <summary>Captures an invoice: from pages and a template to values, each with its trace.</summary>
public static class InvoiceCapture
{
    /// <summary>Captures all that the template speaks of. What is in doubt becomes a finding, never an exception.</summary>
    /// <param name="pages">The pages of one invoice; a file with several is taken apart before.</param>
    /// <param name="facts">What is known of the document without reading it; null for nothing.</param>
    public static CapturedInvoice Capture(ImmutableArray<Page> pages, Template template, DocumentFacts? facts = null)
    {
        var invoice = InvoicePages.Of(pages, template, facts);
        var findings = new List<Finding>();
        var fields = ImmutableArray.CreateBuilder<CapturedValue>();
        var captions = Captions.Of(template);
        foreach (var rule in template.Fields)
        {
            var (value, doubts) = FieldCapture.Capture(rule, invoice, template.Reads, captions);
            if (value is not null)
                fields.Add(value);
            findings.AddRange(doubts);
        }

        var rows = new CapturedRows();
        var leftOut = ImmutableArray.CreateBuilder<LeftOutLine>();
        var sums = ImmutableArray.CreateBuilder<CapturedSum>();
        foreach (var block in template.Blocks)
        {
            var result = CaptureBlock(block, invoice, template, fields, rows);
            leftOut.AddRange(result.LeftOut);
            findings.AddRange(result.Findings);
            sums.AddRange(result.Sums);
            foreach (var draft in result.Rows)
                findings.AddRange(rows.Add(block, draft, template.Reads));
            if (result.Rows.IsEmpty && block.Required)
                findings.Add(Finding.Hold("no-rows", $"The block {block.Name} has no rows on this invoice.", block.Name));
        }

        var lines = LookUps.Fill(template, rows.Lines, rows.All, findings);
        var taxes = LookUps.Fill(template, rows.Taxes, rows.All, findings);
        var total = fields.FirstOrDefault(field => field.Name == TradeNames.Total);
        var isCreditNote = total?.Number < 0
            || template.Recognise.CreditNote.Any(cue => invoice.Pages.Any(cue.IsOn));
        var captured = new CapturedInvoice(
            template, isCreditNote, fields.ToImmutable(), lines, taxes, [.. rows.Others], leftOut.ToImmutable(), sums.ToImmutable(), [])
        {
            Pages = [.. invoice.Pages.Select(page => page.Number)],
        };
        return SeenPlaces.Of(captured with { Findings = [.. findings, .. CaptureDoubts.Of(captured, invoice), .. PageNumbers.Missing(pages)] }, pages);
    }

    private static BlockResult CaptureBlock(
        BlockRule block, InvoicePages invoice, Template template, IEnumerable<CapturedValue> fields, CapturedRows rows) => block.Row switch
        {
            IsMatch match => PatternBlockCapture.Capture(block, match.Line, invoice.PartFor(block.Where)),
            IsFields of => FieldsRow(of, fields),
            _ => BlockCapture.Capture(block, invoice.PartFor(block.Where), template.Reads, rows.ItemSum),
        };

    /// <summary>One row made of header fields, for an invoice with one amount and a sentence; none if the invoice has none of them.</summary>
    private static BlockResult FieldsRow(IsFields rule, IEnumerable<CapturedValue> fields)
    {
        var row = new RowDraft();
        foreach (var (column, name) in rule.Columns)
        {
            if (fields.FirstOrDefault(field => field.Name == name) is { } field)
                row.Add(column, new Printed(field.Trace.Raw, field.Trace.Places));
        }
        return new BlockResult(row.Cells.Count > 0 ? [row] : [], [], [], []);
    }
}
