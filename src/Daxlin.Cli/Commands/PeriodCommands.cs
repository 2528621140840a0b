using System.CommandLine;
using System.Globalization;
using System.Text.Json.Nodes;
using Spectre.Console;

namespace Daxlin.Cli.Commands;

/// <summary>Closed periods: what is dated in one is posted on another day.</summary>
internal static class PeriodCommands
{
    public static Command Make()
    {
        var show = new Command("show", "Say which periods are closed, and who closed them.");
        show.SetAction(CommandContext.Run(async (_, context, cancel) => Print(await context.Service.Get("closed-periods", cancel), context)));
        var through = new Argument<string>("DAY") { Description = "The last day that is closed: 2026-10-31." };
        var close = new Command("close", "Close all days up to one: runs ask for a posting date for what is dated in that time.") { through };
        close.SetAction(CommandContext.Run((parsed, context, cancel) => Say(DayOf(parsed.GetValue(through)!), null, context, cancel)));
        var left = new Option<string?>("--through") { Description = "The last day that stays closed; none if left out.", HelpName = "DAY" };
        var reason = new Option<string>("--because") { Description = "Why days are opened again; it is kept on record.", HelpName = "REASON", Required = true };
        var open = new Command("open", "Open closed days again.") { left, reason };
        open.SetAction(CommandContext.Run((parsed, context, cancel) => Say(parsed.GetValue(left) is { } day ? DayOf(day) : null, parsed.GetValue(reason), context, cancel)));
        return new Command("period", "Closed periods of the books.") { show, close, open };
    }

    /// <summary>A day as a person types it, in its settled form.</summary>
    public static string DayOf(string text) => DateOnly.TryParseExact(text, "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out _) ? text
        : throw new RefusedException($"“{text}” is no day; one is written as 2026-10-31.", exitCode: ExitCodes.WrongUsage);

    private static async Task<int> Say(string? through, string? reason, CommandContext context, CancellationToken cancel)
    {
        var seen = await context.Service.Get("closed-periods", cancel);
        return Print(await context.Service.Replace("closed-periods", new JsonObject { ["through"] = through, ["reason"] = reason }, Shown.Number(seen["revision"]), cancel), context);
    }

    private static int Print(JsonNode periods, CommandContext context)
    {
        context.Print(periods, () =>
        {
            Terminal.Line(periods["through"] is { } day ? $"All up to {Shown.Text(day)} is closed." : "No period is closed.");
            var table = Terminal.NewTable(("closed up to", false), ("said at (UTC)", false), ("by", false), ("because", false));
            foreach (var change in periods["changes"]!.AsArray())
            {
                table.AddRow(
                    new Text(change!["through"] is { } through ? Shown.Text(through) : "none"), new Text(Shown.Time(change["at"])), new Text(Shown.Cut(Shown.Text(change["by"]), 20)), new Text(Shown.Text(change["reason"])));
            }
            if (periods["changes"]!.AsArray().Count > 0)
                Terminal.Out.Write(table);
        });
        return ExitCodes.Done;
    }
}
