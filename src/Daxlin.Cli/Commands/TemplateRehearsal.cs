using System.Text.Json.Nodes;
using Spectre.Console;

namespace Daxlin.Cli.Commands;

/// <summary><c>template rehearse</c>: what a draft would change on the invoices that were captured before.</summary>
internal static class TemplateRehearsal
{
    /// <summary>So many changes of one column are printed one by one; of more, the first, and how many.</summary>
    private const int MostAlike = 3;

    private static readonly (string Verdict, string Title)[] Verdicts =
    [
        ("decidedChanges", "approved or posted, with other values"),
        ("clearChanges", "clear, with other values"),
        ("lost", "captured before, recognised no more or by another template"),
        ("worse", "the same values, but held"),
        ("heldChanges", "held, with other values"),
        ("better", "better: captured, or clear"),
        ("same", "as before"),
    ];

    public static async Task<int> Run(string file, int? batch, CommandContext context, CancellationToken cancel)
    {
        TemplateCommands.MustExist([file]);
        var begun = await context.Service.Make(
            "rehearsals", new JsonObject { ["template"] = await File.ReadAllTextAsync(file, cancel), ["batch"] = batch }, Guid.NewGuid().ToString(), cancel);
        var id = Shown.Text(begun["id"]);
        var rehearsal = begun;
        try
        {
            await foreach (var moved in context.Service.Events($"rehearsals/{id}/events", cancel))
            {
                rehearsal = moved;
                if (Terminal.IsWatched)
                    Terminal.Error.Write(new ControlCode($"\r{Shown.Text(moved["done"])} of {Shown.Text(moved["documents"])} documents rehearsed "));
            }
        }
        catch (OperationCanceledException)
        {
            // Nobody waits for it any more.
            await context.Service.Post($"rehearsals/{id}/stop", new JsonObject(), CancellationToken.None);
            throw;
        }
        if (Terminal.IsWatched)
            Terminal.Error.Write(new ControlCode("\r\u001b[K"));
        if (Shown.Text(rehearsal["state"]) == "failed")
            throw new RefusedException(Shown.Text(rehearsal["failure"]));
        var invoices = await context.Service.GetAll($"rehearsals/{id}/invoices", cancel);
        context.Print(new JsonObject { ["rehearsal"] = rehearsal.DeepClone(), ["invoices"] = invoices.DeepClone() }, () => Print(rehearsal, invoices));
        var counts = rehearsal["invoices"]!;
        return Verdicts.Any(one => one.Verdict is not ("same" or "better") && Shown.Number(counts[one.Verdict]) > 0)
            || invoices.Any(invoice => invoice!["changes"]!.AsArray().Count > 0) ? ExitCodes.SomethingToLookAt : ExitCodes.Done;
    }

    private static void Print(JsonNode rehearsal, JsonArray invoices)
    {
        var version = Shown.Number(rehearsal["baseVersion"]);
        Terminal.Line($"{Shown.Text(rehearsal["template"])}{(version == 0 ? ", a new template" : $", against version {version}")}: {Shown.Text(rehearsal["done"])} documents"
            + (Shown.Number(rehearsal["unreadable"]) is > 0 and var unreadable ? $", {unreadable} of them unreadable" : ""));
        Terminal.Line(Recognises(rehearsal["recognition"]!));
        foreach (var (verdict, title) in Verdicts)
        {
            var count = Shown.Number(rehearsal["invoices"]![verdict]);
            if (count == 0)
                continue;
            Terminal.Line($"{count,6}  {title}");
            foreach (var invoice in invoices.Where(one => Shown.Text(one!["verdict"]) == verdict))
                Print(invoice!);
        }
    }

    private static string Recognises(JsonNode counts)
    {
        var (own, others, claimed) = (Shown.Number(counts["own"]), Shown.Number(counts["others"]), Shown.Number(counts["othersRecognised"]));
        return (own > 0 ? $"Recognises {Shown.Number(counts["ownRecognised"])} of {own} of its own invoices, and " : "Recognises ")
            + $"{(claimed == 0 ? "none" : $"{claimed}")} of the {others} invoice{(others == 1 ? "" : "s")} of other templates{(claimed > 0 ? ": give it a cue that those do not have" : "")}.";
    }

    private static void Print(JsonNode invoice)
    {
        var after = Shown.Text(invoice["after"]);
        Terminal.Indented(8, $"invoice {Shown.Text(invoice["invoice"])}, {Shown.Text(invoice["file"])}: {Shown.Text(invoice["before"])}, would be {after}"
            + ((after != "clear" || Shown.Text(invoice["verdict"]) == "lost") && Shown.Text(invoice["firstFinding"]) is { Length: > 0 } finding ? $": {finding}" : ""));
        foreach (var alike in invoice["changes"]!.AsArray().GroupBy(change => Shown.Text(change!["column"])))
        {
            foreach (var change in alike.Take(alike.Count() > MostAlike ? 1 : MostAlike))
                Terminal.Indented(10, $"{Shown.Text(change!["name"])}: {Said(change["before"])} → {Said(change["after"])}");
            if (alike.Count() > MostAlike)
                Terminal.Indented(10, $"{alike.Key}: {alike.Count() - 1} more");
        }
    }

    private static string Said(JsonNode? value) => Shown.Text(value) is { Length: > 0 } text ? Shown.Cut(text, 60) : "–";
}
