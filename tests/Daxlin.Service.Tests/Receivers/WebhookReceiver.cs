using System.Collections.Concurrent;
using System.Net;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json.Nodes;
using Daxlin.Testing;

namespace Daxlin.Service.Tests.Receivers;

/// <summary>A web address that checks signatures as the specification says, and takes each id once.</summary>
internal sealed class WebhookReceiver : ITestReceiver
{
    private const string Secret = "whsec_MfKQ9r8GKYqrTwjUPD8ILPZIo2LaLaSw";

    private readonly HttpListener listener = new();

    public WebhookReceiver()
    {
        listener.Prefixes.Add($"http://127.0.0.1:{Port}/");
        listener.Start();
        _ = Listen();
    }

    public int Port { get; } = Programs.FreePort();

    /// <summary>What it answers to what it would take.</summary>
    public int Answer { get; set; } = 204;

    public ConcurrentQueue<string> Faults { get; } = new();

    /// <summary>How often each id was sent, taken or not.</summary>
    public ConcurrentDictionary<string, int> Sent { get; } = new();

    public ConcurrentDictionary<string, JsonNode> Taken { get; } = new();

    public (JsonObject Way, (string Name, string Value)[] Secrets) Described(int port) =>
        (new() { ["webhook"] = new JsonObject { ["url"] = $"http://127.0.0.1:{port}/daxlin", ["secret"] = "ledger-hook" } }, [("ledger-hook", Secret)]);

    public Task<int> TimesOf(JsonNode run) => Task.FromResult(Taken.Values.Count(body => body["data"]!["run"]!.GetValue<int>() == run["number"]!.GetValue<int>()));

    private async Task Listen()
    {
        try
        {
            while (true)
                await Hear(await listener.GetContextAsync());
        }
        catch (Exception error) when (error is HttpListenerException or ObjectDisposedException)
        {
            // The test is over.
        }
    }

    private async Task Hear(HttpListenerContext context)
    {
        try
        {
            using var body = new MemoryStream();
            await context.Request.InputStream.CopyToAsync(body);
            string Header(string name) => context.Request.Headers[name] ?? "";
            if (context.Request.HttpMethod == "POST")
            {
                var signed = HMACSHA256.HashData(Convert.FromBase64String(Secret[6..]), Encoding.UTF8.GetBytes($"{Header("webhook-id")}.{Header("webhook-timestamp")}.").Concat(body.ToArray()).ToArray());
                if (!Header("webhook-signature").Split(' ').Contains("v1," + Convert.ToBase64String(signed)))
                    Faults.Enqueue("The signature is not that of the body.");
                if (Math.Abs(long.Parse(Header("webhook-timestamp"), System.Globalization.CultureInfo.InvariantCulture) - DateTimeOffset.UtcNow.ToUnixTimeSeconds()) > 300)
                    Faults.Enqueue("The time is not that of the clock.");
                Sent.AddOrUpdate(Header("webhook-id"), 1, (_, times) => times + 1);
                if (Answer < 300)
                    Taken[Header("webhook-id")] = JsonNode.Parse(body.ToArray())!;
            }
            context.Response.StatusCode = Answer;
            context.Response.Close();
        }
        catch (Exception error) when (error is HttpListenerException or IOException)
        {
            // The line was cut; what was heard whole is taken.
        }
    }

    public ValueTask DisposeAsync()
    {
        listener.Close();
        return ValueTask.CompletedTask;
    }
}
