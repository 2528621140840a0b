using System.CommandLine;
using System.Globalization;
using System.Text.Json.Nodes;
using Spectre.Console;

namespace Daxlin.Cli.Commands;

/// <summary>What a batch comes to, and what it was to come to.</summary>
internal static class BatchTotals
{
    public static Command Sheet(Argument<int> id)
    {
        var file = new Option<string?>("--out") { Description = "Write it as a page to print instead.", HelpName = "FILE.html" };
        var sheet = new Command("sheet", "Print what a batch comes to: control totals, sums by state and vendor, why invoices are held.") { id, file };
        sheet.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
        {
            var path = $"batches/{parsed.GetValue(id)}/sheet";
            if (parsed.GetValue(file) is { } target)
            {
                await File.WriteAllBytesAsync(target, await context.Service.Download(path + "/printable", cancel), cancel);
                context.Print(new JsonObject { ["file"] = target }, () => Terminal.Line($"Sheet written to {target}"));
                return ExitCodes.Done;
            }
            return Shows(await context.Service.Get(path, cancel), context);
        }));
        return sheet;
    }

    public static Command State(Argument<int> id)
    {
        var totals = new Argument<string[]>("TOTAL")
        {
            Description = "As 24:EUR:120450.00: so many invoices over so much; either may be left out, as in :EUR:120450.00. None at all takes the totals back.",
            Arity = ArgumentArity.ZeroOrMore,
        };
        var state = new Command("totals", "Say what a batch is to come to, by currency, and print its sheet.") { id, totals };
        state.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
        {
            var path = $"batches/{parsed.GetValue(id)}";
            var seen = await context.Service.Get($"{path}/sheet", cancel);
            var body = new JsonObject { ["totals"] = new JsonArray([.. parsed.GetValue(totals)!.Select(Read)]) };
            return Shows(await context.Service.Replace($"{path}/control-totals", body, Shown.Number(seen["revision"]), cancel), context);
        }));
        return state;
    }

    private static JsonNode Read(string text)
    {
        var parts = text.Split(':');
        if (parts.Length is < 2 or > 3 || (parts[0].Length > 0 && !int.TryParse(parts[0], NumberStyles.None, CultureInfo.InvariantCulture, out _)))
            throw new RefusedException($"“{text}” is no control total; one looks like 24:EUR:120450.00.", exitCode: ExitCodes.WrongUsage);
        return new JsonObject
        {
            ["currency"] = parts[1],
            ["invoices"] = parts[0].Length > 0 ? int.Parse(parts[0], CultureInfo.InvariantCulture) : null,
            ["sum"] = parts.Length == 3 && parts[2].Length > 0 ? parts[2] : null,
        };
    }

    private static int Shows(JsonNode sheet, CommandContext context)
    {
        context.Print(sheet, () => Print(sheet));
        return sheet["controlTotals"]!.AsArray().Concat(sheet["covers"]!.AsArray().Select(cover => cover!["total"])).Any(total => Shown.Text(total!["says"]).Length > 0) || sheet["held"]!.AsArray().Count > 0
            ? ExitCodes.SomethingToLookAt : ExitCodes.Done;
    }

    private static string Counted(JsonNode total) => Shown.Number(total["invoices"]) is var count && count == 1 ? "1 invoice" : $"{count} invoices";

    private static void Print(JsonNode sheet)
    {
        Terminal.Line($"Batch {Shown.Text(sheet["id"])}  {Shown.Text(sheet["name"])}  {Shown.Text(sheet["documents"])} documents");
        foreach (var total in sheet["controlTotals"]!.AsArray())
        {
            var currency = Shown.Text(total!["currency"]);
            var isStated = total["statedInvoices"] is not null || total["statedSum"] is not null;
            var says = Shown.Text(total["says"]);
            BatchSheet.Hanging($"  {currency}  ", $"{Counted(total)} over {Shown.Amount(Shown.Text(total["sum"]), currency)}"
                + (says.Length > 0 ? $"  ▲ {says}" : isStated ? "  ● as stated" : ""));
        }
        foreach (var cover in sheet["covers"]!.AsArray())
        {
            var total = cover!["total"]!;
            var currency = Shown.Text(total["currency"]);
            var says = Shown.Text(total["says"]);
            BatchSheet.Hanging($"  {currency}  ", $"{Shown.Text(cover["name"])}{(Shown.Text(cover["from"]) is { Length: > 0 } from ? $" from {from}" : "")}: {Counted(total)} over {Shown.Amount(Shown.Text(total["sum"]), currency)}"
                + (says.Length > 0 ? $"  ▲ {says}" : "  ● as stated"));
        }
        var states = Terminal.NewTable(("state", false), ("invoices", true), ("sum", true));
        foreach (var total in sheet["states"]!.AsArray())
            states.AddRow(new Text(Shown.State(Shown.Text(total!["state"]))), new Text(Shown.Text(total["invoices"])), new Text(Shown.Text(total["currency"]).Length > 0 ? Shown.Amount(Shown.Text(total["sum"]), Shown.Text(total["currency"])) : "–"));
        Terminal.Out.Write(states);
        var vendors = Terminal.NewTable(("vendor", false), ("invoices", true), ("untouched", true), ("held", true), ("sum", true));
        foreach (var total in sheet["vendors"]!.AsArray())
        {
            vendors.AddRow(
                new Text(Shown.Cut(Shown.Text(total!["vendor"]), 36)), new Text(Shown.Text(total["invoices"])), new Text(Shown.Text(total["untouched"])), new Text(Shown.Text(total["held"])),
                new Text(Shown.Amount(Shown.Text(total["sum"]), Shown.Text(total["currency"]))));
        }
        Terminal.Out.Write(vendors);
        foreach (var reason in sheet["reasons"]!.AsArray())
            Terminal.Line($"{Shown.Text(reason!["invoices"]),5}  {Shown.Text(reason["says"])}");
        foreach (var invoice in sheet["held"]!.AsArray())
            BatchSheet.Hanging($"{Shown.Text(invoice!["id"]),5}  ", $"{Shown.Text(invoice["file"])}: {Shown.Text(invoice["finding"])}");
    }
}
