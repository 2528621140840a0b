using System.CommandLine;
using System.Text.Json.Nodes;

namespace Daxlin.Cli.Commands;

/// <summary>A layout, a receiver, a source or coding rules as a file that is being written: tried on invoices, and what is wrong with it.</summary>
internal static class WrittenDocument
{
    public static async Task<string> TextOf(string file, CancellationToken cancel) => File.Exists(file)
        ? await File.ReadAllTextAsync(file, cancel) : throw new RefusedException($"There is no file {file}.", exitCode: ExitCodes.WrongUsage);

    /// <param name="path">Where the service tries such documents.</param>
    /// <param name="invoices">On these invoices; on those that the service chooses if there are none.</param>
    public static async Task<JsonNode> Try(string path, string file, int[] invoices, CommandContext context, CancellationToken cancel)
    {
        var body = new JsonObject { ["document"] = await TextOf(file, cancel) };
        if (invoices.Length > 0)
            body["invoices"] = new JsonArray([.. invoices.Select(id => JsonValue.Create(id))]);
        return await context.Service.Post(path, body, cancel);
    }

    /// <summary>The command that saves documents that are known by their names.</summary>
    /// <param name="of">Where the service keeps such documents.</param>
    public static Command Save(string says, string of, Argument<string[]> files, Option<string?> note, string verb = "save")
    {
        var command = new Command(verb, says) { files, note };
        command.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
        {
            var saved = new JsonArray();
            foreach (var one in parsed.GetValue(files)!)
            {
                var query = parsed.GetValue(note) is { } words ? $"?note={Uri.EscapeDataString(words)}" : "";
                saved.Add(await context.Service.PostText($"{of}{query}", await TextOf(one, cancel), cancel));
            }
            context.Print(saved, () =>
            {
                foreach (var one in saved)
                    Terminal.Line($"{Shown.Text(one!["name"])}, version {Shown.Text(one["version"])}{(one["isNew"]!.GetValue<bool>() ? " saved" : ": nothing has changed")}");
            });
            return ExitCodes.Done;
        }));
        return command;
    }

    /// <summary>The command that retires a document or brings it back, bound to the version that is the newest now.</summary>
    /// <param name="of">Where the service keeps such documents.</param>
    /// <param name="path">The act behind a document's address.</param>
    public static Command Act(string verb, string says, string of, string path, Argument<string> name, Option<string?> note)
    {
        var command = new Command(verb, says) { name, note };
        command.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
        {
            var document = $"{of}/{Uri.EscapeDataString(parsed.GetValue(name)!)}";
            var newest = Shown.Number((await context.Service.Get(document, cancel))["newest"]);
            var saved = await context.Service.Decide($"{document}/{path}", new JsonObject { ["note"] = parsed.GetValue(note) }, newest, cancel);
            context.Print(saved, () => Terminal.Line($"{Shown.Text(saved["name"])}, version {Shown.Text(saved["version"])} saved"));
            return ExitCodes.Done;
        }));
        return command;
    }

    public static void PrintFaults(string file, JsonArray faults)
    {
        if (faults.Count == 0)
            Terminal.Line($"{file}: in order");
        foreach (var fault in faults)
            BatchSheet.Hanging($"{file}, line {Shown.Text(fault!["line"])}, {Shown.Text(fault["place"])}:  ", Shown.Text(fault["message"]));
    }
}
