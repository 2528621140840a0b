using System.Text.Json.Nodes;
using Spectre.Console;

namespace Daxlin.Cli.Commands;

/// <summary>Codes of lines as a terminal shows them.</summary>
internal static class CodingSheet
{
    /// <summary>The codes, as the interface names them, and as commands and tables do.</summary>
    public static readonly (string Name, string Option, string Heading)[] Codes =
        [("account", "--account", "account"), ("costCentre", "--cost-centre", "cost centre"), ("project", "--project", "project"), ("taxCode", "--tax-code", "tax code")];

    /// <param name="lines">Each with <c>line</c> and <c>parts</c>, and <c>text</c> if it is known.</param>
    public static void Print(JsonArray lines, string currency)
    {
        if (lines.Count == 0)
            return;
        var table = Terminal.NewTable([("row", true), ("amount", true), .. Codes.Select(code => (code.Heading, false)), ("said by", false)]);
        foreach (var line in lines)
        {
            foreach (var (part, at) in line!["parts"]!.AsArray().Select((part, at) => (part!, at)))
            {
                var codes = part["codes"]!.AsObject();
                table.AddRow(
                [
                    new Text(at > 0 ? "and" : Shown.Number(line["line"]) is > 0 and var row ? $"{row}" : "all"), new Text(Shown.Amount(Shown.Text(part["amount"]), currency)),
                    .. Codes.Select(code => new Text(Shown.Text(codes[code.Name]?["value"]))),
                    // The rule's number; its words are long, and stand in the rules.
                    new Text(string.Join(", ", codes.Select(code => Shown.Text(code.Value!["from"]).Split(',')[0]).Distinct())),
                ]);
            }
        }
        Terminal.Out.Write(table);
    }

    public static void PrintTried(string file, JsonNode tried)
    {
        if (tried["documentFaults"]!.AsArray() is { Count: > 0 } faults)
        {
            WrittenDocument.PrintFaults(file, faults);
            return;
        }
        var invoices = tried["invoices"]!.AsArray();
        Terminal.Line($"{file} on {PostingCommands.Count(JsonValue.Create(invoices.Count), "invoice")} with {PostingCommands.Count(tried["lines"], "row")}:");
        foreach (var rule in tried["rules"]!.AsArray())
            Terminal.Line($"  rule {Shown.Text(rule!["number"])}{(Shown.Text(rule["of"]) is { Length: > 0 } of ? $", {of}" : "")}: {(Shown.Number(rule["lines"]) == 0 ? "no row" : PostingCommands.Count(rule["lines"], "row"))}");
        foreach (var invoice in invoices)
        {
            Terminal.Line($"{Shown.Text(invoice!["id"])}  {Shown.Text(invoice["vendor"])} {Shown.Text(invoice["invoiceNumber"])}");
            Print(invoice["lines"]!.AsArray(), Shown.Text(invoice["currency"]));
            foreach (var finding in invoice["findings"]!.AsArray())
                BatchSheet.Hanging($"{InvoiceSheet.SignOf(finding!)} ", Shown.Text(finding!["message"]));
        }
    }
}
