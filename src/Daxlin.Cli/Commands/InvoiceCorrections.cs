using System.CommandLine;
using System.Text.Json.Nodes;

namespace Daxlin.Cli.Commands;

/// <summary>Says what an invoice's values are, that a row is none, that a finding may pass; and shows what would make it add up.</summary>
internal static class InvoiceCorrections
{
    public static Command MakeCorrect()
    {
        var id = new Argument<int>("ID") { Description = "The invoice's number in Daxlin." };
        var values = new Argument<string[]>("NAME=TEXT")
        {
            Description = "Values as they should be: total=1204.50, lines[3].amount=12.50; nothing behind = says that there is none.",
            Arity = ArgumentArity.ZeroOrMore,
        };
        var strike = new Option<string?>("--not-a-row") { Description = "What was captured as this row is none: lines[3].", HelpName = "ROW" };
        var add = new Option<string[]>("--add") { Description = "A value of a row that was not captured, or of the lower row with --divide; once for each column.", HelpName = "COLUMN=TEXT" };
        var below = new Option<string?>("--below") { Description = "The row above the one that is added or moved; the first place without it.", HelpName = "ROW" };
        var divide = new Option<string?>("--divide") { Description = "A row that is two: what belongs to the lower one is said by --add.", HelpName = "ROW" };
        var join = new Option<string[]>("--join") { Description = "Two rows that are one.", HelpName = "ROW", Arity = new ArgumentArity(2, 2), AllowMultipleArgumentsPerToken = true };
        var move = new Option<string?>("--move") { Description = "A row that stands elsewhere, with --below.", HelpName = "ROW" };
        var pass = new Option<string?>("--let-pass") { Description = "The code of a finding that may pass, as --json prints it.", HelpName = "CODE" };
        var reason = new Option<string?>("--reason") { Description = "Why it may pass; figures that do not add up need it.", HelpName = "REASON" };
        var kind = new Option<string?>("--kind") { Description = "invoice or creditNote, whatever was captured." };
        var undo = new Option<bool>("--take-back") { Description = "Take the last correction back." };
        var redo = new Option<bool>("--make-again") { Description = "Make again what was taken back last." };
        var command = new Command("correct", "Say what values are, or that rows and findings are not as captured; what was captured stays on record.")
        {
            id, values, strike, add, below, divide, join, move, pass, reason, kind, undo, redo,
        };
        command.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
        {
            var number = parsed.GetValue(id);
            var acts = new List<JsonObject>();
            foreach (var value in parsed.GetValue(values) ?? [])
                acts.Add(Pair(value) is var (name, text) ? new JsonObject { ["act"] = "enter", ["of"] = name, ["text"] = text } : throw Faulty(value));
            if (parsed.GetValue(strike) is { } struck)
                acts.Add(new JsonObject { ["act"] = "strike", ["of"] = struck });
            if (parsed.GetValue(add) is { Length: > 0 } texts)
            {
                var cells = new JsonObject(texts.Select(cell => Pair(cell) is var (name, text) ? KeyValuePair.Create<string, JsonNode?>(name, text) : throw Faulty(cell)));
                acts.Add(parsed.GetValue(divide) is { } whole ? new JsonObject { ["act"] = "split", ["of"] = whole, ["cells"] = cells }
                    : new JsonObject { ["act"] = "add", ["after"] = parsed.GetValue(below), ["cells"] = cells });
            }
            else if (parsed.GetValue(divide) is { } whole)
            {
                throw new RefusedException($"Say with --add what belongs to the lower row of {whole}: --add description=Impeller --add amount=12.50", exitCode: ExitCodes.WrongUsage);
            }
            if (parsed.GetValue(join) is [var first, var second])
                acts.Add(new JsonObject { ["act"] = "join", ["of"] = first, ["with"] = second });
            if (parsed.GetValue(move) is { } moved)
                acts.Add(new JsonObject { ["act"] = "move", ["of"] = moved, ["after"] = parsed.GetValue(below) });
            if (parsed.GetValue(kind) is { } said)
                acts.Add(new JsonObject { ["act"] = "kind", ["text"] = said });
            if (parsed.GetValue(pass) is { } code)
                acts.AddRange(await Passing(number, code, parsed.GetValue(reason) ?? "", context, cancel));
            if (parsed.GetValue(undo))
                acts.Add(new JsonObject { ["act"] = "undo" });
            if (parsed.GetValue(redo))
                acts.Add(new JsonObject { ["act"] = "redo" });
            if (acts.Count == 0)
                throw new RefusedException("Say what is to be corrected: total=1204.50, --not-a-row lines[3], --take-back …", exitCode: ExitCodes.WrongUsage);
            return await Do(number, acts, context, cancel);
        }));
        return command;
    }

    public static Command MakeProposals()
    {
        var id = new Argument<int>("ID") { Description = "The invoice's number in Daxlin." };
        var take = new Option<int?>("--take") { Description = "Correct the invoice as the proposal of this number says.", HelpName = "NUMBER" };
        var command = new Command("proposals", "Print the smallest changes after which a held invoice adds up.") { id, take };
        command.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
        {
            var number = parsed.GetValue(id);
            var proposals = (await context.Service.Get($"invoices/{number}/proposals", cancel)).AsArray();
            if (parsed.GetValue(take) is not { } wanted)
            {
                context.Print(proposals, () => Print(proposals));
                return proposals.Count > 0 ? ExitCodes.SomethingToLookAt : ExitCodes.Done;
            }
            if (wanted < 1 || wanted > proposals.Count)
                throw new RefusedException($"There is no proposal {wanted} for invoice {number}; there are {proposals.Count}.", exitCode: ExitCodes.Refused);
            var proposal = proposals[wanted - 1]!;
            return await Do(number, [Shown.Text(proposal["act"]) switch
            {
                "enter" => new JsonObject { ["act"] = "enter", ["of"] = Shown.Text(proposal["of"]), ["text"] = Shown.Text(proposal["value"]) },
                "add" => new JsonObject
                {
                    ["act"] = "add",
                    ["after"] = Shown.Text(proposal["of"]) is { Length: > 0 } above ? above : null,
                    ["cells"] = proposal["cells"]!.DeepClone(),
                },
                _ => new JsonObject { ["act"] = "strike", ["of"] = Shown.Text(proposal["of"]) },
            }], context, cancel);
        }));
        return command;
    }

    private static void Print(JsonArray proposals)
    {
        if (proposals.Count == 0)
            Terminal.Line("No single change makes all of it add up.");
        foreach (var (proposal, at) in proposals.Select((proposal, at) => (proposal!, at)))
            Terminal.Line($"{at + 1}  {Shown.Text(proposal["says"])}");
    }

    private static async Task<int> Do(int id, IEnumerable<JsonObject> acts, CommandContext context, CancellationToken cancel)
    {
        JsonNode invoice = new JsonObject();
        foreach (var act in acts)
            invoice = await InvoiceCommands.Decide(id, "corrections", act, context, cancel);
        return InvoiceSheet.PrintOutcome(invoice, "", context);
    }

    /// <summary>All findings of a code that are open.</summary>
    private static async Task<IEnumerable<JsonObject>> Passing(int id, string code, string reason, CommandContext context, CancellationToken cancel)
    {
        var open = (await context.Service.Get($"invoices/{id}", cancel))["findings"]!.AsArray().Where(finding => Shown.Text(finding!["code"]) == code).ToList();
        if (open.Count == 0)
            throw new RefusedException($"Invoice {id} is held by no finding of the code {code}.", exitCode: ExitCodes.Refused);
        return open.Select(finding => new JsonObject { ["act"] = "accept", ["code"] = code, ["message"] = Shown.Text(finding!["message"]), ["reason"] = reason });
    }

    private static (string Name, string Text)? Pair(string argument) =>
        argument.IndexOf('=', StringComparison.Ordinal) is > 0 and var at ? (argument[..at], argument[(at + 1)..]) : null;

    private static RefusedException Faulty(string argument) =>
        new($"“{argument}” is no NAME=TEXT; a value is corrected as in total=1204.50 or lines[3].amount=12.50.", exitCode: ExitCodes.WrongUsage);
}
