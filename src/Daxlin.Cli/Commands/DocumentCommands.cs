using System.CommandLine;
using System.Globalization;
using System.Text.Json.Nodes;
using Spectre.Console;

namespace Daxlin.Cli.Commands;

internal static class DocumentCommands
{
    public static Command Make()
    {
        var file = new Argument<string>("FILE") { Description = "A PDF file or an electronic invoice." };
        var page = new Option<int?>("--page") { Description = "This page alone, from 1.", HelpName = "N" };
        var png = new Option<string?>("--png") { Description = "Draw them over a picture of the page, too (the first page unless --page says otherwise).", HelpName = "OUT" };
        var words = new Command("words", "Print the lines and words that Daxlin sees, with their places in points: for edges, within, at and reach.") { file, page, png };
        words.SetAction(CommandContext.Run((parsed, context, cancel) => Words(parsed.GetValue(file)!, parsed.GetValue(page), parsed.GetValue(png), context, cancel)));
        return new Command("document", "Documents: what is printed on them. Nothing is stored.") { words };
    }

    private static async Task<int> Words(string file, int? page, string? png, CommandContext context, CancellationToken cancel)
    {
        if (!File.Exists(file))
            throw new RefusedException($"There is no file {file}.", exitCode: ExitCodes.WrongUsage);
        string[] arguments = ["show-words", file, (page ?? 0).ToString(CultureInfo.InvariantCulture), .. png is null ? Array.Empty<string>() : [Path.GetFullPath(png)]];
        var document = await TrialProcess.Run(arguments, 1, cancel);
        if (Shown.Text(document["unreadable"]) is { Length: > 0 } reason)
            throw new RefusedException($"{file}: {reason}");
        if (page is { } wanted && document["shown"]!.AsArray().Count == 0)
            throw new RefusedException($"{file} has no page {wanted}; it has {Shown.Text(document["pages"])}.", exitCode: ExitCodes.WrongUsage);
        context.Print(document, () => Print(document));
        return ExitCodes.Done;
    }

    private static void Print(JsonNode document)
    {
        foreach (var page in document["shown"]!.AsArray())
        {
            Terminal.Line($"Page {Shown.Text(page!["number"])} of {Shown.Text(document["pages"])}, {Points(page["width"])} wide, {Points(page["height"])} high; points from the top left");
            var table = Terminal.NewTable(("top", true), ("bottom", true), ("what stands together, from left to right", false));
            foreach (var line in page["lines"]!.AsArray())
            {
                var cells = line!["cells"]!.AsArray().Select(cell => $"{Points(cell!["left"])}–{Points(cell["right"])} {Shown.Text(cell["text"])}");
                table.AddRow(new Text(Points(line["top"])), new Text(Points(line["bottom"])), new Text(string.Join("   ", cells)));
            }
            table.Columns[2].NoWrap = false;
            Terminal.Out.Write(table);
            if (page["turned"]!.AsArray() is { Count: > 0 } turned)
                Terminal.Line($"Turned, and part of no line: {string.Join(" ", turned.Select(Shown.Text))}");
            foreach (var alike in page["unseen"]!.AsArray().GroupBy(word => Shown.Text(word!["why"])))
                Terminal.Line($"Not seen, {alike.Key}: {string.Join(" ", alike.Select(word => Shown.Text(word!["text"])))}");
        }
    }

    private static string Points(JsonNode? node) => node!.GetValue<double>().ToString("F1", CultureInfo.InvariantCulture);
}
