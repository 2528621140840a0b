using System.Collections.Concurrent;
using System.Net;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json.Nodes;
using System.Web;
using Daxlin.Service.Tests.Receivers;
using Daxlin.Testing;
using Microsoft.IdentityModel.JsonWebTokens;
using Microsoft.IdentityModel.Tokens;

namespace Daxlin.Service.Tests;

/// <summary>
/// A small provider of identities after OpenID Connect Core 1.0: it lets in whom it is told to, checks the client's secret and the
/// code's verifier (RFC 7636), and can be told to answer wrongly.
/// </summary>
internal sealed class IdentityProviderUnderTest : IDisposable
{
    private const string Client = "daxlin";
    private const string Secret = "what the provider gave to Daxlin";

    private readonly HttpListener listener = new();
    private readonly int port = Programs.FreePort();
    private readonly RsaSecurityKey key = new(RSA.Create(2048)) { KeyId = "one" };
    private readonly RsaSecurityKey othersKey = new(RSA.Create(2048)) { KeyId = "one" };
    private readonly ConcurrentDictionary<string, (string Challenge, string Nonce, string Back)> codes = new();
    private readonly DirectoryInfo folder = Directory.CreateTempSubdirectory("daxlin-provider-");

    public IdentityProviderUnderTest()
    {
        listener.Prefixes.Add(Address + "/");
        listener.Start();
        _ = Listen();
    }

    public string Address => $"http://127.0.0.1:{port}";

    /// <summary>Whom it lets in.</summary>
    public string Subject { get; set; } = "subject-1";
    public string Name { get; set; } = "Berta Quill";
    public string[] Groups { get; set; } = ["AP clerks"];

    /// <summary>What is wrong with its answers; empty for nothing.</summary>
    public string Fault { get; set; } = "";

    /// <summary>Where it sent browsers back to.</summary>
    public ConcurrentQueue<string> SentBackTo { get; } = new();

    /// <summary>The file that tells Daxlin of it.</summary>
    public string Described(bool tiesNames = false)
    {
        File.WriteAllText(Path.Combine(folder.FullName, "daxlin.secret"), Secret + "\n");
        var file = Path.Combine(folder.FullName, "identity-provider.json");
        File.WriteAllText(file, new JsonObject
        {
            ["name"] = "Kestrel accounts",
            ["authority"] = Address,
            ["clientId"] = Client,
            ["clientSecretFile"] = "daxlin.secret",
            ["roles"] = new JsonObject { ["AP clerks"] = new JsonArray("clerk"), ["AP approvers"] = new JsonArray("approver"), ["IT"] = new JsonArray("administrator") },
            ["tiesNames"] = tiesNames,
        }.ToJsonString());
        return file;
    }

    private async Task Listen()
    {
        try
        {
            while (true)
                await Answer(await listener.GetContextAsync());
        }
        catch (Exception error) when (error is HttpListenerException or ObjectDisposedException)
        {
            // The test is over.
        }
    }

    private async Task Answer(HttpListenerContext context)
    {
        using var response = context.Response;
        switch (context.Request.Url!.AbsolutePath)
        {
            case "/.well-known/openid-configuration":
                await Send(response, new JsonObject
                {
                    ["issuer"] = Address,
                    ["authorization_endpoint"] = Address + "/authorize",
                    ["token_endpoint"] = Address + "/token",
                    ["userinfo_endpoint"] = Address + "/userinfo",
                    ["jwks_uri"] = Address + "/keys",
                });
                break;
            case "/keys":
                var parameters = key.Rsa.ExportParameters(false);
                await Send(response, new JsonObject
                {
                    ["keys"] = new JsonArray(new JsonObject
                    {
                        ["kty"] = "RSA",
                        ["use"] = "sig",
                        ["alg"] = "RS256",
                        ["kid"] = "one",
                        ["n"] = Base64UrlEncoder.Encode(parameters.Modulus),
                        ["e"] = Base64UrlEncoder.Encode(parameters.Exponent),
                    }),
                });
                break;
            case "/authorize":
                var back = Authorized(context.Request.QueryString);
                SentBackTo.Enqueue(back);
                response.Redirect(back);
                break;
            case "/token":
                using (var body = new StreamReader(context.Request.InputStream))
                    await Tokens(response, HttpUtility.ParseQueryString(await body.ReadToEndAsync()));
                break;
            case "/userinfo":
                await Send(response, new JsonObject { ["sub"] = Fault == "other subject" ? "someone-else" : Subject, ["groups"] = new JsonArray([.. Groups.Select(group => JsonValue.Create(group))]) });
                break;
            default:
                response.StatusCode = 404;
                break;
        }
    }

    private string Authorized(System.Collections.Specialized.NameValueCollection asked)
    {
        var back = asked["redirect_uri"]!;
        if (asked["client_id"] != Client || asked["response_type"] != "code" || asked["code_challenge_method"] != "S256" || !asked["scope"]!.Split(' ').Contains("openid"))
            return $"{back}?error=invalid_request&state={Uri.EscapeDataString(asked["state"]!)}";
        if (Fault == "denied")
            return $"{back}?error=access_denied&state={Uri.EscapeDataString(asked["state"]!)}";
        var code = Guid.NewGuid().ToString("N");
        codes[code] = (asked["code_challenge"]!, asked["nonce"]!, back);
        return $"{back}?code={code}&state={Uri.EscapeDataString(Fault == "other state" ? asked["state"]![..^4] + "AAAA" : asked["state"]!)}";
    }

    private async Task Tokens(HttpListenerResponse response, System.Collections.Specialized.NameValueCollection form)
    {
        if (!codes.TryRemove(form["code"] ?? "", out var given) || form["client_secret"] != Secret || form["redirect_uri"] != given.Back
            || Base64UrlEncoder.Encode(SHA256.HashData(Encoding.ASCII.GetBytes(form["code_verifier"] ?? ""))) != given.Challenge)
        {
            response.StatusCode = 400;
            await Send(response, new JsonObject { ["error"] = "invalid_grant" });
            return;
        }
        var now = Fault == "expired" ? DateTime.UtcNow.AddHours(-2) : DateTime.UtcNow;
        var token = new JsonWebTokenHandler { SetDefaultTimesOnTokenCreation = false }.CreateToken(new SecurityTokenDescriptor
        {
            Issuer = Fault == "other issuer" ? "http://127.0.0.1:1" : Address,
            Audience = Fault == "other audience" ? "ledger" : Client,
            IssuedAt = now,
            NotBefore = now,
            Expires = now.AddMinutes(10),
            Claims = new Dictionary<string, object> { ["sub"] = Subject, ["name"] = Name, ["nonce"] = Fault == "other nonce" ? "another" : given.Nonce },
            SigningCredentials = Fault == "unsigned" ? null : new SigningCredentials(Fault == "other key" ? othersKey : key, SecurityAlgorithms.RsaSha256),
        });
        await Send(response, new JsonObject { ["id_token"] = token, ["access_token"] = "of no use here", ["token_type"] = "Bearer", ["expires_in"] = 600 });
    }

    private static async Task Send(HttpListenerResponse response, JsonNode body)
    {
        response.ContentType = "application/json";
        await response.OutputStream.WriteAsync(Encoding.UTF8.GetBytes(body.ToJsonString()));
    }

    public void Dispose()
    {
        listener.Close();
        key.Rsa.Dispose();
        othersKey.Rsa.Dispose();
        folder.Delete(recursive: true);
    }
}
