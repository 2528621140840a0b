using System.Diagnostics;
using System.Globalization;
using System.Net;
using System.Net.Http.Json;
using System.Net.Sockets;
using System.Text.Json.Nodes;
using Daxlin.Testing;
using Spectre.Console;

namespace Daxlin.ServiceBench;

/// <summary>
/// How long refused sign-ins take, kind by kind and in turns, so that what else the machine does meets all alike; beside the same kind held
/// against itself, which is what chance makes of equal times.
/// </summary>
internal static class SignInBench
{
    private const string Password = "four gulls on a mast";
    private const string Wrong = "three gulls on a mast";

    /// <summary>Fewer than an address may try in a minute.</summary>
    private const int TriesOfAnAddress = 20;

    /// <summary>Fewer than lock a name.</summary>
    private const int TriesOfAName = 4;

    public static async Task Run(int tries)
    {
        await using var service = await ServiceUnderTest.Start(signsIn: true, apart: true);
        using (var browser = new HttpClient { BaseAddress = service.Http.BaseAddress })
        {
            var first = await Sent(browser, "welcome", new JsonObject { ["link"] = await service.PrintedLink(), ["name"] = "Ada Wrenfield", ["password"] = Password });
            foreach (var name in new[] { "Berta Quill" }.Concat(Enumerable.Range(0, (2 * tries + TriesOfAName - 1) / TriesOfAName).Select(at => $"Clerk {at}")))
            {
                var added = await Sent(browser, "people", new JsonObject { ["name"] = name, ["roles"] = new JsonArray("clerk") }, (string?)first["formToken"]);
                using var own = From(IPAddress.Parse($"127.0.1.{1 + (int)added["person"]!["id"]! % 250}"), service.Http.BaseAddress!);
                if (name != "Berta Quill")
                    await Sent(own, "welcome", new JsonObject { ["link"] = ((string)added["link"]!).Split('#')[1], ["password"] = Password });
            }
        }
        // Nobody is tried so often that the name is locked, but for Ada, whose name soon is.
        (string Kind, Func<int, string> Name)[] kinds =
        [
            ("a wrong password", at => $"Clerk {2 * at / TriesOfAName}"), ("the same again", at => $"Clerk {(2 * at + 1) / TriesOfAName}"), ("a locked name", _ => "Ada Wrenfield"),
            ("a name without a password", _ => "Berta Quill"), ("a name that is not known", at => $"Nobody {at}"), ("no name", _ => ""),
        ];
        var times = kinds.ToDictionary(kind => kind.Kind, _ => new List<double>());
        for (var at = 0; at < tries; at++)
        {
            using var client = From(IPAddress.Parse($"127.0.0.{2 + at * kinds.Length / TriesOfAnAddress}"), service.Http.BaseAddress!);
            // The first request of a connection takes longer than all after it.
            await client.GetStringAsync(new Uri("session", UriKind.Relative));
            for (var turn = 0; turn < kinds.Length; turn++)
            {
                var (kind, name) = kinds[(at + turn) % kinds.Length];
                var watch = Stopwatch.StartNew();
                using var answer = await client.PostAsJsonAsync("session", new JsonObject { ["name"] = name(at), ["password"] = Wrong });
                times[kind].Add(watch.Elapsed.TotalMilliseconds);
                if (answer.StatusCode != HttpStatusCode.Unauthorized)
                    throw new InvalidOperationException($"{kind}: {answer.StatusCode}");
            }
        }
        var table = new Table { Border = TableBorder.Simple };
        table.AddColumns("refused for", "tries", "median, ms", "a tenth below", "a tenth above");
        foreach (var (kind, _) in kinds)
        {
            var sorted = times[kind].Order().ToList();
            table.AddRow(kind, $"{sorted.Count}", Text(sorted[sorted.Count / 2]), Text(sorted[sorted.Count / 10]), Text(sorted[sorted.Count * 9 / 10]));
        }
        AnsiConsole.Write(table);
    }

    private static HttpClient From(IPAddress address, Uri server) => new(new SocketsHttpHandler
    {
        ConnectCallback = async (context, cancel) =>
        {
            var socket = new Socket(SocketType.Stream, ProtocolType.Tcp) { NoDelay = true };
            socket.Bind(new IPEndPoint(address, 0));
            await socket.ConnectAsync(new IPEndPoint(IPAddress.Loopback, context.DnsEndPoint.Port), cancel);
            return new NetworkStream(socket, ownsSocket: true);
        },
    })
    { BaseAddress = server };

    private static async Task<JsonNode> Sent(HttpClient client, string path, JsonNode body, string? formToken = null)
    {
        using var request = new HttpRequestMessage(HttpMethod.Post, path) { Content = JsonContent.Create(body) };
        if (formToken is not null)
            request.Headers.Add("Daxlin-Form", formToken);
        using var answer = await client.SendAsync(request);
        return JsonNode.Parse(await answer.EnsureSuccessStatusCode().Content.ReadAsStringAsync())!;
    }

    private static string Text(double milliseconds) => milliseconds.ToString("N1", CultureInfo.InvariantCulture);
}
