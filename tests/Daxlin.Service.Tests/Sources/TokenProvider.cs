using System.Collections.Concurrent;
using System.Net;
using System.Text;
using System.Text.Json.Nodes;
using System.Web;
using Daxlin.Testing;

namespace Daxlin.Service.Tests.Sources;

/// <summary>A provider of access tokens (RFC 6749) whose refresh tokens hold once each, and who tells a mail server which tokens hold (RFC 7662).</summary>
internal sealed class TokenProvider : IDisposable
{
    public const string Client = "daxlin of kestrel";
    public const string Secret = "what: the provider gave";

    private readonly HttpListener listener = new();
    private readonly int port = Programs.FreePort();
    private int given;

    public TokenProvider()
    {
        listener.Prefixes.Add(Address + "/");
        listener.Start();
        _ = Listen();
    }

    public string Address => $"http://127.0.0.1:{port}";

    /// <summary>The only refresh token that holds; null once consent is withdrawn.</summary>
    public string? Refresh { get; set; } = "refresh-0";

    /// <summary>How long it says that its tokens hold, in seconds.</summary>
    public int Lasts { get; set; } = 3600;

    /// <summary>The tokens that it gave and that hold still.</summary>
    public ConcurrentDictionary<string, bool> Holding { get; } = new();

    public int Given => given;

    private async Task Listen()
    {
        while (listener.IsListening)
        {
            HttpListenerContext context;
            try
            {
                context = await listener.GetContextAsync();
            }
            catch (Exception error) when (error is HttpListenerException or ObjectDisposedException)
            {
                return;
            }
            using var reader = new StreamReader(context.Request.InputStream);
            var form = HttpUtility.ParseQueryString(await reader.ReadToEndAsync());
            var (status, body) = context.Request.Url!.AbsolutePath == "/token" ? Token(context.Request, form["grant_type"], form["refresh_token"], form["scope"]) : (200, Introspect(form["token"]));
            context.Response.StatusCode = status;
            context.Response.ContentType = "application/json";
            await context.Response.OutputStream.WriteAsync(Encoding.UTF8.GetBytes(body.ToJsonString()));
            context.Response.Close();
        }
    }

    private (int Status, JsonObject Body) Token(HttpListenerRequest request, string? grant, string? refresh, string? scope)
    {
        var basic = "Basic " + Convert.ToBase64String(Encoding.UTF8.GetBytes($"{Uri.EscapeDataString(Client)}:{Uri.EscapeDataString(Secret)}"));
        if (request.Headers["Authorization"] != basic)
            return (401, new JsonObject { ["error"] = "invalid_client" });
        if (grant != "refresh_token" || refresh != Refresh || scope != "imap")
            return (400, new JsonObject { ["error"] = "invalid_grant", ["error_description"] = "Consent was withdrawn." });
        var number = Interlocked.Increment(ref given);
        Refresh = $"refresh-{number}";
        Holding[$"token-{number}"] = true;
        return (200, new JsonObject { ["access_token"] = $"token-{number}", ["token_type"] = "Bearer", ["expires_in"] = Lasts, ["refresh_token"] = Refresh });
    }

    private JsonObject Introspect(string? token) => new() { ["active"] = token is not null && Holding.ContainsKey(token), ["username"] = MailServer.User };

    public void Dispose() => listener.Close();
}
