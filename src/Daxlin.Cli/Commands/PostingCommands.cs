using System.CommandLine;
using System.Text.Json.Nodes;
using Spectre.Console;

namespace Daxlin.Cli.Commands;

internal static class PostingCommands
{
    public static Command Make()
    {
        var batch = new Option<int?>("--batch") { Description = "Post this batch's approved invoices only.", HelpName = "ID" };
        var file = new Option<string>("--out") { Description = "The CSV file to write.", HelpName = "FILE", Required = true };
        var all = new Option<bool>("--all-batches") { Description = "Post the approved invoices of all batches." };
        var despite = new Option<string?>("--despite") { Description = "Why a batch is posted that does not come to its control totals; it is kept on record.", HelpName = "REASON" };
        var run = new Command("run", "Post the approved invoices of a batch, or of all batches, that were not posted before; all or none.") { batch, all, file, despite };
        run.Validators.Add(result =>
        {
            if (result.GetValue(batch) is null == !result.GetValue(all))
                result.AddError("Say which approved invoices are to be posted: --batch ID, or --all-batches.");
        });
        run.SetAction(CommandContext.Run((parsed, context, cancel) => Run(parsed.GetValue(batch), parsed.GetValue(file)!, parsed.GetValue(despite) ?? "", context, cancel)));

        var list = new Command("list", "List all posting runs.");
        list.SetAction(CommandContext.Run((_, context, cancel) => List(context, cancel)));

        var number = new Argument<int>("NUMBER") { Description = "The posting run's number." };
        var fetch = new Command("file", "Write the file of an earlier run again.") { number, file };
        fetch.SetAction(CommandContext.Run((parsed, context, cancel) =>
            Fetch(parsed.GetValue(number), parsed.GetValue(file)!, context, cancel)));
        return new Command("posting", "Posting runs: numbered exports of approved invoices.") { run, list, fetch };
    }

    public static async Task<int> Run(int? batch, string file, string despite, CommandContext context, CancellationToken cancel)
    {
        // The run is final once the service has made it, so the file's place is tried before.
        var part = PartOf(file);
        try
        {
            JsonNode run;
            try
            {
                JsonObject which = batch is null ? new() { ["allBatches"] = true } : new() { ["batch"] = batch };
                if (despite.Length > 0)
                    which["despite"] = despite;
                run = await context.Service.Make("posting-runs", which, Guid.NewGuid().ToString(), cancel);
            }
            catch (RefusedException refused) when (refused.Code == "nothing-to-post")
            {
                await Console.Error.WriteLineAsync(Shown.Harmless(refused.Message));
                return ExitCodes.Done;
            }
            await WriteFile(Shown.Number(run["number"]), part, file, context, cancel);
            context.Print(run, () => Terminal.Line($"Posting run {Shown.Text(run["number"])}: {Totals(run)}, written to {file}"));
            return ExitCodes.Done;
        }
        finally
        {
            File.Delete(part);
        }
    }

    private static async Task<int> Fetch(int number, string file, CommandContext context, CancellationToken cancel)
    {
        var run = await context.Service.Get($"posting-runs/{number}", cancel);
        var part = PartOf(file);
        await WriteFile(number, part, file, context, cancel);
        context.Print(run, () => Terminal.Line($"Posting run {number}: {Totals(run)}, written to {file}"));
        return ExitCodes.Done;
    }

    private static string PartOf(string file)
    {
        var part = file + ".part";
        try
        {
            File.WriteAllBytes(part, []);
            return part;
        }
        catch (Exception error) when (error is IOException or UnauthorizedAccessException)
        {
            throw new RefusedException($"{file} cannot be written, so nothing was posted. Is there such a folder, and may you write to it?", exitCode: ExitCodes.WrongUsage);
        }
    }

    private static async Task WriteFile(int number, string part, string file, CommandContext context, CancellationToken cancel)
    {
        await File.WriteAllBytesAsync(part, await context.Service.Download($"posting-runs/{number}/file", cancel), cancel);
        File.Move(part, file, overwrite: true);
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
            var table = Terminal.NewTable(("run", true), ("at", false), ("by", false), ("batch", true), ("invoices", true), ("rows", true), ("sums", true));
            foreach (var run in runs)
            {
                table.AddRow(
                    new Text(Shown.Text(run!["number"])), new Text(Shown.Time(run["at"])), new Text(Shown.Text(run["by"])),
                    new Text(run["batch"] is null ? "all" : Shown.Text(run["batch"])), new Text(Shown.Text(run["invoices"])),
                    new Text(Shown.Text(run["rows"])), new Text(Sums(run)));
            }
            Terminal.Out.Write(table);
        });
        return ExitCodes.Done;
    }

    private static string Totals(JsonNode run) => $"{Count(run["invoices"], "invoice")}, {Count(run["rows"], "row")}, {Sums(run)}";

    private static string Count(JsonNode? count, string what) => Shown.Number(count) == 1 ? $"1 {what}" : $"{Shown.Text(count)} {what}s";

    private static string Sums(JsonNode run) =>
        string.Join(" and ", run["sums"]!.AsObject().Select(sum => Shown.Amount(Shown.Text(sum.Value), sum.Key)));
}
