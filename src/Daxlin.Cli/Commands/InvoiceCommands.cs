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
        return new Command("invoice", "Invoices: what was captured, and what persons make of it.")
        {
            show, InvoiceCorrections.MakeCorrect(), InvoiceCorrections.MakeProposals(), approve, aside,
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
                    Terminal.Line($"{id}  {Shown.State("approved")}  {Shown.Text(invoice["vendor"])} {InvoiceSheet.Field(invoice, "invoiceNumber")}");
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

    private static async Task<int> Show(int id, CommandContext context, CancellationToken cancel)
    {
        var invoice = await context.Service.Get($"invoices/{id}", cancel);
        context.Seen.Remember(id, Shown.Number(invoice["revision"]));
        context.Print(invoice, () => InvoiceSheet.Print(invoice));
        return Shown.Text(invoice["state"]) is "held" or "unplaced" ? ExitCodes.SomethingToLookAt : ExitCodes.Done;
    }

    private static async Task<int> PutAside(int id, string reason, CommandContext context, CancellationToken cancel)
    {
        var invoice = await Decide(id, "set-aside", new JsonObject { ["reason"] = reason }, context, cancel);
        context.Print(invoice, () => Terminal.Line($"{id}  {Shown.State("returned")}  {Shown.Text(invoice["vendor"])} {InvoiceSheet.Field(invoice, "invoiceNumber")}"));
        return ExitCodes.Done;
    }

    /// <summary>Decides on the invoice as it was printed last; on one that never was, as it is.</summary>
    public static async Task<JsonNode> Decide(int id, string act, JsonObject body, CommandContext context, CancellationToken cancel)
    {
        var revision = context.Seen.Find(id) ?? Shown.Number((await context.Service.Get($"invoices/{id}", cancel))["revision"]);
        try
        {
            var invoice = await context.Service.Decide($"invoices/{id}/{act}", body, revision, cancel);
            context.Seen.Remember(id, Shown.Number(invoice["revision"]));
            return invoice;
        }
        catch (RefusedException refused) when (refused.Code == "not-there")
        {
            context.Seen.Forget(id);
            throw;
        }
    }
}
