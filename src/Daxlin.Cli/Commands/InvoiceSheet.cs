using System.Text.Json.Nodes;
using Spectre.Console;

namespace Daxlin.Cli.Commands;

/// <summary>An invoice as a terminal shows it: findings, values with their pages, rows, taxes, sums, what is unproved and left out.</summary>
internal static class InvoiceSheet
{
    /// <summary>What stands in the place of a template's name for an invoice that came as an electronic one.</summary>
    private const string ElectronicInvoice = "electronic invoice";

    public static void Print(JsonNode invoice)
    {
        var currency = Shown.Text(invoice["currency"]);
        var isStored = Shown.Number(invoice["id"]) > 0;
        Terminal.Line($"{(isStored ? $"Invoice {Shown.Text(invoice["id"])}" : "Tried")}  {Shown.State(Shown.Text(invoice["state"]))}"
            + (Shown.Text(invoice["kind"]) == "creditNote" ? "  credit note" : "")
            + $"  {Shown.Text(invoice["vendor"])} {Field(invoice, "invoiceNumber")}");
        if (Shown.Text(invoice["firstApprovedBy"]) is { Length: > 0 } first && Shown.Text(invoice["state"]) != "approved")
            Terminal.Line($"Approved by {first}; a second approver has to, too.");
        Terminal.Line($"{Shown.Text(invoice["document"]!["file"])}, {PagesOf(invoice)}"
            + (isStored ? $", batch {Shown.Text(invoice["batch"])} “{Shown.Text(invoice["batchName"])}”" : "")
            + (Shown.Text(invoice["template"]) is { Length: > 0 } template ? template == ElectronicInvoice ? ", read as an electronic invoice" : $", template {template}" : "")
            + (isStored && Shown.Number(invoice["templateVersion"]) > 0 ? $" version {Shown.Text(invoice["templateVersion"])}" : ""));
        if (Shown.Text(invoice["proof"]!["says"]) is { Length: > 0 } proof)
            Terminal.Line(proof);
        foreach (var electronic in invoice["electronic"]!.AsArray())
            Terminal.Line(Shown.Text(electronic!["says"]));
        PrintFindings(invoice, "");

        var unsure = invoice["unsure"]!.AsArray().Select(Shown.Text).ToHashSet();
        if (unsure.Count > 0)
            Terminal.Line($"≈ Found in a later of the template's ways only, and held by no sum: {string.Join(", ", unsure.Select(Shown.Spoken))}.");
        var fields = Terminal.NewTable(("field", false), ("value", true), ("page", true), ("found", false));
        foreach (var (name, value) in invoice["fields"]!.AsObject().OrderBy(field => Rank(field.Key)))
        {
            fields.AddRow(
                new Text(Shown.Spoken(name)), new Text((unsure.Contains(name) ? "≈ " : "") + Value(value!, currency)), new Text(Page(value!)), new Text(Shown.Cut(Shown.Text(value!["whereabouts"]), 40)));
        }
        if (fields.Rows.Count > 0)
            Terminal.Out.Write(fields);
        PrintLines(invoice, currency);
        CodingSheet.Print(invoice["coding"]!.AsArray(), currency);
        PrintTaxes(invoice, currency);
        PrintOthers(invoice);
        foreach (var tie in invoice["ties"]!.AsArray().Where(tie => !Shown.Text(tie!["equation"]).Contains("(line ", StringComparison.Ordinal)))
        {
            Terminal.Line($"{(tie!["holds"]!.GetValue<bool>() ? "= holds" : "≠ is off")}  {Shown.Text(tie["equation"])}: "
                + $"{Shown.Amount(Shown.Text(tie["left"]), currency)} against {Shown.Amount(Shown.Text(tie["right"]), currency)}");
        }
        PrintUnproved(invoice);
        PrintLeftOut(invoice);
        PrintSaid(invoice);
        foreach (var decision in invoice["decisions"]!.AsArray())
        {
            Terminal.Line($"{Shown.Time(decision!["at"])}  {Shown.Text(decision["what"])}{Change(decision)} by {Shown.Text(decision["by"])}"
                + (Shown.Text(decision["reason"]) is { Length: > 0 } reason ? $": {reason}" : ""));
        }
        foreach (var letter in invoice["letters"]!.AsArray())
        {
            var how = Shown.Text(letter!["state"]) switch { "sent" => ("●", "was sent"), "waiting" => ("◦", "waits to be sent"), _ => ("▲", "was not sent: look, and send it yourself") };
            Terminal.Line($"{how.Item1} The letter to {Shown.Text(letter["to"])} {how.Item2}. {Shown.Text(letter["says"])}".TrimEnd());
        }
    }

    /// <summary>What an act has made of an invoice: its state on a line, and what is to be looked at.</summary>
    /// <param name="more">What the line says besides.</param>
    public static int PrintOutcome(JsonNode invoice, string more, CommandContext context)
    {
        context.Print(invoice, () =>
        {
            var number = string.Join(' ', new[] { Shown.Text(invoice["vendor"]), Field(invoice, "invoiceNumber") }.Where(text => text.Length > 0));
            Terminal.Line($"{Shown.Text(invoice["id"])}  {Shown.State(Shown.Text(invoice["state"]))}  {number}{more}");
            PrintFindings(invoice, "    ");
        });
        return CodeOf(invoice);
    }

    /// <summary>Whether there is something to look at.</summary>
    public static int CodeOf(JsonNode invoice) => Shown.Text(invoice["state"]) is "held" or "unplaced" ? ExitCodes.SomethingToLookAt : ExitCodes.Done;

    private static void PrintFindings(JsonNode invoice, string indent)
    {
        foreach (var finding in invoice["findings"]!.AsArray())
            Terminal.Line($"{indent}{SignOf(finding!)} {Shown.Text(finding!["message"])}");
    }

    /// <summary>What holds an invoice, or is worth knowing only.</summary>
    internal static string SignOf(JsonNode finding) => Shown.Text(finding["severity"]) == "note" ? "·" : "▲";

    /// <summary>What a correction made of what; other decisions say so by their word.</summary>
    private static string Change(JsonNode decision)
    {
        static string Shortened(JsonNode? text) => Shown.Text(text) is { Length: > 0 } said ? Shown.Cut(said, 30) : "nothing";
        return Shown.Text(decision["what"]).StartsWith("corrected ", StringComparison.Ordinal) ? $": {Shortened(decision["before"])} → {Shortened(decision["after"])}" : "";
    }

    /// <summary>What persons said of it beside what was captured.</summary>
    private static void PrintSaid(JsonNode invoice)
    {
        foreach (var (name, one) in invoice["entered"]!.AsObject())
        {
            Terminal.Line($"✎ {name}: {(Shown.Text(one!["value"]) is { Length: > 0 } value ? value : "none")} by {Shown.Text(one["by"])}; "
                + (Shown.Text(one["captured"]) is { Length: > 0 } captured ? $"captured was {captured}" : "nothing was captured"));
        }
        foreach (var one in invoice["struck"]!.AsArray())
            Terminal.Line($"✎ row {Shown.Text(one!["row"]!["number"])} of {Shown.Text(one["list"])} is none, by {Shown.Text(one["by"])}");
        foreach (var one in invoice["accepted"]!.AsArray())
        {
            Terminal.Line($"✓ let pass by {Shown.Text(one!["by"])}{(Shown.Text(one["reason"]) is { Length: > 0 } reason ? $", because: {reason}" : "")}. {Shown.Text(one["message"])}");
        }
    }

    /// <summary>The order in which a clerk reads a header; names of a template's own come after.</summary>
    private static int Rank(string name) =>
        Array.IndexOf(ReadingOrder, name) is >= 0 and var at ? at : ReadingOrder.Length;

    private static readonly string[] ReadingOrder =
    [
        "invoiceNumber", "invoiceDate", "dueDate", "purchaseOrder", "vendorName", "vendorTaxId", "iban", "currency", "subtotal",
        "discount", "freight", "tax", "total",
    ];

    private static void PrintLines(JsonNode invoice, string currency)
    {
        var lines = invoice["lines"]!.AsArray();
        if (lines.Count == 0)
            return;
        var headings = new[] { "row", "item", "description", "quantity", $"price {currency}", "tax", $"amount {currency}", "page" };
        var rows = lines.SelectMany((line, index) => Above(line!, index == 0 ? null : lines[index - 1])
            .Append(Row(line!)).Concat(Besides(line!)).Concat(Under(line!))).Select(row => (IReadOnlyList<string>)row).Prepend(headings).ToList();
        var table = Terminal.NewTable(
            (headings[0], true), (headings[1], false), (headings[2], false), (headings[3], true), (headings[4], true), (headings[5], true),
            (headings[6], true), (headings[7], true));
        Terminal.LetWrap(table, 2, rows);
        Terminal.Out.Write(table);
    }

    private static void PrintTaxes(JsonNode invoice, string currency)
    {
        var taxes = invoice["taxes"]!.AsArray();
        if (taxes.Count == 0)
            return;
        var table = Terminal.NewTable(("tax", true), ($"base {currency}", true), ($"tax {currency}", true), ("page", true));
        foreach (var row in taxes)
        {
            var cells = row!["cells"]!;
            table.AddRow(
                new Text(Cell(cells, "rate") is { Length: > 0 } rate ? rate + "%" : ""), new Text(Shown.Grouped(Cell(cells, "base"))),
                new Text(Shown.Grouped(Cell(cells, "amount"))), new Text(cells["amount"] is { } amount ? Page(amount) : ""));
        }
        Terminal.Out.Write(table);
    }

    /// <summary>The numbers that no sum checks, by what they are: "quantity of rows 1–4, 6".</summary>
    private static void PrintUnproved(JsonNode invoice)
    {
        var names = invoice["unproved"]!.AsArray().Select(Shown.Text).ToList();
        if (names.Count == 0)
            return;
        var rows = names.Select(name => (Name: name, Match: System.Text.RegularExpressions.Regex.Match(name, @"^(\w+)\[(\d+)\]\.(.+)$"))).ToList();
        var said = rows.Where(row => !row.Match.Success).Select(row => Shown.Spoken(row.Name))
            .Concat(rows.Where(row => row.Match.Success)
                .GroupBy(row => (List: row.Match.Groups[1].Value, Column: System.Text.RegularExpressions.Regex.Replace(row.Match.Groups[3].Value, @"\[\d+\]", "")))
                .Select(group => $"{Shown.Spoken(group.Key.Column.Replace(".", ", ", StringComparison.Ordinal))} of {(group.Key.List == "lines" ? "rows" : group.Key.List)} "
                    + Shown.Ranges(group.Select(row => int.Parse(row.Match.Groups[2].Value, System.Globalization.CultureInfo.InvariantCulture)))));
        Terminal.Line($"Not checked by any sum: {string.Join("; ", said)}.");
    }

    /// <summary>What stands inside the blocks and is no row, once for each text and reason.</summary>
    private static void PrintLeftOut(JsonNode invoice)
    {
        foreach (var group in invoice["leftOut"]!.AsArray().GroupBy(line => (Text: Shown.Text(line!["text"]), Why: Shown.Text(line["why"]))))
        {
            var pages = Shown.Ranges(group.Select(line => Shown.Number(line!["page"])));
            Terminal.Line($"Left out, {group.Key.Why}: {Shown.Cut(group.Key.Text, 60)} (page {pages})");
        }
    }

    /// <summary>Lists of their own, which no sum counts.</summary>
    private static void PrintOthers(JsonNode invoice)
    {
        foreach (var row in invoice["others"]!.AsArray())
        {
            var cells = row!["cells"]!.AsObject().Select(cell => $"{Shown.Spoken(cell.Key)} {Shown.Text(cell.Value!["value"])}");
            Terminal.Line($"{Shown.Spoken(Shown.Text(row["block"]))} {Shown.Text(row["number"])}: {string.Join(", ", cells)}");
        }
    }

    /// <summary>A section stands once over the rows that it belongs to.</summary>
    private static IEnumerable<string[]> Above(JsonNode line, JsonNode? before)
    {
        var section = Cell(line["cells"]!, "section");
        return section.Length == 0 || section == (before is null ? "" : Cell(before["cells"]!, "section")) ? [] : [InDescription(section)];
    }

    /// <summary>What else stands in a row than the table has columns for: discounts, a price basis, a delivery note.</summary>
    private static IEnumerable<string[]> Besides(JsonNode line)
    {
        var more = line["cells"]!.AsObject().Where(cell => !InTable.Contains(cell.Key) && !(cell.Key == "priceBasis" && Shown.Text(cell.Value!["value"]) == "1"))
            .Select(cell => $"{Shown.Spoken(cell.Key)} {Shown.Text(cell.Value!["value"])}").ToList();
        return more.Count == 0 ? [] : [InDescription($"  {string.Join(", ", more)}")];
    }

    private static readonly string[] InTable =
        ["itemCode", "description", "section", "quantity", "unit", "unitPrice", "taxRate", "amount"];

    private static string[] InDescription(string text) => ["", "", text, "", "", "", "", ""];

    /// <summary>The lists under a row, each of their rows on a line of its own.</summary>
    private static IEnumerable<string[]> Under(JsonNode line) =>
        from list in line["under"]!.AsArray()
        from row in list!["rows"]!.AsArray()
        let cells = string.Join(", ", row!.AsObject().Select(cell => $"{Shown.Spoken(cell.Key)} {Shown.Text(cell.Value!["value"])}"))
        select InDescription($"  · {Shown.Spoken(Shown.Text(list["name"]))}: {cells}");

    private static string[] Row(JsonNode line)
    {
        var cells = line["cells"]!;
        return
        [
            Shown.Text(line["number"]), Cell(cells, "itemCode"), Cell(cells, "description"),
            $"{Shown.Grouped(Cell(cells, "quantity"))} {Cell(cells, "unit")}".Trim(), Shown.Grouped(Cell(cells, "unitPrice")),
            Cell(cells, "taxRate") is { Length: > 0 } rate ? rate + "%" : "", Shown.Grouped(Cell(cells, "amount")),
            cells["amount"] is { } amount ? Page(amount) : "",
        ];
    }

    private static string Value(JsonNode value, string currency) => Shown.Text(value["type"]) == "money"
        ? Shown.Amount(Shown.Text(value["value"]), currency)
        : Shown.Cut(Shown.Text(value["value"]), 40);

    private static string PagesOf(JsonNode invoice)
    {
        var all = Shown.Number(invoice["pages"]);
        return Shown.Pages(invoice["firstPage"], invoice["lastPage"], invoice["pages"]) is { Length: > 0 } some ? some
            : all == 1 ? "1 page" : $"{all} pages";
    }

    private static string Page(JsonNode value) => Shown.Number(value["page"]) is > 0 and var page ? $"{page}" : "–";

    private static string Cell(JsonNode cells, string column) => Shown.Text(cells[column]?["value"]);

    public static string Field(JsonNode invoice, string name) => Shown.Text(invoice["fields"]?[name]?["value"]);
}
