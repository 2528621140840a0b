using System.Net;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using Daxlin.Testing;

namespace Daxlin.Service.Tests;

/// <summary>A browser of someone, at a service that has sign-in: it keeps cookies, and sends the form token as the console does.</summary>
internal sealed class SignedIn : IDisposable
{
    public const string AdministratorsName = "Ada Wrenfield";
    public const string Password = "four gulls on a mast";

    private readonly HttpClientHandler handler = new() { CookieContainer = new CookieContainer() };

    public SignedIn(ServiceUnderTest service)
    {
        Address = new Uri(service.Address);
        Http = new HttpClient(handler) { BaseAddress = service.Http.BaseAddress, Timeout = service.Http.Timeout };
    }

    public Uri Address { get; }
    public HttpClient Http { get; }
    public CookieContainer Cookies => handler.CookieContainer;

    /// <summary>What was said of the sign-in last.</summary>
    public JsonNode Session { get; private set; } = new JsonObject();

    /// <summary>A new service, whose first administrator followed the printed link.</summary>
    public static async Task<(ServiceUnderTest Service, SignedIn Administrator)> First(string? data = null, params string[] arguments)
    {
        var service = await ServiceUnderTest.Start(data, signsIn: true, arguments: arguments);
        var administrator = new SignedIn(service);
        await administrator.Follow(await service.PrintedLink(), AdministratorsName);
        return (service, administrator);
    }

    public async Task Follow(string link, string? name = null, string password = Password)
    {
        var (status, said) = await Send(HttpMethod.Post, "welcome", new JsonObject { ["link"] = link, ["name"] = name, ["password"] = password });
        Assert.True(status == 200, said.ToJsonString());
        Session = said;
    }

    public async Task<(int Status, JsonNode Body)> SignIn(string name, string password = Password, string? code = null)
    {
        var (status, said) = await Send(HttpMethod.Post, "session", new JsonObject { ["name"] = name, ["password"] = password, ["code"] = code });
        if (status == 200)
            Session = said;
        return (status, said);
    }

    /// <summary>Goes to the identity provider and back, with all redirects on the way.</summary>
    /// <returns>The page that the browser ends up on.</returns>
    public async Task<(int Status, string Page)> ComeByProvider(string to = "/")
    {
        using var answer = await Http.GetAsync(new Uri(Address, $"/sign-in/provider?to={Uri.EscapeDataString(to)}"));
        Session = await Get("session");
        return ((int)answer.StatusCode, await answer.Content.ReadAsStringAsync());
    }

    /// <summary>Adds a person, as an administrator, whose browser this then is.</summary>
    public async Task<SignedIn> Add(ServiceUnderTest service, string name, string role, params string[] groups)
    {
        var (status, added) = await Send(
            HttpMethod.Post, "people", new JsonObject { ["name"] = name, ["roles"] = new JsonArray(role), ["groups"] = new JsonArray([.. groups.Select(group => JsonValue.Create(group))]) });
        Assert.True(status == 201, added.ToJsonString());
        var person = new SignedIn(service);
        await person.Follow(((string)added["link"]!).Split('#')[1]);
        return person;
    }

    /// <summary>Makes an access key, with all rights that one has unless some are said.</summary>
    public async Task<string> MakeKey(params string[] rights)
    {
        var wanted = new JsonObject { ["name"] = "nightly" };
        if (rights.Length > 0)
            wanted["rights"] = new JsonArray([.. rights.Select(right => JsonValue.Create(right))]);
        var (status, made) = await Send(HttpMethod.Post, "access-keys", wanted);
        Assert.True(status == 201, made.ToJsonString());
        return (string)made["key"]!;
    }

    public async Task<JsonNode> Get(string path) => (await Send(HttpMethod.Get, path, null)).Body;

    /// <param name="revision">The revision that was shown; null for what is not bound to one.</param>
    public async Task<(int Status, JsonNode Body)> Send(HttpMethod method, string path, JsonNode? body, int? revision = null)
    {
        using var request = new HttpRequestMessage(method, path) { Content = body is null ? null : JsonContent.Create(body) };
        if ((string?)Session["formToken"] is { Length: > 0 } token)
            request.Headers.Add("Daxlin-Form", token);
        if (revision is { } seen)
            request.Headers.Add("If-Match", $"\"{seen}\"");
        using var answer = await Http.SendAsync(request);
        var text = await answer.Content.ReadAsStringAsync();
        return ((int)answer.StatusCode, text.Length == 0 ? new JsonObject() : JsonNode.Parse(text)!);
    }

    public void Dispose()
    {
        Http.Dispose();
        handler.Dispose();
    }
}
