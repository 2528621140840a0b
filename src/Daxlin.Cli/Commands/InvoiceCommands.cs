using System.CommandLine;
using System.Text.Json.Nodes;

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

        var reason = new Option<string>("--reason") { Description = "Why it is set aside; it is kept on record.", HelpName = "REASON", Required = true };
        var aside = new Command("set-aside", "Set an invoice aside that is not to be posted: a copy, one for somebody else.") { id, reason };
        aside.SetAction(CommandContext.Run((parsed, context, cancel) => PutAside(parsed.GetValue(id), parsed.GetValue(reason) ?? "", context, cancel)));

        var why = new Option<string>("--reason") { Description = "Why it goes back; it is kept on record.", HelpName = "REASON", Required = true };
        var letter = new Option<FileInfo?>("--letter") { Description = "A text file with what the vendor is told; one is made of the findings without it.", HelpName = "FILE" };
        var sendTo = new Option<string?>("--send-to") { Description = "Send it to this address, by the mailbox that answers vendors; it is only printed without it.", HelpName = "ADDRESS" };
        var back = new Command("return", "Return an invoice to its vendor: it is posted nowhere; what the vendor is told is printed, and sent if an address is said.") { id, why, letter, sendTo };
        back.SetAction(CommandContext.Run((parsed, context, cancel) => Return(parsed.GetValue(id), parsed.GetValue(why) ?? "", parsed.GetValue(letter), parsed.GetValue(sendTo) ?? "", context, cancel)));

        var because = new Option<string>("--because") { Description = "Why the approval is taken back; it is kept on record.", HelpName = "REASON", Required = true };
        var reopen = new Command("reopen", "Take an approval back before the invoice was posted; it is open again.") { id, because };
        reopen.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
        {
            var invoice = await Decide(parsed.GetValue(id), "approval/withdrawal", new JsonObject { ["reason"] = parsed.GetValue(because) }, context, cancel);
            context.Print(invoice, () => Terminal.Line($"{parsed.GetValue(id)}  {Shown.State(Shown.Text(invoice["state"]))} again"));
            return ExitCodes.Done;
        }));

        var to = new Option<string>("--to") { Description = "Who is to look at it; an empty name takes it back.", HelpName = "NAME", Required = true };
        var note = new Option<string?>("--note") { Description = "What for.", HelpName = "TEXT" };
        var give = new Command("hand-over", "Hand an undecided invoice to another person.") { id, to, note };
        give.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
        {
            var invoice = await Decide(parsed.GetValue(id), "hand-over", new JsonObject { ["to"] = parsed.GetValue(to), ["note"] = parsed.GetValue(note) }, context, cancel);
            context.Print(invoice, () => Terminal.Line($"{parsed.GetValue(id)}  {(Shown.Text(invoice["handedTo"]) is { Length: > 0 } person ? $"handed to {person}" : "handed to nobody")}"));
            return ExitCodes.Done;
        }));
        var name = new Argument<string?>("NAME") { Description = "The template's name; without it the cues say it again.", Arity = ArgumentArity.ZeroOrOne };
        var choose = new Command("template", "Say which template an invoice is for, whatever its cues say; it is captured by it at once.") { id, name };
        choose.SetAction(CommandContext.Run((parsed, context, cancel) => Choose(parsed.GetValue(id), parsed.GetValue(name) ?? "", context, cancel)));
        var rows = new Command("rows", "Write an invoice's item rows into a file, as a spreadsheet takes them.") { id, TableFile.Out };
        rows.SetAction(CommandContext.Run((parsed, context, cancel) =>
            TableFile.Write($"invoices/{parsed.GetValue(id)}/rows", $"Rows of invoice {parsed.GetValue(id)}", parsed.GetValue(TableFile.Out)!, context, cancel)));
        return new Command("invoice", "Invoices: what was captured, and what persons make of it.")
        {
            show, rows, InvoiceCorrections.MakeCorrect(), InvoiceCorrections.MakeProposals(), choose, approve, reopen, aside, back, give,
        };
    }

    private static async Task<int> Approve(int[] ids, string despite, CommandContext context, CancellationToken cancel)
    {
        var approved = new JsonArray();
        RefusedException? refusal = null;
        foreach (var id in ids)
        {
            try
            {
                var invoice = await Decide(id, "approval", new JsonObject { ["despite"] = despite }, context, cancel);
                approved.Add(invoice);
                if (!context.WantsJson)
                {
                    var first = Shown.Text(invoice["state"]) == "approved" ? "" : $"; approved by {Shown.Text(invoice["firstApprovedBy"])}, a second approver is needed";
                    Terminal.Line($"{id}  {Shown.State(Shown.Text(invoice["state"]))}{first}  {Shown.Text(invoice["vendor"])} {InvoiceSheet.Field(invoice, "invoiceNumber")}");
                }
            }
            catch (RefusedException refused) when (ids.Length > 1 && refused.Code.Length > 0)
            {
                // One that cannot be approved keeps none of the others back.
                refusal = refused;
                await Console.Error.WriteLineAsync(Shown.Harmless(refused.Message));
            }
        }
        if (context.WantsJson)
            context.Print(ids.Length == 1 ? approved[0]! : approved, () => { });
        return refusal is null ? ExitCodes.Done : ExitCodes.Refused;
    }

    public static async Task<int> Show(int id, CommandContext context, CancellationToken cancel)
    {
        var invoice = await context.Service.Get($"invoices/{id}", cancel);
        context.Seen.Remember(invoice);
        context.Print(invoice, () => InvoiceSheet.Print(invoice));
        return InvoiceSheet.CodeOf(invoice);
    }

    private static async Task<int> PutAside(int id, string reason, CommandContext context, CancellationToken cancel)
    {
        var invoice = await Decide(id, "set-aside", new JsonObject { ["reason"] = reason }, context, cancel);
        context.Print(invoice, () => Terminal.Line($"{id}  {Shown.State("returned")}  {Shown.Text(invoice["vendor"])} {InvoiceSheet.Field(invoice, "invoiceNumber")}"));
        return ExitCodes.Done;
    }

    private static async Task<int> Return(int id, string reason, FileInfo? file, string sendTo, CommandContext context, CancellationToken cancel)
    {
        if (file is { Exists: false })
            throw new RefusedException($"There is no file {file.FullName}.");
        var letter = file is not null ? await File.ReadAllTextAsync(file.FullName, cancel)
            : Shown.Text((await context.Service.Get($"invoices/{id}/letter?reason={Uri.EscapeDataString(reason)}", cancel))["text"]);
        var invoice = await Decide(id, "return", new JsonObject { ["reason"] = reason, ["letter"] = letter, ["sendTo"] = sendTo }, context, cancel);
        context.Print(invoice, () =>
        {
            Terminal.Line($"{id}  {Shown.State("returned")}  {Shown.Text(invoice["vendor"])} {InvoiceSheet.Field(invoice, "invoiceNumber")}. {(sendTo.Length > 0 ? $"A letter goes to {sendTo}" : "To be sent")}:");
            Terminal.Line("");
            foreach (var line in letter.TrimEnd().Split('\n'))
                Terminal.Line(line);
        });
        return ExitCodes.Done;
    }

    private static async Task<int> Choose(int id, string template, CommandContext context, CancellationToken cancel)
    {
        var invoice = await Decide(id, "template", new JsonObject { ["template"] = template }, context, cancel);
        var by = Shown.Text(invoice["template"]) is { Length: > 0 } used ? $"by the template {used}, version {Shown.Number(invoice["templateVersion"])}" : "by no template";
        return InvoiceSheet.PrintOutcome(invoice, $", captured {by}", context);
    }

    /// <summary>Decides on the invoice as it was printed last; on one that never was, as it is.</summary>
    public static async Task<JsonNode> Decide(int id, string act, JsonObject body, CommandContext context, CancellationToken cancel)
    {
        try
        {
            var now = await context.Service.Get($"invoices/{id}", cancel);
            var revision = context.Seen.Find(now) ?? Shown.Number(now["revision"]);
            var invoice = await context.Service.Decide($"invoices/{id}/{act}", body, revision, cancel);
            context.Seen.Remember(invoice);
            return invoice;
        }
        catch (RefusedException refused) when (refused.Code == "not-there")
        {
            context.Seen.Forget(id);
            throw;
        }
    }
}
