using System.CommandLine;
using System.Globalization;
using System.Text.Json.Nodes;
using Spectre.Console;

namespace Daxlin.Cli.Commands;

/// <summary>The queue of invoices over all batches.</summary>
internal static class ReviewCommands
{
    private const int Usual = 50;

    public static Command Make()
    {
        var state = new Option<string?>("--state") { Description = "held without it; unplaced, clear, approved, posted, returned; approved-first for what waits for a second approver.", HelpName = "STATE" };
        var order = new Option<string?>("--order") { Description = "due, earliest first, without it; amount, vendor, age.", HelpName = "ORDER" };
        var vendor = new Option<string?>("--vendor") { Description = "Only this vendor's.", HelpName = "NAME" };
        var person = new Option<string?>("--handed-to") { Description = "Only what was handed to this person.", HelpName = "NAME" };
        var search = new Option<string?>("--search") { Description = "Only those with these letters in number, vendor, total, file or finding.", HelpName = "LETTERS" };
        var capitals = new Option<bool>("--match-case") { Description = "Capitals count in the search." };
        var words = new Option<bool>("--whole-words") { Description = "The letters must stand there as words of their own." };
        var limit = new Option<int>("--limit") { Description = "So many at most.", DefaultValueFactory = _ => Usual };
        string Path(ParseResult parsed, int most) => "review?limit=" + most.ToString(CultureInfo.InvariantCulture) + Query(parsed);
        string Query(ParseResult parsed) => string.Concat(new[] { ("state", state), ("order", order), ("vendor", vendor), ("handedTo", person), ("search", search) }
                .Where(one => parsed.GetValue(one.Item2) is not null).Select(one => $"&{one.Item1}={Uri.EscapeDataString(parsed.GetValue(one.Item2)!)}"))
            + (parsed.GetValue(capitals) ? "&matchCase=true" : "") + (parsed.GetValue(words) ? "&wholeWords=true" : "");

        var list = new Command("list", "Print what is to be looked at, over all batches.") { state, order, vendor, person, search, capitals, words, limit };
        list.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
        {
            var found = (await context.Service.Get(Path(parsed, parsed.GetValue(limit)), cancel)).AsArray();
            context.Print(found, () => Print(found, parsed.GetValue(limit)));
            return found.Count > 0 ? ExitCodes.SomethingToLookAt : ExitCodes.Done;
        }));
        var next = new Command("next", "Print the invoice that is to be looked at next.") { state, order, vendor, person, search, capitals, words };
        next.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
        {
            var found = (await context.Service.Get(Path(parsed, 1), cancel)).AsArray();
            if (found.Count == 0)
            {
                context.Print(found, () => Terminal.Line("Nothing is to be looked at."));
                return ExitCodes.Done;
            }
            return await InvoiceCommands.Show(Shown.Number(found[0]!["id"]), context, cancel);
        }));
        var table = new Command("table", "Write invoices of all batches into a file, as a spreadsheet takes them.") { TableFile.Out, state, order, vendor, person, search, capitals, words };
        table.SetAction(CommandContext.Run((parsed, context, cancel) =>
            TableFile.Write(("review/table?" + Query(parsed).TrimStart('&')).TrimEnd('?'), "Invoices", parsed.GetValue(TableFile.Out)!, context, cancel)));
        return new Command("review", "The invoices of all batches that are to be looked at.") { list, next, table };
    }

    private static void Print(JsonArray found, int limit)
    {
        if (found.Count == 0)
        {
            Terminal.Line("Nothing is to be looked at.");
            return;
        }
        var table = Terminal.NewTable(("id", true), ("due", false), ("vendor", false), ("number", false), ("total", true), ("with", false));
        foreach (var invoice in found)
        {
            table.AddRow(
                new Text(Shown.Text(invoice!["id"])),
                new Text(Shown.Text(invoice["dueDate"])),
                new Text(Shown.Cut(Shown.Text(invoice["vendor"]) is { Length: > 0 } vendor ? vendor : Shown.Text(invoice["file"]), 28)),
                new Text(Shown.Cut(Shown.Text(invoice["invoiceNumber"]), 17)),
                new Text(Shown.Amount(Shown.Text(invoice["total"]), Shown.Text(invoice["currency"]))),
                new Text(Shown.Cut(Shown.Text(invoice["handedTo"]), 14)));
        }
        Terminal.Out.Write(table);
        foreach (var invoice in found.Where(one => Shown.Text(one!["firstFinding"]).Length > 0))
            BatchSheet.Hanging($"{Shown.Text(invoice!["id"]),4}  ", Shown.Text(invoice["firstFinding"]));
        if (found.Count == limit)
            Terminal.Line($"There may be more; --limit {limit * 2} shows them.");
    }
}
