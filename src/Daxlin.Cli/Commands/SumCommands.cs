using System.CommandLine;
using System.Text.Json.Nodes;
using Spectre.Console;

namespace Daxlin.Cli.Commands;

/// <summary>What approved and posted invoices come to.</summary>
internal static class SumCommands
{
    public static Command Make()
    {
        var by = new Option<string>("--by") { Description = "By what: vendor, month, account, costCentre, project or taxCode.", HelpName = "WHAT", DefaultValueFactory = _ => "account" };
        var state = new Option<string?>("--state") { Description = "Only what is approved, or posted.", HelpName = "STATE" };
        var from = new Option<string?>("--from") { Description = "Dated on this day or later.", HelpName = "DAY" };
        var to = new Option<string?>("--to") { Description = "Dated on this day or earlier.", HelpName = "DAY" };
        var batch = new Option<int?>("--batch") { Description = "Only this batch's invoices.", HelpName = "ID" };
        var key = new Option<string?>("--rows") { Description = "Print the rows behind this one of the sums; --rows \"\" for what has no code.", HelpName = "KEY" };
        var table = new Option<string?>("--out") { Description = "Write the sums into this file: .csv, .tsv or .xlsx.", HelpName = "FILE" };
        var sums = new Command("sums", "What approved and posted invoices come to, by vendor, month, account, cost centre, project or tax code.") { by, state, from, to, batch, key, table };
        sums.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
        {
            var query = new List<string> { $"by={Uri.EscapeDataString(parsed.GetValue(by)!)}" };
            foreach (var (name, value) in new[] { ("state", parsed.GetValue(state)), ("from", DayOf(parsed.GetValue(from))), ("to", DayOf(parsed.GetValue(to))), ("batch", parsed.GetValue(batch)?.ToString(System.Globalization.CultureInfo.InvariantCulture)) })
            {
                if (value is not null)
                    query.Add($"{name}={Uri.EscapeDataString(value)}");
            }
            var asked = string.Join('&', query);
            if (parsed.GetValue(table) is { } file)
                return await TableFile.Write($"sums/table?{asked}", "Sums", file, context, cancel);
            if (parsed.GetValue(key) is { } of)
            {
                var parts = await context.Service.Get($"sums/parts?{asked}&key={Uri.EscapeDataString(of)}", cancel);
                context.Print(parts, () => PrintParts(parts.AsArray()));
                return ExitCodes.Done;
            }
            var found = await context.Service.Get($"sums?{asked}", cancel);
            context.Print(found, () => Print(found));
            return ExitCodes.Done;
        }));
        return sums;
    }

    private static string? DayOf(string? text) => text is null ? null : PeriodCommands.DayOf(text);

    private static void Print(JsonNode sums)
    {
        var groups = sums["groups"]!.AsArray();
        if (groups.Count == 0)
        {
            Terminal.Line("Nothing is approved or posted of what was asked for.");
            return;
        }
        var table = Terminal.NewTable((Shown.Spoken(Shown.Text(sums["by"])), false), ("invoices", true), ("amount", true));
        foreach (var group in groups)
            table.AddRow(new Text(Shown.Text(group!["key"]) is { Length: > 0 } key ? Shown.Cut(key, 50) : "(none)"), new Text(Shown.Text(group["invoices"])), new Text(Shown.Amount(Shown.Text(group["amount"]), Shown.Text(group["currency"]))));
        foreach (var total in sums["totals"]!.AsArray())
            table.AddRow(new Text("all"), new Text(Shown.Text(total!["invoices"])), new Text(Shown.Amount(Shown.Text(total["amount"]), Shown.Text(total["currency"]))));
        Terminal.Out.Write(table);
    }

    private static void PrintParts(JsonArray parts)
    {
        var table = Terminal.NewTable(("id", true), ("vendor", false), ("number", false), ("date", false), ("row", true), ("text", false), ("amount", true));
        foreach (var part in parts)
        {
            table.AddRow(
                new Text(Shown.Text(part!["invoice"])), new Text(Shown.Cut(Shown.Text(part["vendor"]), 20)), new Text(Shown.Cut(Shown.Text(part["invoiceNumber"]), 12)), new Text(Shown.Text(part["invoiceDate"])),
                new Text(Shown.Number(part["line"]) > 0 ? Shown.Text(part["line"]) : ""), new Text(Shown.Cut(Shown.Text(part["text"]), 22)), new Text(Shown.Amount(Shown.Text(part["amount"]), Shown.Text(part["currency"]))));
        }
        Terminal.Out.Write(table);
    }
}
