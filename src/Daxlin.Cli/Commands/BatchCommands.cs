using System.CommandLine;
using System.Text.Json.Nodes;
using Spectre.Console;

namespace Daxlin.Cli.Commands;

internal static class BatchCommands
{
    /// <summary>Files sent in one upload; small enough that progress shows, large enough that the wire is no matter.</summary>
    private const int FilesAtATime = 25;

    public static Command Make()
    {
        var name = new Argument<string>("NAME") { Description = "The batch's name; one that exists is added to." };
        var paths = new Argument<string[]>("PATH") { Description = "PDF files and electronic invoices (XML), or folders of them.", Arity = ArgumentArity.OneOrMore };
        var wait = new Option<bool>("--wait") { Description = "Wait until everything is captured, then print the batch's sheet." };
        var add = new Command("add", "Take documents into a batch.") { name, paths, wait };
        add.SetAction(CommandContext.Run((parsed, context, cancel) =>
            Add(parsed.GetValue(name)!, parsed.GetValue(paths)!, parsed.GetValue(wait), context, cancel)));

        var list = new Command("list", "List all batches.");
        list.SetAction(CommandContext.Run((_, context, cancel) => List(context, cancel)));

        var id = new Argument<int>("ID") { Description = "The batch's number." };
        var show = new Command("show", "Print a batch's sheet: its invoices, what is held and why.") { id };
        show.SetAction(CommandContext.Run((parsed, context, cancel) => Show(parsed.GetValue(id), context, cancel)));

        var recapture = new Command("recapture", "Capture again, by the newest templates, all that nobody has decided on.") { id, wait };
        recapture.SetAction(CommandContext.Run((parsed, context, cancel) =>
            Recapture(parsed.GetValue(id), parsed.GetValue(wait), context, cancel)));
        var open = new Option<bool>("--open") { Description = "Only what is held or unplaced." };
        var table = new Command("table", "Write a batch's invoices into a file, as a spreadsheet takes them.") { id, TableFile.Out, open };
        table.SetAction(CommandContext.Run((parsed, context, cancel) => TableFile.Write(
            $"batches/{parsed.GetValue(id)}/table{(parsed.GetValue(open) ? "?open=true" : "")}", $"Invoices of batch {parsed.GetValue(id)}", parsed.GetValue(TableFile.Out)!, context, cancel)));
        return new Command("batch", "Batches: documents taken in together.") { add, list, show, table, recapture, BatchTotals.Sheet(id), BatchTotals.State(id) };
    }

    public static async Task<int> Add(string name, string[] paths, bool wait, CommandContext context, CancellationToken cancel)
    {
        var files = FilesOf(paths);
        var batch = await context.Service.Post("batches", new JsonObject { ["name"] = name }, cancel);
        var id = Shown.Text(batch["id"]);
        var taken = new List<JsonNode>();
        await Watched("taking in", files.Count, async progress =>
        {
            foreach (var chunk in files.Chunk(FilesAtATime))
            {
                taken.AddRange((await context.Service.Upload($"batches/{id}/documents", chunk, cancel)).AsArray()!);
                progress(taken.Count);
            }
        });
        if (!context.WantsJson)
        {
            foreach (var one in taken.Where(one => Shown.Text(one["outcome"]) != "taken"))
                Terminal.Error.WriteLine($"{Shown.Text(one["file"])}: {Shown.Text(one["reason"])}");
        }
        var refused = taken.Any(one => Shown.Text(one["outcome"]) == "refused");
        if (wait)
            return Math.Max(await WaitAndShow(id, context, cancel), refused ? ExitCodes.SomethingToLookAt : ExitCodes.Done);
        batch = await context.Service.Get($"batches/{id}", cancel);
        context.Print(batch, () => Terminal.Line(
            $"Batch {id}, {name}: {taken.Count(one => Shown.Text(one["outcome"]) == "taken")} documents taken in. See “batch show {id}”."));
        return refused ? ExitCodes.SomethingToLookAt : ExitCodes.Done;
    }

    /// <summary>What of a folder is taken in; a file that is named is, whatever it is called.</summary>
    private static readonly string[] Extensions = [".pdf", ".xml", ".png", ".jpg", ".jpeg", ".tif", ".tiff", ".webp"];

    private static List<string> FilesOf(string[] paths)
    {
        var files = new List<string>();
        foreach (var path in paths)
        {
            if (Directory.Exists(path))
            {
                var inside = Directory.GetFiles(path, "*", new EnumerationOptions { RecurseSubdirectories = true, MatchCasing = MatchCasing.CaseInsensitive })
                    .Where(file => Extensions.Contains(Path.GetExtension(file).ToLowerInvariant()))
                    .Order(StringComparer.Ordinal)
                    .ToList();
                if (inside.Count == 0)
                    throw new RefusedException($"There is no PDF, no picture and no XML in the folder {path}.", exitCode: ExitCodes.WrongUsage);
                files.AddRange(inside);
            }
            else if (File.Exists(path))
            {
                files.Add(path);
            }
            else
            {
                throw new RefusedException($"There is no file or folder {path}; nothing was taken in.", exitCode: ExitCodes.WrongUsage);
            }
        }
        return files;
    }

    private static async Task<int> WaitAndShow(string id, CommandContext context, CancellationToken cancel)
    {
        var all = Shown.Number((await context.Service.Get($"batches/{id}", cancel))["documents"]);
        await Watched("capturing", all, async progress =>
        {
            await foreach (var state in context.Service.Events($"batches/{id}/events", cancel))
                progress(all - Shown.Number(state["waiting"]));
        });
        return await ShowSheet(id, context, cancel);
    }

    private static async Task<int> ShowSheet(string id, CommandContext context, CancellationToken cancel)
    {
        var batch = await context.Service.Get($"batches/{id}", cancel);
        batch["invoiceList"] = await context.Service.GetAll($"batches/{id}/invoices", cancel);
        batch["documentList"] = await context.Service.GetAll($"batches/{id}/documents", cancel);
        context.Print(batch, () => BatchSheet.Print(batch));
        return BatchSheet.HasSomethingToLookAt(batch) ? ExitCodes.SomethingToLookAt : ExitCodes.Done;
    }

    private static Task<int> Show(int id, CommandContext context, CancellationToken cancel) => ShowSheet($"{id}", context, cancel);

    private static async Task<int> Recapture(int id, bool wait, CommandContext context, CancellationToken cancel)
    {
        var batch = await context.Service.Post($"batches/{id}/recapture", new JsonObject(), cancel);
        if (wait)
            return await WaitAndShow($"{id}", context, cancel);
        context.Print(batch, () => Terminal.Line($"Batch {id}: {Shown.Text(batch["waiting"])} documents are captured again."));
        return ExitCodes.Done;
    }

    private static async Task<int> List(CommandContext context, CancellationToken cancel)
    {
        var batches = await context.Service.GetAll("batches", cancel);
        context.Print(batches, () =>
        {
            if (batches.Count == 0)
            {
                Terminal.Line("No batches yet. Take documents in with “./daxlin batch add NAME PATH…”.");
                return;
            }
            var table = Terminal.NewTable(
                ("id", true), ("name", false), ("opened (UTC)", false), ("files", true), ("unplaced", true), ("held", true), ("clear", true), ("approved", true), ("posted", true));
            foreach (var batch in batches)
            {
                var invoices = batch!["invoices"]!;
                table.AddRow(
                    new Text(Shown.Text(batch["id"])), new Text(Shown.Cut(Shown.Text(batch["name"]), 27)), new Text(Shown.Time(batch["createdAt"]).Replace(" UTC", "", StringComparison.Ordinal)),
                    new Text(Shown.Text(batch["documents"])),
                    new Text(Shown.Text(invoices["unplaced"])), new Text(Shown.Text(invoices["held"])), new Text(Shown.Text(invoices["clear"])),
                    new Text(Shown.Text(invoices["approved"])), new Text(Shown.Text(invoices["posted"])));
            }
            Terminal.Out.Write(table);
        });
        return ExitCodes.Done;
    }

    /// <summary>Runs long work with a bar on a terminal, and silently when piped.</summary>
    private static async Task Watched(string what, int all, Func<Action<int>, Task> work)
    {
        if (!Terminal.IsWatched || all == 0)
        {
            await work(_ => { });
            return;
        }
        await Terminal.Error.Progress().AutoClear(true).StartAsync(async progress =>
        {
            var task = progress.AddTask(what, maxValue: all);
            await work(done => task.Value = done);
        });
    }
}
