using System.CommandLine;
using System.Diagnostics;
using System.Globalization;
using System.Text.Json.Nodes;

namespace Daxlin.Cli.Commands;

/// <summary>Copies of all that a service has stored, and back.</summary>
internal static class BackupCommands
{
    public static IEnumerable<Command> Make()
    {
        yield return Copying(
            "backup", "Copy all that a service has stored into a folder, while it runs or not, and prove the copy: documents by their hashes, the history by its chain.",
            new("folder") { Description = "A new folder for it.", HelpName = "FOLDER" }, "Backed up");
        yield return Copying(
            "restore", "Put a backup into an empty data folder (--data), or into it and an empty database (--store): also the way from one machine to several, and back.",
            new("folder") { Description = "The folder of the backup.", HelpName = "FOLDER" }, "Restored");
    }

    private static Command Copying(string name, string description, Argument<string> folder, string done)
    {
        var data = new Option<string?>("--data") { Description = "The data folder; the usual one if left out.", HelpName = "DIR" };
        var command = new Command(name, description) { folder, data, ServeCommand.Store };
        command.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
        {
            var made = await Run(
                [
                    name, parsed.GetValue(folder)!,
                    .. parsed.GetValue(data) is { } named ? new[] { "--data", named } : [],
                    .. parsed.GetValue(ServeCommand.Store) is { } store ? new[] { "--store", store } : [],
                ], cancel);
            var faults = made["faults"]!.AsArray();
            context.Print(made, () => Say(made, faults, done));
            return faults.Count == 0 ? ExitCodes.Done : ExitCodes.SomethingToLookAt;
        }));
        return command;
    }

    private static void Say(JsonNode made, JsonArray faults, string done)
    {
        string Of(string table, string one, string many) => Counted((int?)made["rows"]![table] ?? 0, one, many);
        var documents = string.Create(CultureInfo.InvariantCulture, $"{Counted((int)made["documents"]!, "document", "documents")} ({(long)made["bytes"]! / 1e6:N1} MB)");
        Terminal.Line(
            $"{done}: {documents}, {Of("Batches", "batch", "batches")}, {Of("Invoices", "invoice", "invoices")}, {Of("PostingRuns", "posting run", "posting runs")}, {Of("History", "entry", "entries")} of the history.");
        foreach (var fault in faults)
            Terminal.Line($"{Shown.Text(fault!["file"])}: {Shown.Text(fault["sentence"])}");
        Terminal.Line(faults.Count == 0 ? "Each document has its hash, and the history is whole." : "All else was copied.");
    }

    private static string Counted(int count, string one, string many) => string.Create(CultureInfo.InvariantCulture, $"{count:N0} {(count == 1 ? one : many)}");

    /// <summary>Runs the service's program to its end, however long that takes; what it says meanwhile is shown.</summary>
    private static async Task<JsonNode> Run(IEnumerable<string> arguments, CancellationToken cancel)
    {
        using var process = Process.Start(ServiceProcess.StartInfo(arguments))!;
        process.StandardInput.Close();
        try
        {
            var said = process.StandardOutput.ReadToEndAsync(cancel);
            await process.WaitForExitAsync(cancel);
            // Why it ended it has said itself.
            return process.ExitCode == 0 ? JsonNode.Parse(await said)! : throw new RefusedException("It was not done.", exitCode: process.ExitCode == ExitCodes.WrongUsage ? ExitCodes.WrongUsage : ExitCodes.Refused);
        }
        finally
        {
            if (!process.HasExited)
                process.Kill(entireProcessTree: true);
        }
    }
}
