using System.Text.Json.Nodes;

namespace Daxlin.Cli.Commands;

/// <summary><c>template draft</c>: a template proposed from files, with what is certain of it and what is not.</summary>
internal static class TemplateDrafting
{
    private const int MostSamples = 10;

    public static async Task<int> Draft(string[] files, string? vendor, string target, CommandContext context, CancellationToken cancel)
    {
        TemplateCommands.MustExist(files);
        if (files.Length > MostSamples)
            throw new RefusedException($"At most {MostSamples} invoices are looked at; more teach little.", exitCode: ExitCodes.WrongUsage);
        if (File.Exists(target))
            throw new RefusedException($"There is a file {target} already; name another one.", exitCode: ExitCodes.WrongUsage);
        var result = await TrialProcess.Run(["draft-template", vendor ?? "", .. files], files.Length, cancel);
        if (result["refused"] is { } refused)
            throw new RefusedException(Shown.Text(refused));
        var draft = result["draft"]!;
        await File.WriteAllTextAsync(target, (string)draft["template"]! + "\n", cancel);
        var invoices = draft["invoices"]!.AsArray();
        context.Print(draft, () => Print(draft, target));
        return invoices.All(invoice => Shown.Text(invoice!["state"]) == "clear") ? ExitCodes.Done : ExitCodes.SomethingToLookAt;
    }

    private static void Print(JsonNode draft, string target)
    {
        var notes = draft["notes"]!.AsArray().Select(note => note!).ToList();
        foreach (var (certainty, title) in new[] { ("certain", "Certain, by the figures themselves"), ("guess", "Guesses, to be looked at"), ("notFound", "Not found") })
        {
            var some = notes.Where(note => Shown.Text(note["certainty"]) == certainty).ToList();
            if (some.Count == 0)
                continue;
            Terminal.Line(title);
            foreach (var note in some)
                Terminal.Line($"  {Shown.Text(note["key"]),-24} {Shown.Text(note["says"])}");
        }
        Terminal.Line("");
        foreach (var invoice in draft["invoices"]!.AsArray())
        {
            var findings = invoice!["findings"]!.AsArray();
            Terminal.Line($"{Shown.Text(invoice["document"]!["file"])}: {Shown.Text(invoice["state"])}, {invoice["lines"]!.AsArray().Count} lines"
                + (findings.Count == 0 ? "" : $"; {Shown.Text(findings[0]!["message"])}"));
        }
        Terminal.Line($"Written to {target}. Try it on more invoices with “./daxlin template try {target} FILE.pdf…”; save it with “./daxlin template save {target}”.");
    }
}
