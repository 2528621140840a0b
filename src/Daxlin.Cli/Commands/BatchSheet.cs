using System.Text.Json.Nodes;
using Spectre.Console;

namespace Daxlin.Cli.Commands;

/// <summary>The sheet of a batch: every invoice on a line, under it what holds it, and at the end what was set aside.</summary>
internal static class BatchSheet
{
    public static void Print(JsonNode batch)
    {
        var (invoices, documents) = (batch["invoiceList"]!.AsArray(), batch["documentList"]!.AsArray());
        Terminal.Line($"Batch {Shown.Text(batch["id"])}  {Shown.Text(batch["name"])}  opened {Shown.Time(batch["createdAt"])}");
        Terminal.Line(Counts(batch));
        if (invoices.Count > 0)
        {
            var table = Terminal.NewTable(
                ("id", true), ("state", false), ("vendor", false), ("number", false), ("date", false), ("total", true), ("rows", true));
            foreach (var invoice in invoices)
            {
                var total = Shown.Amount(Shown.Text(invoice!["total"]), Shown.Text(invoice["currency"]));
                table.AddRow(
                    new Text(Shown.Text(invoice["id"])),
                    new Text(Shown.State(Shown.Text(invoice["state"]))),
                    new Text(Shown.Cut(Shown.Text(invoice["vendor"]) is { Length: > 0 } vendor ? vendor : Shown.Text(invoice["file"]), 28)),
                    new Text(Shown.Cut(Shown.Text(invoice["invoiceNumber"]), 17)),
                    new Text(Shown.Text(invoice["invoiceDate"])),
                    new Text(Shown.Text(invoice["kind"]) == "creditNote" ? total + " cr" : total),
                    new Text(Shown.Text(invoice["lines"])));
            }
            Terminal.Out.Write(table);
        }
        var held = invoices.Where(invoice => Shown.Text(invoice!["state"]) is "held" or "unplaced").ToList();
        if (held.Count > 0)
        {
            Terminal.Line("What to look at:");
            foreach (var invoice in held)
            {
                var more = Shown.Number(invoice!["findings"]) - 1;
                Hanging(
                    $"{Shown.Text(invoice["id"]),4}  ",
                    $"{Shown.Text(invoice["file"])}{PagesOf(invoice)}: {Shown.Text(invoice["firstFinding"])}"
                    + (more > 0 ? $" (and {more} more: invoice show {Shown.Text(invoice["id"])})" : ""));
            }
        }
        var aside = documents.Where(document => Shown.Text(document!["state"]) == "unreadable").ToList();
        if (aside.Count > 0)
        {
            Terminal.Line("Set aside, unreadable:");
            foreach (var document in aside)
                Hanging("      ", $"{Shown.Text(document!["file"])}: {Shown.Text(document["reason"])}");
        }
    }

    /// <summary>How many documents and invoices there are in each state, on one line.</summary>
    public static string Counts(JsonNode batch)
    {
        var states = new[] { "unplaced", "held", "clear", "approved", "posted", "returned" }
            .Select(state => (state, count: Shown.Number(batch["invoices"]![state])))
            .Where(entry => entry.count > 0)
            .Select(entry => $"{entry.count} {Shown.State(entry.state)}"
                + (entry.state == "unplaced" && Shown.Number(batch["unplacedVendors"]) is > 0 and var vendors && entry.count > 1
                    ? $" of what {(vendors == 1 ? "looks like 1 vendor" : $"look like {vendors} vendors")}" : ""));
        var (documents, waiting, unreadable) =
            (Shown.Number(batch["documents"]), Shown.Number(batch["waiting"]), Shown.Number(batch["unreadable"]));
        return string.Join("   ", new[] { documents == 1 ? "1 document" : $"{documents} documents" }
            .Concat(waiting > 0 ? [$"{waiting} waiting"] : [])
            .Concat(states)
            .Concat(unreadable > 0 ? [$"{unreadable} unreadable"] : []));
    }

    /// <summary>Says that something in the batch wants a person's eyes.</summary>
    public static bool HasSomethingToLookAt(JsonNode batch) =>
        Shown.Number(batch["unreadable"]) + Shown.Number(batch["invoices"]!["held"]) + Shown.Number(batch["invoices"]!["unplaced"]) > 0;

    private static string PagesOf(JsonNode invoice) =>
        Shown.Pages(invoice["firstPage"], invoice["lastPage"], invoice["filePages"]) is { Length: > 0 } pages ? $", {pages}" : "";

    public static void Hanging(string first, string text)
    {
        var grid = new Grid().AddColumn(new GridColumn { Padding = new Padding(0, 0, 0, 0), NoWrap = true, Width = first.Length })
            .AddColumn(new GridColumn { Padding = new Padding(0, 0, 0, 0) });
        grid.AddRow(new Text(first), new Text(text));
        Terminal.Out.Write(grid);
    }
}
