using System.CommandLine;
using System.Text.Json.Nodes;

namespace Daxlin.Cli.Commands;

/// <summary>A layout, a receiver, a source, a schedule or coding rules as a file that is being written: tried on invoices, and what is wrong with it.</summary>
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

    /// <summary>The command that says what documents mean, which secrets they need and what is wrong with them; nothing is saved.</summary>
    /// <param name="of">Where the service keeps such documents.</param>
    public static Command Check(string says, string of, Argument<string[]> files)
    {
        var command = new Command("check", says) { files };
        command.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
        {
            var results = new JsonArray();
            foreach (var one in parsed.GetValue(files)!)
            {
                var result = await context.Service.Post($"{of}/check", new JsonObject { ["document"] = await TextOf(one, cancel) }, cancel);
                result["file"] = one;
                results.Add(result);
            }
            context.Print(results, () =>
            {
                foreach (var result in results)
                {
                    PrintFaults(Shown.Text(result!["file"]), result["documentFaults"]!.AsArray());
                    PrintMeaning(result);
                }
            });
            return results.Any(result => result!["documentFaults"]!.AsArray().Count > 0) ? ExitCodes.SomethingToLookAt : ExitCodes.Done;
        }));
        return command;
    }

    /// <summary>What a document means, and the secrets that it lacks.</summary>
    public static void PrintMeaning(JsonNode document)
    {
        foreach (var sentence in document["says"]?.AsArray() ?? [])
            BatchSheet.Hanging("  ", Shown.Text(sentence));
        foreach (var missing in document["secretsMissing"]?.AsArray() ?? [])
            Terminal.Line($"  The secret “{Shown.Text(missing)}” is not kept yet: ./daxlin secret keep {Shown.Text(missing)}");
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

    /// <summary>The command that pauses what a document has done by itself, or lets it go on.</summary>
    /// <param name="of">Where the service keeps such documents.</param>
    /// <param name="path">The act behind a document's address.</param>
    /// <param name="done">What is so then, behind the document's name.</param>
    public static Command Pausing(string verb, string says, string of, string path, string done, Argument<string> name, Option<string?> note)
    {
        var command = new Command(verb, says) { name, note };
        command.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
        {
            var document = $"{of}/{Uri.EscapeDataString(parsed.GetValue(name)!)}";
            await context.Service.Post($"{document}/{path}", new JsonObject { ["note"] = parsed.GetValue(note) }, cancel);
            context.Print(await context.Service.Get(document, cancel), () => Terminal.Line($"{parsed.GetValue(name)} {done}"));
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
