using System.Diagnostics;
using System.Globalization;
using System.Net.WebSockets;
using System.Text;
using System.Text.Json.Nodes;

namespace Daxlin.Samples;

/// <summary>Prints HTML to PDF with Debian's Chromium, one browser for all, steered by its DevTools protocol.</summary>
internal sealed class BrowserPrinter : IDisposable
{
    private static BrowserPrinter? running;

    private readonly string scratch = Directory.CreateTempSubdirectory("daxlin-samples-").FullName;
    private readonly Process browser;
    private readonly ClientWebSocket socket = new();
    private readonly string session;
    private readonly HashSet<string> seen = [];
    private int lastId;

    private BrowserPrinter()
    {
        var start = new ProcessStartInfo("chromium") { RedirectStandardError = true, RedirectStandardOutput = true };
        foreach (var argument in new[]
        {
            "--headless", "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking",
            "--disable-component-update", "--disable-sync", "--remote-debugging-port=0", $"--user-data-dir={scratch}/profile",
        })
            start.ArgumentList.Add(argument);
        browser = Process.Start(start)!;
        const string Says = "DevTools listening on ";
        string? line;
        do
            line = browser.StandardError.ReadLine() ?? throw new InvalidOperationException("Chromium did not start.");
        while (!line.StartsWith(Says, StringComparison.Ordinal));
        // What it says later is read and dropped, so that it never waits for a reader.
        _ = Task.Run(() => browser.StandardError.ReadToEnd());
        socket.ConnectAsync(new Uri(line[Says.Length..]), CancellationToken.None).GetAwaiter().GetResult();
        var target = Call("Target.createTarget", new JsonObject { ["url"] = "about:blank" })["targetId"]!;
        session = (string)Call("Target.attachToTarget", new JsonObject { ["targetId"] = target.DeepClone(), ["flatten"] = true })["sessionId"]!;
        Call("Page.enable", []);
    }

    /// <returns>How many pages were printed.</returns>
    public static int Print(string html, string path)
    {
        running ??= new BrowserPrinter();
        var bytes = running.PrintPage(html);
        File.WriteAllBytes(path, bytes);
        using var document = UglyToad.PdfPig.PdfDocument.Open(bytes);
        return document.NumberOfPages;
    }

    public static void Stop() => running?.Dispose();

    public static string Escape(string text) => System.Net.WebUtility.HtmlEncode(text);

    public static string Date(DateOnly date, string format) => date.ToString(format, CultureInfo.InvariantCulture);

    private byte[] PrintPage(string html)
    {
        var page = Path.Combine(scratch, "invoice.html");
        File.WriteAllText(page, html, Encoding.UTF8);
        seen.Clear();
        Call("Page.navigate", new JsonObject { ["url"] = $"file://{page}" });
        // The event may have come before the answer.
        while (!seen.Contains("Page.loadEventFired"))
            Receive();
        var printed = Call("Page.printToPDF", new JsonObject { ["preferCSSPageSize"] = true, ["printBackground"] = true });
        return Convert.FromBase64String((string)printed["data"]!);
    }

    private JsonNode Call(string method, JsonObject parameters)
    {
        var call = new JsonObject { ["id"] = ++lastId, ["method"] = method, ["params"] = parameters };
        if (session is not null)
            call["sessionId"] = session;
        socket.SendAsync(Encoding.UTF8.GetBytes(call.ToJsonString()), WebSocketMessageType.Text, true, CancellationToken.None).GetAwaiter().GetResult();
        JsonNode answer;
        do
            answer = Receive();
        while (answer["id"]?.GetValue<int>() != lastId);
        return answer["result"] ?? throw new InvalidOperationException($"{method}: {answer.ToJsonString()}");
    }

    private JsonNode Receive()
    {
        using var message = new MemoryStream();
        var buffer = new byte[1 << 16];
        WebSocketReceiveResult part;
        do
        {
            part = socket.ReceiveAsync(buffer, CancellationToken.None).GetAwaiter().GetResult();
            message.Write(buffer, 0, part.Count);
        }
        while (!part.EndOfMessage);
        var received = JsonNode.Parse(message.ToArray())!;
        if ((string?)received["method"] is { } happened)
            seen.Add(happened);
        return received;
    }

    public void Dispose()
    {
        socket.Dispose();
        browser.Kill(entireProcessTree: true);
        browser.WaitForExit();
        browser.Dispose();
        Directory.Delete(scratch, recursive: true);
    }
}
