using System.CommandLine;
using System.Globalization;
using System.Text.Json.Nodes;
using Spectre.Console;

namespace Daxlin.Cli.Commands;

/// <summary>How the service is, for whoever keeps it running.</summary>
internal static class OperationCommands
{
    public static Command Make()
    {
        var show = new Command("show", "Say which services run, what waits, how the storage is, and when the last backup was made.");
        show.SetAction(CommandContext.Run(async (_, context, cancel) =>
        {
            var found = await context.Service.Get("operation", cancel);
            context.Print(found, () => Say(found));
            return found["troubles"]!.AsArray().Count == 0 ? ExitCodes.Done : ExitCodes.SomethingToLookAt;
        }));
        var name = new Argument<string>("name") { Description = "Its name, as --node said it.", HelpName = "NAME" };
        var forget = new Command("forget", "Strike out a service that is away and will not come back.") { name };
        forget.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
        {
            await context.Service.Delete($"operation/nodes/{Uri.EscapeDataString(parsed.GetValue(name)!)}", cancel);
            context.Print(new JsonObject { ["forgotten"] = parsed.GetValue(name) }, () => Terminal.Line($"“{parsed.GetValue(name)}” is struck out."));
            return ExitCodes.Done;
        }));
        return new Command("operation", "How the service is, for whoever keeps it running.") { show, forget };
    }

    private static void Say(JsonNode found)
    {
        var (storage, waiting) = (found["storage"]!, found["waiting"]!);
        foreach (var line in found["troubles"]!.AsArray().Select(trouble => $"▲ {Shown.Text(trouble)}").DefaultIfEmpty("● All is well."))
            Terminal.Line(line);
        var table = Terminal.NewTable(("service", false), ("state", false), ("version", false), ("since", false), ("reads", true), ("captured", true), ("set aside", true), ("readers died", true));
        foreach (var node in found["nodes"]!.AsArray())
        {
            var own = Shown.Text(node!["name"]);
            table.AddRow(
                new Text(own.Length > 0 ? Shown.Cut(own, 24) : "this one"),
                new Text((bool)node["isAway"]! ? "× away" : Shown.Text(node["trouble"]).Length > 0 ? "▲ waits" : "● runs"),
                new Text(Shown.Text(node["version"])), new Text(Shown.Time(node["startedAt"])), new Text($"{node["reading"]} of {node["readers"]}"),
                new Text(Count(node["captured"])), new Text(Count(node["setAside"])), new Text(Count(node["deaths"])));
        }
        Terminal.Out.Write(table);
        Terminal.Line($"Waiting: {Count(waiting["documents"])} documents{(waiting["oldestAt"] is { } oldest ? $", the oldest since {Shown.Time(oldest)}" : "")}; {Count(waiting["deliveries"])} deliveries, and {Count(waiting["deliveriesGivenUp"])} given up.");
        Terminal.Line($"Invoices: {string.Join(", ", waiting["invoices"]!.AsObject().Select(state => $"{Count(state.Value)} {state.Key}").DefaultIfEmpty("none"))}.");
        Terminal.Line($"Database: {storage["database"]}, {Size(storage["databaseBytes"])}. Documents: {Count(storage["documents"])}, {Size(storage["documentBytes"])}, in {storage["folder"]}; {Size(storage["freeBytes"])} free.");
        Terminal.Line(found["lastBackup"] is { } last
            ? $"Last backup: {Shown.Time(last["at"])}, {Count(last["documents"])} documents and {Count(last["invoices"])} invoices, to {last["folder"]}{((int)last["faults"]! > 0 ? $"; {last["faults"]} faults were there already" : "")}."
            : "Last backup: none was made yet; ./daxlin backup FOLDER makes one while the service works.");
    }

    private static string Count(JsonNode? number) => ((long)number!).ToString("N0", CultureInfo.InvariantCulture);

    /// <example>61.3 MB</example>
    public static string Size(JsonNode? bytes) => (long)bytes! switch
    {
        >= 1_000_000_000 and var many => string.Create(CultureInfo.InvariantCulture, $"{many / 1e9:N1} GB"),
        var few => string.Create(CultureInfo.InvariantCulture, $"{few / 1e6:N1} MB"),
    };
}
