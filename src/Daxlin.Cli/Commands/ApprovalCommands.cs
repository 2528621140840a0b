using System.CommandLine;
using System.Text.Json.Nodes;

namespace Daxlin.Cli.Commands;

/// <summary>Approvals of many invoices at once, and what approvals ask for.</summary>
internal static class ApprovalCommands
{
    public static Command Make()
    {
        var rules = new Command("rules", "Say what approvals ask for beyond the right to approve.");
        rules.SetAction(CommandContext.Run(async (_, context, cancel) => Print(await context.Service.Get("approval-rules", cancel), context)));
        var correctors = new Option<bool>("--not-correctors") { Description = "Who corrected an invoice does not approve it." };
        var makers = new Option<bool>("--not-template-makers") { Description = "Who made the template that captured it does not approve it." };
        var keepers = new Option<bool>("--not-account-keepers") { Description = "Who added or confirmed the account that it is paid to does not approve it." };
        var two = Limits("--two-above", "Above this amount, EUR=10000.00, an invoice takes two approvers; said once for each currency.");
        var typed = Limits("--typed-above", "Above this amount, who approves many at once types their sum.");
        var ask = new Command("ask", "Say anew what approvals ask for; what is left out is not asked.") { correctors, makers, keepers, two, typed };
        ask.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
        {
            var seen = await context.Service.Get("approval-rules", cancel);
            var wanted = new JsonObject
            {
                ["keepsCorrectors"] = parsed.GetValue(correctors),
                ["keepsTemplateMakers"] = parsed.GetValue(makers),
                ["keepsAccountKeepers"] = parsed.GetValue(keepers),
                ["twoAbove"] = AmountsOf(parsed.GetValue(two)),
                ["typedAbove"] = AmountsOf(parsed.GetValue(typed)),
            };
            return Print(await context.Service.Replace("approval-rules", wanted, Shown.Number(seen["revision"]), cancel), context);
        }));
        var batch = new Argument<int>("BATCH") { Description = "The batch's number." };
        var sums = Limits("--sum", "What they come to, EUR=1204.50, where the sum is large; said once for each currency.");
        var all = new Command("all", "Approve all clear invoices of a batch, each as it is at the moment.") { batch, sums };
        all.SetAction(CommandContext.Run((parsed, context, cancel) => ApproveAll(parsed.GetValue(batch), AmountsOf(parsed.GetValue(sums)), context, cancel)));
        return new Command("approval", "Approvals: of many invoices at once, and what they ask for.") { all, rules, ask };
    }

    private static async Task<int> ApproveAll(int batch, JsonObject sums, CommandContext context, CancellationToken cancel)
    {
        var there = await context.Service.Get($"batches/{batch}/approval", cancel);
        if (there["invoices"]!.AsArray().Count == 0)
            throw new RefusedException($"No invoice of batch {batch} is clear.");
        var done = await context.Service.Post($"batches/{batch}/approval", new JsonObject { ["invoices"] = there["invoices"]!.DeepClone(), ["sums"] = sums }, cancel);
        context.Print(done, () =>
        {
            Terminal.Line($"{Shown.State("approved")}: {done["approved"]!.AsArray().Count} of {there["invoices"]!.AsArray().Count}, {Told(done["sums"]!.AsObject())}");
            foreach (var one in done["first"]!.AsArray().Concat(done["refused"]!.AsArray()))
                Terminal.Line($"  {Shown.Text(one!["sentence"])}");
        });
        return done["first"]!.AsArray().Count + done["refused"]!.AsArray().Count == 0 ? ExitCodes.Done : ExitCodes.SomethingToLookAt;
    }

    private static int Print(JsonNode rules, CommandContext context)
    {
        context.Print(rules, () =>
        {
            foreach (var sentence in rules["says"]!.AsArray())
                Terminal.Line(Shown.Text(sentence));
        });
        return ExitCodes.Done;
    }

    private static string Told(JsonObject amounts) => amounts.Count == 0 ? "nothing" : string.Join(" and ", amounts.Select(one => Shown.Amount(Shown.Text(one.Value), one.Key)));

    private static Option<string[]> Limits(string name, string description) => new(name) { Description = description, HelpName = "CURRENCY=AMOUNT" };

    private static JsonObject AmountsOf(string[]? said)
    {
        var amounts = new JsonObject();
        foreach (var one in said ?? [])
        {
            if (one.Split('=', 2) is not [var currency, var amount])
                throw new RefusedException($"“{one}” says no amount of a currency; one is written as EUR=10000.00.", exitCode: ExitCodes.WrongUsage);
            amounts[currency.Trim().ToUpperInvariant()] = amount.Trim();
        }
        return amounts;
    }
}
