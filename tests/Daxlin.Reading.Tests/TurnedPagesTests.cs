using Daxlin.Core;
using Daxlin.Core.Capture;
using Daxlin.Core.Checks;
using Daxlin.Core.Drafting;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates.Json;
using Daxlin.Core.Values;
using Daxlin.Testing;

namespace Daxlin.Reading.Tests;

/// <summary>Text drawn turned, on pages that do not say so, is captured like any other, and shown where a person sees it.</summary>
public class TurnedPagesTests
{
    private const string Template = """
        {
          "name": "turned", "vendor": "Turn & Sons", "reads": { "currency": "EUR", "dates": "day-first", "decimal": ".", "grouping": "," },
          "recognise": { "must": ["Turn & Sons"] },
          "fields": {
            "invoiceNumber": { "where": { "beside": "Invoice no" } }, "invoiceDate": { "where": { "beside": "Date" } },
            "total": { "where": { "beside": "Total" } }
          },
          "blocks": [{
            "name": "goods", "closes": ["Total"],
            "columns": { "description": { "heading": "Text" }, "quantity": { "heading": "Qty" }, "unitPrice": { "heading": "Price" }, "amount": { "heading": "Sum" } },
            "row": { "begins": { "filled": "amount" } }
          }]
        }
        """;

    private static readonly string Content = TinyPdf.Text(
        (50, 780, "Turn & Sons"), (50, 760, "Invoice no"), (120, 760, "T-4"), (50, 745, "Date"), (120, 745, "14.03.2026"),
        (50, 700, "Text"), (300, 700, "Qty"), (380, 700, "Price"), (460, 700, "Sum"),
        (50, 680, "Rope, tarred"), (300, 680, "2"), (380, 680, "5.00"), (460, 680, "10.00"),
        (50, 665, "Shackle"), (300, 665, "3"), (380, 665, "4.00"), (460, 665, "12.00"),
        (50, 620, "Total"), (460, 620, "22.00"));

    private static CheckedInvoice Check(byte[] pdf) =>
        Assert.Single(InvoicePath.Take(PdfReader.Read(pdf), [TemplateReader.Read(Template)], DocumentFacts.Unknown)).Checked!;

    private static IEnumerable<(string Name, CapturedValue Value)> ValuesOf(CheckedInvoice invoice) => invoice.Captured.Fields.Select(field => (field.Name, field))
        .Concat(invoice.Captured.Lines.SelectMany(line => line.Cells.Select(cell => (ValueNames.Of("lines", line.Number, cell.Name), cell))));

    [Theory]
    [InlineData("0 1 -1 0 842 0", 842, 595)]
    [InlineData("0 -1 1 0 0 595", 842, 595)]
    [InlineData("-1 0 0 -1 595 842", 595, 842)]
    public void An_invoice_drawn_turned_is_drafted_and_pointed_at_as_if_it_were_upright(string matrix, double width, double height)
    {
        var upright = new Sample("upright.pdf", PdfReader.Read(TinyPdf.OnePage(Content)));
        var turned = new Sample("turned.pdf", PdfReader.Read(TinyPdf.OnePage($"q {matrix} cm\n{Content}Q\n", FormattableString.Invariant($"/MediaBox [0 0 {width} {height}]"))));
        var draft = Drafter.Draft([turned]);
        Assert.Equal(Drafter.Draft([upright]).Document, draft.Document);
        Assert.Equal(2, draft.Invoices[0].Captured.Lines.Length);
        // Where the value is seen is where a person points at it.
        var number = draft.Invoices[0].Captured.Find("invoiceNumber")!;
        var ways = Pointing.Ways(turned, number.Trace.Places[0], "invoiceNumber", ValueKind.Text, draft.Invoices[0].Captured.Template.Reads, [upright]);
        Assert.Equal(["T-4"], ways.Single(way => way.Says == "beside “Invoice no”").Values);
    }

    [Theory]
    [InlineData("0 1 -1 0 842 0", 842, 595, Drawn.Upwards)]
    [InlineData("0 -1 1 0 0 595", 842, 595, Drawn.Downwards)]
    [InlineData("-1 0 0 -1 595 842", 595, 842, Drawn.UpsideDown)]
    public void An_invoice_drawn_turned_yields_what_it_yields_upright(string matrix, double width, double height, Drawn drawn)
    {
        var pdf = TinyPdf.OnePage($"q {matrix} cm\n{Content}Q\n", FormattableString.Invariant($"/MediaBox [0 0 {width} {height}]"));
        Assert.Equal(drawn, Assert.Single(PdfReader.Read(pdf)).Drawn);
        var (upright, turned) = (Check(TinyPdf.OnePage(Content)), Check(pdf));
        Assert.True(turned.IsClear, string.Join(' ', turned.Findings.Select(finding => finding.Message)));
        Assert.Equal(ValuesOf(upright).Select(one => (one.Name, one.Value.Value)), ValuesOf(turned).Select(one => (one.Name, one.Value.Value)));
        foreach (var ((_, value), (name, seen)) in ValuesOf(upright).Zip(ValuesOf(turned)))
        {
            var (before, after) = (value.Trace.Places[0].Box, seen.Trace.Places[0].Box);
            // Where the matrix puts the middle of the word, in coordinates from the top left of the page as it is seen.
            var (x, y) = Moved(matrix, before.CenterX, 842 - before.CenterY);
            Assert.True(Math.Abs(after.CenterX - x) < 0.1 && Math.Abs(after.CenterY - (height - y)) < 0.1, $"{name} stands at {after}, not about {x}, {height - y}");
        }
    }

    private static (double X, double Y) Moved(string matrix, double x, double y)
    {
        var m = matrix.Split(' ').Select(part => double.Parse(part, System.Globalization.CultureInfo.InvariantCulture)).ToArray();
        return (m[0] * x + m[2] * y + m[4], m[1] * x + m[3] * y + m[5]);
    }
}
