using System.Net.Http.Headers;
using System.Text;
using System.Text.Json.Nodes;

namespace Daxlin.Cli;

/// <summary>Speaks to the service's HTTP interface.</summary>
internal sealed class ServiceClient(string server, string? person = null, string? key = null) : IDisposable
{
    /// <summary>The token that goes with the cookie of a sign-in by password; empty where a key is shown.</summary>
    private string formToken = "";

    private readonly HttpClient http = new() { BaseAddress = new Uri(server.TrimEnd('/') + "/"), Timeout = Timeout.InfiniteTimeSpan };

    public Task<JsonNode> Get(string path, CancellationToken cancel) => Send(HttpMethod.Get, path, null, cancel);

    /// <summary>A whole list, part by part: each answer's Link leads to the next (RFC 8288).</summary>
    public async Task<JsonArray> GetAll(string path, CancellationToken cancel)
    {
        var all = new JsonArray();
        for (string? next = path; next is not null;)
        {
            using var answer = await Answer(new HttpRequestMessage(HttpMethod.Get, next), cancel);
            foreach (var entry in JsonNode.Parse(await answer.Content.ReadAsStringAsync(cancel))!.AsArray())
                all.Add(entry!.DeepClone());
            next = answer.Headers.TryGetValues("Link", out var links) ? NextOf(links.First()) : null;
        }
        return all;
    }

    /// <summary>Signs in by password for as long as this client lives, which shows no key from then on.</summary>
    public async Task<JsonNode> SignIn(string name, string password, string? code, CancellationToken cancel)
    {
        key = null;
        var session = await Post("session", new JsonObject { ["name"] = name, ["password"] = password, ["code"] = code }, cancel);
        formToken = session["formToken"]!.GetValue<string>();
        return session;
    }

    private static string? NextOf(string link) =>
        link.EndsWith("rel=\"next\"", StringComparison.Ordinal) ? link[(link.IndexOf(Root, StringComparison.Ordinal) + Root.Length)..link.IndexOf('>', StringComparison.Ordinal)] : null;

    private const string Root = "/api/v1/";

    public Task<JsonNode> Post(string path, JsonNode body, CancellationToken cancel) =>
        Send(HttpMethod.Post, path, new StringContent(body.ToJsonString(), Encoding.UTF8, "application/json"), cancel);

    /// <summary>Decides on what was shown: the service refuses if it has changed since.</summary>
    /// <param name="revision">The revision that the person saw.</param>
    public Task<JsonNode> Decide(string path, JsonNode body, int revision, CancellationToken cancel) =>
        Send(HttpMethod.Post, path, new StringContent(body.ToJsonString(), Encoding.UTF8, "application/json"), cancel, ("If-Match", $"\"{revision}\""));

    /// <summary>Says anew what something is, if it is still as it was seen.</summary>
    public Task<JsonNode> Replace(string path, JsonNode body, int revision, CancellationToken cancel) =>
        Send(HttpMethod.Put, path, new StringContent(body.ToJsonString(), Encoding.UTF8, "application/json"), cancel, ("If-Match", $"\"{revision}\""));

    /// <summary>Makes something that must not be made twice: sent again with the same key, it is the same.</summary>
    public Task<JsonNode> Make(string path, JsonNode body, string key, CancellationToken cancel) =>
        Send(HttpMethod.Post, path, new StringContent(body.ToJsonString(), Encoding.UTF8, "application/json"), cancel, ("Idempotency-Key", key));

    /// <summary>Sends a text as it is, so that faults are named by its own lines.</summary>
    public Task<JsonNode> PostText(string path, string text, CancellationToken cancel, string type = "application/json") =>
        Send(HttpMethod.Post, path, new StringContent(text, Encoding.UTF8, type), cancel);

    /// <summary>Puts a text, as it is, in the place of what was there.</summary>
    public Task<JsonNode> PutText(string path, string text, string type, CancellationToken cancel) =>
        Send(HttpMethod.Put, path, new StringContent(text, Encoding.UTF8, type), cancel);

    public async Task Delete(string path, CancellationToken cancel)
    {
        using var _ = await Answer(new HttpRequestMessage(HttpMethod.Delete, path), cancel);
    }

    public async Task<JsonNode> Upload(string path, IEnumerable<string> files, CancellationToken cancel)
    {
        using var form = new MultipartFormDataContent();
        foreach (var file in files)
        {
            var content = new StreamContent(File.OpenRead(file));
            content.Headers.ContentType = new MediaTypeHeaderValue("application/octet-stream");
            form.Add(content, "files", Path.GetFileName(file));
        }
        return await Send(HttpMethod.Post, path, form, cancel);
    }

    public async Task<byte[]> Download(string path, CancellationToken cancel)
    {
        using var answer = await Answer(new HttpRequestMessage(HttpMethod.Get, path), cancel);
        return await answer.Content.ReadAsByteArrayAsync(cancel);
    }

    /// <summary>The data of a stream of server-sent events, one object an event.</summary>
    public async IAsyncEnumerable<JsonNode> Events(
        string path, [System.Runtime.CompilerServices.EnumeratorCancellation] CancellationToken cancel)
    {
        using var answer = await Answer(new HttpRequestMessage(HttpMethod.Get, path), cancel);
        using var reader = new StreamReader(await answer.Content.ReadAsStreamAsync(cancel));
        while (await reader.ReadLineAsync(cancel) is { } line)
        {
            if (line.StartsWith("data: ", StringComparison.Ordinal))
                yield return JsonNode.Parse(line[6..])!;
        }
    }

    private async Task<JsonNode> Send(
        HttpMethod method, string path, HttpContent? content, CancellationToken cancel, params (string Name, string Value)[] headers)
    {
        var request = new HttpRequestMessage(method, path) { Content = content };
        foreach (var (name, value) in headers)
            request.Headers.Add(name, value);
        using var answer = await Answer(request, cancel);
        return answer.StatusCode == System.Net.HttpStatusCode.NoContent ? new JsonObject() : JsonNode.Parse(await answer.Content.ReadAsStringAsync(cancel))!;
    }

    /// <exception cref="RefusedException">The service refuses, or is not there.</exception>
    private async Task<HttpResponseMessage> Answer(HttpRequestMessage request, CancellationToken cancel)
    {
        request.RequestUri = new Uri("api/v1/" + request.RequestUri!.OriginalString, UriKind.Relative);
        if (!string.IsNullOrWhiteSpace(person))
            request.Headers.Add("Daxlin-Person", Uri.EscapeDataString(person.Trim()));
        if (key is not null)
            request.Headers.Authorization = new AuthenticationHeaderValue("Bearer", key);
        if (formToken.Length > 0)
            request.Headers.Add("Daxlin-Form", formToken);
        HttpResponseMessage answer;
        try
        {
            answer = await http.SendAsync(request, HttpCompletionOption.ResponseHeadersRead, cancel);
        }
        catch (HttpRequestException)
        {
            throw new RefusedException(
                $"No Daxlin service answers at {server}. Start one with “./daxlin serve”, or name another with --server.");
        }
        if (answer.IsSuccessStatusCode)
            return answer;
        using (answer)
        {
            var text = await answer.Content.ReadAsStringAsync(cancel);
            throw Refusal(text, (int)answer.StatusCode);
        }
    }

    private RefusedException Refusal(string text, int status)
    {
        JsonNode? problem = null;
        try
        {
            problem = JsonNode.Parse(text);
        }
        catch (System.Text.Json.JsonException)
        {
            // Not Daxlin's own answer; the status is all there is to say.
        }
        var sentence = problem?["detail"]?.GetValue<string>() ?? problem?["title"]?.GetValue<string>()
            ?? $"The server at {server} answers with status {status}; is it Daxlin?";
        if (problem?["faults"] is JsonArray { Count: > 1 } faults)
            sentence += string.Concat(faults.Select(fault => $"\n  line {fault!["line"]}, {fault["place"]}: {fault["message"]}"));
        if (problem?["code"]?.GetValue<string>() == "sign-in-needed")
            sentence += " “./daxlin login” signs in and keeps a key for this user.";
        return new RefusedException(sentence, problem?["code"]?.GetValue<string>() ?? "");
    }

    public void Dispose() => http.Dispose();
}
