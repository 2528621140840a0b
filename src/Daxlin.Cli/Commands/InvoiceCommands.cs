using System.CommandLine;
using System.Text.Json.Nodes;
using Spectre.Console;

namespace Daxlin.Cli.Commands;

internal static class InvoiceCommands
{
    public static Command Make()
    {
        var id = new Argument<int>("ID") { Description = "The invoice's number in Daxlin." };
        var show = new Command("show", "Print an invoice: findings, values with their places, lines, sums.") { id };
        show.SetAction(CommandContext.Run((parsed, context, cancel) => Show(parsed.GetValue(id), context, cancel)));

        var ids = new Argument<int[]>("ID") { Description = "Invoices' numbers in Daxlin.", Arity = ArgumentArity.OneOrMore };
        var despite = new Option<string>("--despite") { Description = "Why a held invoice is right all the same; it is kept on record.", HelpName = "REASON" };
        var approve = new Command("approve", "Approve invoices for posting.") { ids, despite };
        approve.SetAction(CommandContext.Run((parsed, context, cancel) =>
            Approve(parsed.GetValue(ids)!, parsed.GetValue(despite) ?? "", context, cancel)));
        return new Command("invoice", "Invoices: what was captured, and a person's decision.") { show, approve };
    }

    private static async Task<int> Approve(int[] ids, string despite, CommandContext context, CancellationToken cancel)
    {
        var approved = new JsonArray();
        RefusedException? refusal = null;
        foreach (var id in ids)
        {
            try
            {
                var invoice = await context.Service.Post($"invoices/{id}/approval", new JsonObject { ["despite"] = despite }, cancel);
                approved.Add(invoice);
                if (!context.WantsJson)
                    Terminal.Line($"{id}  {Shown.State("approved")}  {Shown.Text(invoice["vendor"])} {Field(invoice, "invoiceNumber")}");
            }
            catch (RefusedException refused) when (ids.Length > 1 && refused.Code.Length > 0)
            {
                // One that cannot be approved keeps none of the others back.
                refusal = refused;
                await Console.Error.WriteLineAsync(refused.Message);
            }
        }
        if (context.WantsJson)
            context.Print(ids.Length == 1 ? approved[0]! : approved, () => { });
        return refusal is null ? ExitCodes.Done : ExitCodes.Refused;
    }

    private static async Task<int> Show(int id, CommandContext context, CancellationToken cancel)
    {
        var invoice = await context.Service.Get($"invoices/{id}", cancel);
        context.Print(invoice, () => Print(invoice));
        return Shown.Text(invoice["state"]) is "held" or "unplaced" ? ExitCodes.SomethingToLookAt : ExitCodes.Done;
    }

    private static void Print(JsonNode invoice)
    {
        var currency = Shown.Text(invoice["currency"]);
        Terminal.Line($"Invoice {Shown.Text(invoice["id"])}  {Shown.State(Shown.Text(invoice["state"]))}"
            + (Shown.Text(invoice["kind"]) == "creditNote" ? "  credit note" : "")
            + $"  {Shown.Text(invoice["vendor"])} {Field(invoice, "invoiceNumber")}");
        Terminal.Line($"{Shown.Text(invoice["document"]!["file"])}, {PagesOf(invoice)}, batch {Shown.Text(invoice["batch"])} "
            + $"“{Shown.Text(invoice["batchName"])}”, template {Shown.Text(invoice["template"])} version {Shown.Text(invoice["templateVersion"])}");
        foreach (var finding in invoice["findings"]!.AsArray())
            Terminal.Line($"▲ {Shown.Text(finding!["message"])}");

        var fields = Terminal.NewTable(("field", false), ("value", true), ("page", true), ("found", false));
        foreach (var (name, value) in invoice["fields"]!.AsObject().OrderBy(field => Rank(field.Key)))
        {
            fields.AddRow(
                new Text(Shown.Spoken(name)), new Text(Value(value!, currency)), new Text(Page(value!)), new Text(Shown.Cut(Shown.Text(value!["whereabouts"]), 40)));
        }
        if (fields.Rows.Count > 0)
            Terminal.Out.Write(fields);
        PrintLines(invoice, currency);
        PrintOthers(invoice);
        foreach (var tie in invoice["ties"]!.AsArray().Where(tie => !Shown.Text(tie!["equation"]).Contains("(line ", StringComparison.Ordinal)))
        {
            Terminal.Line($"{(tie!["holds"]!.GetValue<bool>() ? "= holds" : "≠ is off")}  {Shown.Text(tie["equation"])}: "
                + $"{Shown.Amount(Shown.Text(tie["left"]), currency)} against {Shown.Amount(Shown.Text(tie["right"]), currency)}");
        }
        foreach (var decision in invoice["decisions"]!.AsArray())
        {
            Terminal.Line($"{Shown.Time(decision!["at"])}  {Shown.Text(decision["what"])} by {Shown.Text(decision["by"])}"
                + (Shown.Text(decision["reason"]) is { Length: > 0 } reason ? $": {reason}" : ""));
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
        var more = line["cells"]!.AsObject().Where(cell => !InTable.Contains(cell.Key))
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

    private static string Field(JsonNode invoice, string name) => Shown.Text(invoice["fields"]?[name]?["value"]);
}
