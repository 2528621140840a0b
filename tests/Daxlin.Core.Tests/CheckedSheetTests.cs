using Daxlin.Core.Checks;
using Daxlin.Core.Electronic;
using Daxlin.Core.Templates;
using Daxlin.Core.Templates.Json;

namespace Daxlin.Core.Tests;

/// <summary>Invoices in a few words, each with all that the checks make of it, in files that read as examples.</summary>
public class CheckedSheetTests
{
    private static Template Over(string name) => name.Replace("credit note", "", StringComparison.Ordinal).Trim() switch
    {
        "included" => MadeUpInvoice.Template with { Reads = MadeUpInvoice.Template.Reads with { TaxIncluded = true } },
        "strict" => MadeUpInvoice.Template,
        "without quantity" => MadeUpInvoice.Template with { Blocks = [.. MadeUpInvoice.Template.Blocks.Select(block => block with { Columns = [.. block.Columns.Where(column => column.Name != TradeNames.Quantity)] })] },
        "own ties" => TemplateReader.Read(OwnTies),
        "untied allowed" => MadeUpInvoice.Template with
        {
            Fields = MadeUpInvoice.Template.Fields.Add(MadeUpInvoice.Template.Fields[^1] with { Name = "deposit", MayBeUntied = true }),
            Blocks = [.. MadeUpInvoice.Template.Blocks.Select(block => block with { Columns = block.Columns.Add(block.Columns[^1] with { Name = "surcharge", MayBeUntied = block.HoldsItems }) })],
        },
        _ => MadeUpInvoice.Template,
    };

    private const string OwnTies = """
        {
          "name": "slipway", "vendor": "Slipway Paints",
          "reads": { "currency": "EUR", "dates": "day-first", "decimal": ".", "grouping": "," },
          "recognise": { "must": ["Slipway"] },
          "fields": {
            "invoiceNumber": { "where": { "beside": "No" } }, "invoiceDate": { "where": { "beside": "Date" } }, "total": { "where": { "beside": "Total" } },
            "deposit": { "type": "money", "where": { "beside": "Paid" } }, "balance": { "type": "money", "where": { "beside": "Open" } }, "fee": { "type": "money", "where": { "beside": "Fee" } },
            "pallets": { "type": "number", "where": { "beside": "Pallets" } }, "weightOfAll": { "type": "number", "where": { "beside": "Weight" } }
          },
          "blocks": [{ "name": "goods", "columns": { "description": { "heading": "Text" }, "weight": { "heading": "kg", "type": "number" }, "gross": { "heading": "gross", "type": "number" }, "amount": { "heading": "Sum" } }, "row": { "begins": { "filled": "amount" } } }],
          "checks": { "ties": ["deposit + balance = total", "0.1 × total = fee", "lines.weight × 1.1 = lines.gross", "pallets × sum of lines.weight = weightOfAll"] }
        }
        """;

    /// <summary>What is found in a sheet: its equations, its findings, and the numbers that stand in no equation.</summary>
    private static List<string> FoundIn(string sheet, string template)
    {
        var invoice = InvoiceChecks.Check(ValueSheet.Captured(sheet, template.Contains("credit note", StringComparison.Ordinal), Over(template)));
        return
        [
            .. invoice.Ties.Select(tie => $"{(tie.Holds ? "=" : "≠")} {tie.Equation}: {string.Join(' ', tie.Members)}"), .. invoice.Findings.Select(finding => "! " + finding.Message),
            .. invoice.Unproved.IsEmpty ? [] : new[] { $"? {string.Join(' ', invoice.Unproved)}" },
        ];
    }

    public static TheoryData<string> Sheets(string file) => [.. ValueSheet.BlocksOf(file)];

    /// <summary>Each invoice of Sheets/checks.txt is checked by just the equations that stand below it, and held by just the sentences.</summary>
    [Theory]
    [MemberData(nameof(Sheets), "checks.txt")]
    public void An_invoice_is_checked_by_these_equations_and_held_by_these_sentences(string block)
    {
        var lines = block.Split('\n');
        var (template, sheet) = lines[0].Split('@') is [var before, var after] ? (before.Trim(), after.Trim()) : ("", lines[0].Trim());
        Assert.Equal(lines[1..].Select(line => line.Trim()), FoundIn(sheet, template));
    }

    /// <summary>Each pair of a page and an electronic invoice in Sheets/witness.txt agrees in just these figures and differs in just these sentences.</summary>
    [Theory]
    [MemberData(nameof(Sheets), "witness.txt")]
    public void An_electronic_invoice_agrees_with_its_page_in_these_figures_and_differs_in_these(string block)
    {
        var lines = block.Split('\n');
        Assert.Equal(lines[2..].Select(line => line.Trim()), FoundBeside(lines[0], lines[1]));
    }

    private static List<string> FoundBeside(string page, string file)
    {
        var (template, sheet) = page.Split('@') is [var before, var after] ? (before.Trim(), after.Trim()) : ("", page.Trim());
        var stated = file.Trim().TrimStart('+').Trim();
        var electronic = new ElectronicFile("e.xml", ValueSheet.Stated(stated.Split('@')[^1].Trim(), stated.StartsWith("credit note @", StringComparison.Ordinal)), "");
        var invoice = InvoiceChecks.Check(ValueSheet.Captured(sheet, template.Contains("credit note", StringComparison.Ordinal), Over(template)) with { Electronic = [electronic] });
        return
        [
            .. invoice.Ties.OfType<AgreesWithElectronic>().Select(tie => $"{(tie.Holds ? "=" : "≠")} {tie.Spoken}: {string.Join(' ', tie.Members)}"),
            .. invoice.Findings.Where(finding => finding.Code.StartsWith("electronic", StringComparison.Ordinal)).Select(finding => "! " + finding.Message),
            ElectronicWitness.Sentence(invoice, electronic),
        ];
    }
}
