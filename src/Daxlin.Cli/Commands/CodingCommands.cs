using System.CommandLine;
using System.Text.Json.Nodes;
using Spectre.Console;

namespace Daxlin.Cli.Commands;

/// <summary>Coding: which accounts, cost centres, projects and tax codes the lines of invoices get.</summary>
internal static class CodingCommands
{
    public static Command Make()
    {
        var file = new Argument<string>("FILE") { Description = "A document of coding rules, *.coding.json." };
        var note = new Option<string?>("--note") { Description = "Why, for the history.", HelpName = "TEXT" };
        var version = new Option<int?>("--version") { Description = "This version; the newest if left out.", HelpName = "N" };
        var invoices = new Option<int[]>("--invoice") { Description = "Try them on this invoice; may be said again. On the open ones taken in last if left out.", HelpName = "ID" };

        var tried = new Command("try", "Print what coding rules make of invoices, and what is wrong with them; nothing is saved.") { file, invoices };
        tried.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
        {
            var result = await WrittenDocument.Try("coding-rules/trial", parsed.GetValue(file)!, parsed.GetValue(invoices) ?? [], context, cancel);
            context.Print(result, () => CodingSheet.PrintTried(parsed.GetValue(file)!, result));
            return result["documentFaults"]!.AsArray().Count > 0 || result["invoices"]!.AsArray().Any(invoice => invoice!["findings"]!.AsArray().Any(finding => Shown.Text(finding!["severity"]) == "hold")) ? ExitCodes.SomethingToLookAt : ExitCodes.Done;
        }));

        var save = new Command("save", "Save the coding rules; changed ones become the next version, and open invoices are coded anew.") { file, note };
        save.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
        {
            var query = parsed.GetValue(note) is { } words ? $"?note={Uri.EscapeDataString(words)}" : "";
            var saved = await context.Service.PostText($"coding-rules{query}", await WrittenDocument.TextOf(parsed.GetValue(file)!, cancel), cancel);
            context.Print(saved, () => Terminal.Line($"Coding rules, version {Shown.Text(saved["version"])}{(saved["isNew"]!.GetValue<bool>() ? " saved; open invoices are coded anew" : ": nothing has changed")}"));
            return ExitCodes.Done;
        }));

        var show = new Command("show", "Print the coding rules.") { version };
        show.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
        {
            var rules = await context.Service.Get($"coding-rules{(parsed.GetValue(version) is { } number ? $"?version={number}" : "")}", cancel);
            context.Print(rules, () =>
            {
                Terminal.Line(Shown.Number(rules["version"]) == 0 ? "No coding rules yet; docs/CODING.md tells how they are written." : Shown.Text(rules["text"]).TrimEnd());
                if (Shown.Number(rules["waiting"]) is > 0 and var waiting)
                    Terminal.Line($"{waiting} open {(waiting == 1 ? "invoice is" : "invoices are")} still to be coded anew.");
            });
            return ExitCodes.Done;
        }));

        var versions = new Command("versions", "List the versions of the coding rules.");
        versions.SetAction(CommandContext.Run(async (_, context, cancel) =>
        {
            var all = await context.Service.GetAll("coding-rules/versions", cancel);
            context.Print(all, () =>
            {
                var table = Terminal.NewTable(("version", true), ("saved", false), ("by", false), ("note", false));
                foreach (var one in all)
                    table.AddRow(new Text(Shown.Text(one!["version"])), new Text(Shown.Time(one["savedAt"])), new Text(Shown.Text(one["savedBy"])), new Text(Shown.Cut(Shown.Text(one["note"]), 50)));
                Terminal.Out.Write(table);
            });
            return ExitCodes.Done;
        }));
        return new Command("coding", "Codes of the ledger for the lines of invoices: rules, by hand, and as before.") { tried, save, show, versions, MakeSet(), MakeProposals() };
    }

    private static Command MakeSet()
    {
        var id = new Argument<int>("ID") { Description = "The invoice's number in Daxlin." };
        var row = new Option<int?>("--row") { Description = "The row; an invoice without rows is coded as a whole.", HelpName = "N" };
        var codes = CodingSheet.Codes.Select(code => (code.Name, Option: new Option<string?>(code.Option) { Description = $"The {code.Heading}; empty leaves it to the rules.", HelpName = "CODE" })).ToList();
        var shares = new Option<string[]>("--share") { Description = "One share of the row's amount: 60,account=6210,costCentre=410; said again for each other.", HelpName = "PART,CODES" };
        var asRules = new Option<bool>("--as-rules-say") { Description = "Take back what was said of the row's codes." };
        var command = new Command("set", "Say the codes of a row, in the place of what the rules say.") { id, row, shares, asRules };
        foreach (var (_, option) in codes)
            command.Options.Add(option);
        command.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
        {
            var act = new JsonObject { ["act"] = "code", ["of"] = parsed.GetValue(row) is { } number ? $"lines[{number}]" : "invoice" };
            var cells = new JsonObject(codes.Select(code => KeyValuePair.Create<string, JsonNode?>(code.Name, parsed.GetValue(code.Option))).Where(code => code.Value is not null));
            if (parsed.GetValue(asRules))
                act["shares"] = new JsonArray();
            else if (parsed.GetValue(shares) is { Length: > 0 } said)
                act["shares"] = new JsonArray([.. said.Select(Share)]);
            else if (cells.Count > 0)
                act["cells"] = cells;
            else
                throw new RefusedException("Say which codes: --account 6210 --cost-centre 410, or --share 60,costCentre=410 --share 40,costCentre=420.", exitCode: ExitCodes.WrongUsage);
            return Outcome(await InvoiceCommands.Decide(parsed.GetValue(id), "corrections", act, context, cancel), context);
        }));
        return command;
    }

    /// <summary><c>60,account=6210,costCentre=410</c></summary>
    private static JsonNode Share(string said)
    {
        var parts = said.Split(',');
        var codes = new JsonObject();
        foreach (var code in parts[1..])
        {
            if (code.IndexOf('=', StringComparison.Ordinal) is not (> 0 and var at))
                throw new RefusedException($"“{said}” is no share; one is said as 60,account=6210,costCentre=410.", exitCode: ExitCodes.WrongUsage);
            codes[code[..at].Trim()] = code[(at + 1)..].Trim();
        }
        return new JsonObject { ["part"] = parts[0].Trim(), ["codes"] = codes };
    }

    private static Command MakeProposals()
    {
        var id = new Argument<int>("ID") { Description = "The invoice's number in Daxlin." };
        var take = new Option<int[]>("--take") { Description = "Code this row as it is proposed; may be said again.", HelpName = "ROW" };
        var all = new Option<bool>("--take-all") { Description = "Code every row as it is proposed." };
        var command = new Command("proposals", "Print how rows like those of an invoice were coded before, and how many agree.") { id, take, all };
        command.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
        {
            var number = parsed.GetValue(id);
            var proposals = (await context.Service.Get($"invoices/{number}/coding-proposals", cancel)).AsArray();
            var rows = parsed.GetValue(all) ? [.. proposals.Select(one => Shown.Number(one!["line"]))] : parsed.GetValue(take) ?? [];
            if (rows.Length == 0)
            {
                context.Print(proposals, () =>
                {
                    if (proposals.Count == 0)
                        Terminal.Line("Nothing else is proposed: no row like these was coded before, or all are coded so.");
                    foreach (var one in proposals)
                        Terminal.Line($"{(Shown.Number(one!["line"]) is > 0 and var line ? $"Row {line}" : "The invoice")}: {Shown.Text(one["says"])}");
                });
                return proposals.Count > 0 ? ExitCodes.SomethingToLookAt : ExitCodes.Done;
            }
            JsonNode invoice = new JsonObject();
            foreach (var row in rows)
            {
                if (proposals.FirstOrDefault(one => Shown.Number(one!["line"]) == row) is not { } proposal)
                    throw new RefusedException($"Nothing is proposed for row {row} of invoice {number}.", exitCode: ExitCodes.Refused);
                var act = new JsonObject { ["act"] = "code", ["of"] = row > 0 ? $"lines[{row}]" : "invoice", ["shares"] = proposal["shares"]!.DeepClone() };
                invoice = await InvoiceCommands.Decide(number, "corrections", act, context, cancel);
            }
            return Outcome(invoice, context);
        }));
        return command;
    }

    private static int Outcome(JsonNode invoice, CommandContext context)
    {
        var code = InvoiceSheet.PrintOutcome(invoice, "", context);
        if (!context.WantsJson)
            CodingSheet.Print(invoice["coding"]!.AsArray(), Shown.Text(invoice["currency"]));
        return code;
    }
}
