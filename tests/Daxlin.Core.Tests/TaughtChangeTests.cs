using System.Collections.Immutable;
using Daxlin.Core.Capture;
using Daxlin.Core.Checks;
using Daxlin.Core.Corrections;
using Daxlin.Core.Drafting;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;
using Daxlin.Core.Templates.Json;

namespace Daxlin.Core.Tests;

/// <summary>What is corrected on three invoices of one template is offered as a change of it, and only one that gives just what was said.</summary>
public class TaughtChangeTests
{
    private const string Document = """
        {
          "name": "scoter", "vendor": "Scoter Lamps",
          "reads": { "currency": "EUR", "dates": "day-first", "decimal": ".", "grouping": "," },
          "recognise": { "must": ["Scoter Lamps"] },
          "fields": {
            "invoiceNumber": { "where": { "beside": "Invoice" } }, "invoiceDate": { "where": { "beside": "Date" } },
            "dueDate": { "where": [{ "beside": "Payable until" }], "required": false },
            "subtotal": { "where": { "beside": "Goods" } }, "total": { "where": { "beside": "Total" } },
            "deposit": { "type": "money", "where": { "beside": "On deposit" } }
          },
          "blocks": [{
            "name": "goods", "closes": ["Goods"],
            "columns": { "description": { "heading": "Text" }, "amount": { "heading": "Sum" } },
            "row": { "begins": { "filled": "amount" } }
          }]
        }
        """;

    private static readonly Template Template = TemplateReader.Read(Document);

    private static Sample Set(int number, bool hasSheet) => new($"{number}.pdf", Typewriter.Set($"""
        Scoter Lamps             Invoice SL-{number}
        Date 14.03.2026          Pay by 1{number % 10}.04.2026
        On deposit    7{number % 10}.00

        Text                     Sum
        Lamp glass {number}             10.00
        {(hasSheet ? $"Sheet weight {number}            2.50\n" : "")}Wick                      5.00
        Goods                    15.00
        Total                    15.00
        """));

    private static readonly ImmutableArray<Sample> Samples = [.. Enumerable.Range(1, 4).Select(number => Set(number, hasSheet: true))];

    private static CheckedInvoice Checked(string document, Sample sample) => InvoiceChecks.Check(InvoiceCapture.Capture(sample.Pages, TemplateReader.Read(document)));

    private static RepeatedCorrection Only(params IEnumerable<SaidOfInvoice> said) => Assert.Single(RepeatedCorrection.In(said));

    [Fact]
    public void A_value_that_was_typed_three_times_is_found_where_it_is_printed_and_on_the_next_invoice_too()
    {
        var repeated = Only(Enumerable.Range(1, 3).Select(number => new SaidOfInvoice(number, [new("dueDate", $"2026-04-1{number}", "", null), new("invoiceNumber", number == 1 ? "X" : "", "Y", null)], [], [])));
        Assert.Equal("The due date was entered by hand on 3 invoices.", repeated.Says);
        var change = TaughtChange.For(repeated, Document, [.. Samples.Take(3)])!;
        Assert.Equal("the due date is looked for beside “Pay by” first", change.Says);
        Assert.Equal("2026-04-14", Checked(change.Document, Samples[3]).Captured.Find("dueDate")?.Value);
        // Whatever else the template says stays as it was.
        var comparison = TemplateComparison.Of(Document, change.Document);
        Assert.All(comparison, one => Assert.StartsWith("fields.dueDate.where", one.Place, StringComparison.Ordinal));
    }

    [Fact]
    public void A_row_struck_out_three_times_is_left_out_by_the_words_that_all_of_them_begin_with()
    {
        var repeated = Only(Samples.Take(3).Select((sample, at) =>
        {
            var row = InvoiceCapture.Capture(sample.Pages, Template).Lines.Single(line => line.Find("description")!.Value.StartsWith("Sheet", StringComparison.Ordinal));
            return new SaidOfInvoice(at + 1, [], [("goods", row.Cells[0].Trace.Places[0])], []);
        }));
        var change = TaughtChange.For(repeated, Document, [.. Samples.Take(3)])!;
        Assert.Equal("lines that begin with “Sheet weight” are no rows of goods", change.Says);
        Assert.Equal(["Lamp glass 4", "Wick"], Checked(change.Document, Samples[3]).Captured.Lines.Select(line => line.Find("description")!.Value));
        Assert.Equal(3, Checked(Document, Samples[3]).Captured.Lines.Length);
    }

    [Fact]
    public void An_amount_in_no_sum_that_was_let_pass_three_times_may_pass()
    {
        var repeated = Only(Enumerable.Range(1, 3).Select(number => new SaidOfInvoice(number, [], [], ["deposit"])));
        var change = TaughtChange.For(repeated, Document, [.. Samples.Take(3)])!;
        Assert.Equal("the deposit may pass although no sum holds it", change.Says);
        Assert.DoesNotContain(Checked(change.Document, Samples[3]).Findings, finding => finding.Code == "amount-untied");
    }

    [Fact]
    public void What_no_one_change_gives_is_offered_without_one()
    {
        // One of the values is printed nowhere.
        var typed = Only(new[] { "2026-04-11", "2026-04-12", "2026-09-09" }.Select((value, at) => new SaidOfInvoice(at + 1, [new("dueDate", value, "", null)], [], [])));
        Assert.Null(TaughtChange.For(typed, Document, [.. Samples.Take(3)]));
        // The rows have no word in common but would take others with them.
        var rows = Only(Samples.Take(3).Select((sample, at) => new SaidOfInvoice(at + 1, [], [("goods", InvoiceCapture.Capture(sample.Pages, Template).Lines[at % 2 == 0 ? 0 : 2].Cells[0].Trace.Places[0])], [])));
        Assert.Null(TaughtChange.For(rows, Document, [.. Samples.Take(3)]));
        var column = Only(Enumerable.Range(1, 3).Select(number => new SaidOfInvoice(number, [new("lines[2].amount", "1.00", "", null), new("lines[2].description", "Wick", "Wick", null), new("lines[3].amount", "1.00", "2.00", null)], [], [])));
        Assert.Equal("The amount of a row was entered by hand on 3 invoices.", column.Says);
        Assert.Null(TaughtChange.For(column, Document, [.. Samples.Take(3)]));
        Assert.Empty(RepeatedCorrection.In(Enumerable.Range(1, 2).Select(number => new SaidOfInvoice(number, [new("dueDate", "2026-04-11", "", null), new("total", "", "9.00", null)], [], ["deposit"]))));
    }

    [Fact]
    public void A_row_that_a_person_made_is_no_fault_of_the_template_and_a_value_missing_on_a_captured_one_is()
    {
        SaidOfInvoice Said(int invoice, string captured) =>
            new(invoice, [new("lines[4].quantity", "2", "", null), new("lines[4].description", "Wick", captured, null), new("total", "9.00", "9.00", null)], [], []);
        Assert.Empty(RepeatedCorrection.In(Enumerable.Range(1, 3).Select(number => Said(number, ""))));
        Assert.Equal("lines[].quantity", Only(Enumerable.Range(1, 3).Select(number => Said(number, "Wick"))).Name);
    }
}
