using System.CommandLine;
using System.Text.Json.Nodes;
using Spectre.Console;

namespace Daxlin.Cli.Commands;

/// <summary>Posting runs: numbered exports of approved invoices, and what takes one back.</summary>
internal static class PostingCommands
{
    private static readonly Option<string?> Out = new("--out") { Description = "The file to write, where the run has one.", HelpName = "FILE" };
    private static readonly Option<string?> Into = new("--into") { Description = "The folder to write the run's files into, under their own names.", HelpName = "FOLDER" };

    public static Command Make()
    {
        var batch = new Option<int?>("--batch") { Description = "This batch's approved invoices only.", HelpName = "ID" };
        var all = new Option<bool>("--all-batches") { Description = "The approved invoices of all batches." };
        var layout = new Option<string?>("--layout") { Description = "The layout that writes the files; one CSV file of every value if left out.", HelpName = "NAME" };
        var despite = new Option<string?>("--despite") { Description = "Why a batch is posted that does not come to its control totals; it is kept on record.", HelpName = "REASON" };
        var deliver = new Option<string[]>("--deliver") { Description = "Deliver the run to this receiver, too; may be said again. Those that get each run at once need not be named.", HelpName = "RECEIVER" };
        var date = new Option<string?>("--posting-date") { Description = "The day that invoices dated in a closed period are posted on.", HelpName = "DAY" };
        var run = new Command("run", "Post the approved invoices of a batch, or of all batches, that were not posted before; all or none.") { batch, all, layout, Out, Into, despite, deliver, date };
        var rehearse = new Command("rehearse", "Say what a run would come to and write; nothing is posted.") { batch, all, layout, date };
        foreach (var command in new[] { run, rehearse })
        {
            command.Validators.Add(result =>
            {
                if (result.GetValue(batch) is null == !result.GetValue(all))
                    result.AddError("Say which approved invoices are to be posted: --batch ID, or --all-batches.");
            });
        }
        run.Validators.Add(result =>
        {
            if (result.GetValue(deliver) is not { Length: > 0 })
                NeedsTarget(result);
        });
        run.SetAction(CommandContext.Run((parsed, context, cancel) => Run(
            Which(parsed.GetValue(batch), parsed.GetValue(layout), parsed.GetValue(despite), parsed.GetValue(date)), new PostingTarget(parsed.GetValue(Out), parsed.GetValue(Into)), context, cancel, parsed.GetValue(deliver) ?? [])));
        rehearse.SetAction(CommandContext.Run((parsed, context, cancel) => Rehearse(Which(parsed.GetValue(batch), parsed.GetValue(layout), null, parsed.GetValue(date)), context, cancel)));

        var number = new Argument<int>("NUMBER") { Description = "The posting run's number." };
        var reason = new Option<string>("--because") { Description = "Why it is taken back; it is kept on record.", HelpName = "REASON", Required = true };
        var some = new Option<int[]>("--invoice") { Description = "Only this invoice of the run; may be said again.", HelpName = "ID" };
        var open = new Option<bool>("--open") { Description = "Open the invoices again, to be corrected; else they stay approved." };
        var withdraw = new Command("withdraw", "Take a run back, or some of its invoices: a numbered run with the other sign, by the same layout.") { number, reason, some, open, Out, Into, date };
        withdraw.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
        {
            var body = new JsonObject { ["reason"] = parsed.GetValue(reason), ["open"] = parsed.GetValue(open) };
            if (parsed.GetValue(some) is { Length: > 0 } ids)
                body["invoices"] = new JsonArray([.. ids.Select(id => JsonValue.Create(id))]);
            if (parsed.GetValue(date) is { } day)
                body["postingDate"] = PeriodCommands.DayOf(day);
            var target = new PostingTarget(parsed.GetValue(Out), parsed.GetValue(Into));
            using var _ = target.Tried();
            var made = await context.Service.Make($"posting-runs/{parsed.GetValue(number)}/withdrawal", body, Guid.NewGuid().ToString(), cancel);
            await target.Write(Shown.Number(made["number"]), context, cancel);
            var deliveries = await DeliveryCommands.Await(Shown.Number(made["number"]), context, cancel);
            context.Print(made, () =>
            {
                Terminal.Line($"Posting run {Shown.Text(made["number"])} takes {Count(made["invoices"], "invoice")} of run {parsed.GetValue(number)} back: {Totals(made)}{target.Written}");
                DeliveryCommands.PrintSaid(deliveries);
            });
            return DeliveryCommands.ExitOf(deliveries);
        }));

        var list = new Command("list", "List all posting runs.");
        list.SetAction(CommandContext.Run((_, context, cancel) => List(context, cancel)));
        var show = new Command("show", "Print a run with its files, its invoices and their hashes.") { number };
        show.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
        {
            var manifest = await context.Service.Get($"posting-runs/{parsed.GetValue(number)}/manifest", cancel);
            context.Print(manifest, () => PostingSheet.Print(manifest));
            return ExitCodes.Done;
        }));
        var fetch = new Command("file", "Write the files of an earlier run again.") { number, Out, Into };
        fetch.Validators.Add(NeedsTarget);
        fetch.SetAction(CommandContext.Run((parsed, context, cancel) => Fetch(parsed.GetValue(number), new PostingTarget(parsed.GetValue(Out), parsed.GetValue(Into)), context, cancel)));
        var table = new Command("table", "Write all posting runs into a file, as a spreadsheet takes them.") { TableFile.Out };
        table.SetAction(CommandContext.Run((parsed, context, cancel) => TableFile.Write("posting-runs/table", "Posting runs", parsed.GetValue(TableFile.Out)!, context, cancel)));
        var receiver = new Argument<string>("RECEIVER") { Description = "The receiver's name." };
        var again = new Option<string?>("--again-because") { Description = "Why it is delivered once more to a receiver that has it; it is kept on record.", HelpName = "REASON" };
        var deliverRun = new Command("deliver", "Deliver a run to a receiver.") { number, receiver, again };
        deliverRun.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
        {
            var asked = await DeliveryCommands.Ask(parsed.GetValue(number), parsed.GetValue(receiver)!, parsed.GetValue(again), context, cancel);
            return await DeliveryCommands.Follow(asked, context, cancel);
        }));
        return new Command("posting", "Posting runs: numbered exports of approved invoices.") { rehearse, run, deliverRun, withdraw, list, table, show, fetch };
    }

    private static void NeedsTarget(System.CommandLine.Parsing.CommandResult result)
    {
        if (result.GetValue(Out) is null == result.GetValue(Into) is null)
            result.AddError("Say where the files go: --out FILE for a run of one file, or --into FOLDER.");
    }

    private static JsonObject Which(int? batch, string? layout, string? despite, string? postingDate = null)
    {
        JsonObject which = batch is null ? new() { ["allBatches"] = true } : new() { ["batch"] = batch };
        if (layout is { Length: > 0 })
            which["layout"] = layout;
        if (despite is { Length: > 0 })
            which["despite"] = despite;
        if (postingDate is not null)
            which["postingDate"] = PeriodCommands.DayOf(postingDate);
        return which;
    }

    /// <summary>Posts every value of a batch into a file.</summary>
    public static Task<int> Run(int batch, string file, CommandContext context, CancellationToken cancel) =>
        Run(Which(batch, null, null), new PostingTarget(file, null), context, cancel);

    private static async Task<int> Run(JsonObject which, PostingTarget target, CommandContext context, CancellationToken cancel, params string[] receivers)
    {
        if (receivers.Length > 0)
            which["deliver"] = new JsonArray([.. receivers.Select(name => JsonValue.Create(name))]);
        // The run is final once the service has made it, so its files' place is tried before.
        using var _ = target.Tried();
        JsonNode run;
        try
        {
            run = await context.Service.Make("posting-runs", which, Guid.NewGuid().ToString(), cancel);
        }
        catch (RefusedException refused) when (refused.Code == "nothing-to-post")
        {
            await Console.Error.WriteLineAsync(Shown.Harmless(refused.Message));
            return ExitCodes.Done;
        }
        await target.Write(Shown.Number(run["number"]), context, cancel);
        var number = Shown.Number(run["number"]);
        var deliveries = await DeliveryCommands.Await(number, context, cancel);
        if (deliveries.Count > 0)
            run["deliveries"] = deliveries.DeepClone();
        context.Print(run, () =>
        {
            Terminal.Line($"Posting run {number}: {Totals(run)}{target.Written}");
            DeliveryCommands.PrintSaid(deliveries);
        });
        return DeliveryCommands.ExitOf(deliveries);
    }

    private static async Task<int> Rehearse(JsonObject which, CommandContext context, CancellationToken cancel)
    {
        var run = await context.Service.Post("posting-runs/rehearsal", which, cancel);
        context.Print(run, () => PostingSheet.PrintRehearsed(run));
        return run["faults"]!.AsArray().Count + run["disagreements"]!.AsArray().Count + Shown.Text(run["periodClosed"]).Length > 0 ? ExitCodes.SomethingToLookAt : ExitCodes.Done;
    }

    private static async Task<int> Fetch(int number, PostingTarget target, CommandContext context, CancellationToken cancel)
    {
        var run = await context.Service.Get($"posting-runs/{number}", cancel);
        using var _ = target.Tried();
        await target.Write(number, context, cancel);
        context.Print(run, () => Terminal.Line($"Posting run {number}: {Totals(run)}{target.Written}"));
        return ExitCodes.Done;
    }

    private static async Task<int> List(CommandContext context, CancellationToken cancel)
    {
        var runs = await context.Service.GetAll("posting-runs", cancel);
        context.Print(runs, () =>
        {
            if (runs.Count == 0)
            {
                Terminal.Line("No posting runs yet.");
                return;
            }
            var table = Terminal.NewTable(("run", true), ("made (UTC)", false), ("layout", false), ("invoices", true), ("sums", true), ("", false));
            foreach (var run in runs)
            {
                table.AddRow(
                    new Text(Shown.Text(run!["number"])), new Text(Shown.Time(run["at"]).Replace(" UTC", "", StringComparison.Ordinal)),
                    new Text(Shown.Text(run["layout"]) is { Length: > 0 } layout ? $"{layout} {Shown.Text(run["layoutVersion"])}" : "every value"), new Text(Shown.Text(run["invoices"])),
                    new Text(string.Join('\n', run["sums"]!.AsObject().Select(sum => Shown.Amount(Shown.Text(sum.Value), sum.Key)))), new Text(Standing(run)));
            }
            Terminal.Out.Write(table);
        });
        return ExitCodes.Done;
    }

    /// <summary>Whether a run takes another back, or was taken back.</summary>
    private static string Standing(JsonNode run) => run["reverses"] is { } of ? $"takes {Shown.Text(of)} back"
        : Shown.Number(run["withdrawn"]) is > 0 and var some ? some == Shown.Number(run["invoices"]) ? "taken back" : $"{some} taken back" : "";

    public static string Totals(JsonNode run) => $"{Count(run["invoices"], "invoice")}, {Count(run["rows"], "row")}, {Sums(run)}";

    public static string Count(JsonNode? count, string what) => Shown.Number(count) == 1 ? $"1 {what}" : $"{Shown.Text(count)} {what}s";

    private static string Sums(JsonNode run) =>
        string.Join(" and ", run["sums"]!.AsObject().Select(sum => Shown.Amount(Shown.Text(sum.Value), sum.Key)));
}
