using System.CommandLine;

namespace Daxlin.Cli.Commands;

internal static class CheckCommand
{
    public static Command Make()
    {
        var data = new Option<string?>("--data") { Description = "The data folder; the usual one if left out.", HelpName = "DIR" };
        var check = new Command("check", "Look through a data folder for documents that are missing or altered, and for damage to the database.") { data, ServeCommand.Store };
        check.SetAction(CommandContext.Run((parsed, context, cancel) => Check(parsed.GetValue(data), parsed.GetValue(ServeCommand.Store), context, cancel)));
        return check;
    }

    /// <summary>Nothing is changed, and a service may run on the folder meanwhile.</summary>
    private static async Task<int> Check(string? data, string? store, CommandContext context, CancellationToken cancel)
    {
        var found = await TrialProcess.Run(["check-data", .. data is null ? [] : new[] { "--data", data }, .. store is null ? [] : new[] { "--store", store }], documents: 60, cancel);
        var faults = found["faults"]!.AsArray();
        context.Print(found, () =>
        {
            foreach (var fault in faults)
                Terminal.Line($"{Shown.Text(fault!["file"])}: {Shown.Text(fault["sentence"])}");
            Terminal.Line(faults.Count == 0
                ? $"All is there in {Shown.Text(found["data"])}: the database and {Shown.Text(found["documents"])} documents, byte for byte."
                : $"{(faults.Count == 1 ? "One fault" : $"{faults.Count} faults")} among the database and {Shown.Text(found["documents"])} documents in {Shown.Text(found["data"])}.");
        });
        return faults.Count == 0 ? ExitCodes.Done : ExitCodes.SomethingToLookAt;
    }
}
