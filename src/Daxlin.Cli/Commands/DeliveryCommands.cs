using System.CommandLine;
using System.Text.Json.Nodes;
using Spectre.Console;

namespace Daxlin.Cli.Commands;

/// <summary>Deliveries: how far the handing of posting runs to their receivers is.</summary>
internal static class DeliveryCommands
{
    public static Command Make()
    {
        var id = new Argument<int>("ID") { Description = "The delivery's number." };
        var state = new Option<string?>("--state") { Description = "Only those that are waiting, delivered, given-up or settled.", HelpName = "STATE" };
        state.AcceptOnlyFromAmong("waiting", "delivered", "given-up", "settled");
        var list = new Command("list", "List deliveries, newest first.") { state };
        list.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
        {
            var all = await context.Service.GetAll($"deliveries{(parsed.GetValue(state) is { } word ? $"?state={word}" : "")}", cancel);
            context.Print(all, () => Print(all));
            return ExitCodes.Done;
        }));

        var retry = new Command("retry", "Try a delivery at once that waits or was given up.") { id };
        retry.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
            await Follow(await context.Service.Post($"deliveries/{parsed.GetValue(id)}/retry", new JsonObject(), cancel), context, cancel)));

        var reason = new Option<string>("--because") { Description = "How it is known that the receiver has it, or why it is not to have it; it is kept on record.", HelpName = "REASON", Required = true };
        var settle = new Command("settle", "End a delivery that waits or was given up, by what you know.") { id, reason };
        settle.SetAction(CommandContext.Run(async (parsed, context, cancel) =>
        {
            var settled = await context.Service.Post($"deliveries/{parsed.GetValue(id)}/settlement", new JsonObject { ["reason"] = parsed.GetValue(reason) }, cancel);
            context.Print(settled, () => PrintSaid([settled.DeepClone()]));
            return ExitCodes.Done;
        }));
        return new Command("delivery", "Deliveries of posting runs to receivers.") { list, retry, settle };
    }

    /// <summary>Asks for a run to be delivered.</summary>
    public static Task<JsonNode> Ask(int run, string receiver, string? again, CommandContext context, CancellationToken cancel)
    {
        var body = new JsonObject { ["receiver"] = receiver };
        if (again is { Length: > 0 })
            body["again"] = again;
        return context.Service.Post($"posting-runs/{run}/deliveries", body, cancel);
    }

    /// <summary>Waits until none of a run's deliveries is being tried.</summary>
    /// <returns>All of them.</returns>
    public static async Task<JsonArray> Await(int run, CommandContext context, CancellationToken cancel)
    {
        var deliveries = (await context.Service.Get($"posting-runs/{run}/deliveries", cancel)).AsArray();
        if (deliveries.Count == 0)
            return deliveries;
        await foreach (var _ in context.Service.Events($"posting-runs/{run}/deliveries/events", cancel))
        {
            // The stream ends by itself.
        }
        return (await context.Service.Get($"posting-runs/{run}/deliveries", cancel)).AsArray();
    }

    /// <summary>Waits until a delivery is not being tried any more, and says how it stands.</summary>
    public static async Task<int> Follow(JsonNode delivery, CommandContext context, CancellationToken cancel)
    {
        var all = await Await(Shown.Number(delivery["run"]), context, cancel);
        var now = all.First(one => Shown.Number(one!["id"]) == Shown.Number(delivery["id"]))!;
        context.Print(now, () => PrintSaid([now.DeepClone()]));
        return ExitOf([now.DeepClone()]);
    }

    public static int ExitOf(JsonArray deliveries) => deliveries.All(one => Shown.Text(one!["state"]) is "delivered" or "settled") ? ExitCodes.Done : ExitCodes.SomethingToLookAt;

    /// <summary>A line for each: what the receiver said, or why it failed and what comes next.</summary>
    public static void PrintSaid(JsonArray deliveries)
    {
        foreach (var one in deliveries)
        {
            var lead = Shown.Text(one!["state"]) switch
            {
                "delivered" => "Delivered to",
                "given-up" => "Given up for",
                "settled" => "Settled for",
                _ => "Waiting for",
            };
            BatchSheet.Hanging($"{lead} {Shown.Text(one["receiver"])} (delivery {Shown.Text(one["id"])}).  ", Says(one));
        }
    }

    private static string Says(JsonNode one) => Shown.Text(one["state"]) switch
    {
        "waiting" when Shown.Number(one["attempts"]) > 0 => $"{Shown.Text(one["says"])} It is tried again at {Shown.Time(one["nextAt"])}.",
        "waiting" => "It is not tried yet.",
        "given-up" => $"{Shown.Text(one["says"])} To try again: delivery retry {Shown.Text(one["id"])}.",
        _ => Shown.Text(one["says"]),
    };

    private static void Print(JsonArray deliveries)
    {
        if (deliveries.Count == 0)
        {
            Terminal.Line("No deliveries. docs/DELIVERY.md tells how runs reach a ledger by themselves.");
            return;
        }
        var table = Terminal.NewTable(("id", true), ("run", true), ("receiver", false), ("state", false), ("since or next (UTC)", false), ("", false));
        foreach (var one in deliveries)
        {
            table.AddRow(
                new Text(Shown.Text(one!["id"])), new Text(Shown.Text(one["run"])), new Text(Shown.Text(one["receiver"])), new Text(Shown.Text(one["state"]).Replace('-', ' ')),
                new Text(Shown.Time(one["nextAt"] ?? one["endedAt"]).Replace(" UTC", "", StringComparison.Ordinal)), new Text(Shown.Cut(Shown.Text(one["says"]), 34)));
        }
        Terminal.Out.Write(table);
    }
}
