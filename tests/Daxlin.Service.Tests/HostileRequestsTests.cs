using System.Net.Http.Headers;
using System.Net.Sockets;
using System.Text;
using System.Text.Json.Nodes;
using Daxlin.Testing;

namespace Daxlin.Service.Tests;

/// <summary>
/// Every endpoint of the OpenAPI document × bad requests: none is a failure of the service, every refusal is problem
/// details with a sentence and a code, and every answer carries the headers that keep browsers off.
/// </summary>
public class HostileRequestsTests
{
    private static readonly string[] BadBodies =
    [
        "", "null", "true", "17", "\"text\"", "[]", "{", "{\"a\":", "{}x", "{\"unknown\":1}", "{\"name\":[]}", "{\"name\":\"\\ud800\"}", "{\"batch\":9e99}",
        "{\"batch\":-1}", "{\"batch\":99999999999999999999}", "{\"batch\":\"1\"}", "{\"batch\":1,\"batch\":2}", "{\"despite\":{}}", "{\"reason\":null}", "{\"name\":\"\\u202eegami\\u0000\"}",
        string.Concat(Enumerable.Repeat("{\"name\":", 5000)) + "1" + new string('}', 5000), new string('[', 100_000),
    ];

    private static readonly string[] BadIds = ["0", "-1", "2147483647", "2147483648", "99999999999999999999", "1.5", "abc", "..%2f..", "%", "%ff%fe", "%0d%0aX-Made: up", "١", "1;drop", new string('9', 3000)];

    private static readonly string?[] BadTypes = ["application/json; charset=utf-7", "application/json; charset=klingon", "text/plain", "application/xml", "multipart/form-data", "multipart/form-data; boundary=", "nonsense", null];

    [Fact]
    public async Task No_request_fails_the_service_and_every_refusal_says_why()
    {
        await using var service = await ServiceUnderTest.Start();
        await service.OpenBatch("November");
        var endpoints = (await service.Get("openapi.json"))["paths"]!.AsObject()
            .SelectMany(path => path.Value!.AsObject().Select(method => (Path: path.Key["/api/v1/".Length..], Method: new HttpMethod(method.Key.ToUpperInvariant())))).ToList();
        Assert.True(endpoints.Count >= 18, $"only {endpoints.Count} endpoints are described");
        var refused = 0;
        foreach (var (path, method) in endpoints)
        {
            var own = Filled(path, "1");
            foreach (var id in path.Contains('{', StringComparison.Ordinal) ? BadIds : [])
                refused += await Check(service, method, Filled(path, id), method == HttpMethod.Get ? null : Json("{}"));
            foreach (var other in new[] { HttpMethod.Delete, HttpMethod.Put, HttpMethod.Patch, HttpMethod.Trace })
                refused += await Check(service, other, own, null);
            if (method == HttpMethod.Get)
                continue;
            foreach (var body in BadBodies)
                refused += await Check(service, method, own, Json(body));
            foreach (var type in BadTypes)
                refused += await Check(service, method, own, Typed("{\"name\":\"x\"}", type));
            refused += await Check(service, method, own, Json("{\"name\":\"" + new string('x', 10 << 20) + "\"}"));
            refused += await Check(service, method, own, Typed("--x\r\nContent-Disposition: form-data; name=\"files\"; filename=\"a.pdf\"\r\n\r\n%PDF-", "multipart/form-data; boundary=x"));
            refused += await Check(service, method, own, Typed("no parts at all", "multipart/form-data; boundary=x"));
        }
        Assert.True(refused > 400, $"only {refused} requests were refused");
        Assert.Equal("Healthy", await service.Http.GetStringAsync(new Uri(service.Address + "/health")));
        Assert.Single((await service.Get("batches")).AsArray(), batch => (string?)batch!["name"] == "November");
    }

    [Theory]
    [InlineData("DELETE", "batches", "", 405, "method-unknown")]
    [InlineData("GET", "batches/x", "", 404, "not-there")]
    [InlineData("POST", "batches", "{", 400, "json-faulty")]
    [InlineData("POST", "batches", "{\"nam\":\"x\"}", 400, "json-faulty")]
    [InlineData("POST", "batches", "{\"name\":\"x\",\"name\":\"y\"}", 400, "json-faulty")]
    [InlineData("POST", "templates", "{\"name\":\"\\ud800\"}", 422, "template-faulty")]
    public async Task A_refusal_names_what_is_wrong(string method, string path, string body, int status, string code)
    {
        await using var service = await ServiceUnderTest.Start();
        using var request = new HttpRequestMessage(new HttpMethod(method), path) { Content = body.Length == 0 ? null : Json(body) };
        using var answer = await service.Http.SendAsync(request);
        var problem = JsonNode.Parse(await answer.Content.ReadAsStringAsync())!;
        Assert.Equal((status, code), ((int)answer.StatusCode, (string?)problem["code"]));
        Assert.EndsWith(".", (string?)problem["detail"], StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_declared_size_over_the_limit_is_refused_before_a_byte_is_read()
    {
        await using var service = await ServiceUnderTest.Start();
        var batch = await service.OpenBatch("November");
        var answer = await Raw(service, $"POST /api/v1/batches/{batch}/documents HTTP/1.1\r\nHost: localhost\r\nContent-Type: multipart/form-data; boundary=x\r\nContent-Length: 3000000000\r\nConnection: close\r\n\r\n");
        Assert.StartsWith("HTTP/1.1 413", answer, StringComparison.Ordinal);
        Assert.Contains("\"code\":\"upload-too-large\"", answer, StringComparison.Ordinal);
    }

    [Fact]
    public async Task Two_hundred_slow_connections_keep_nobody_waiting()
    {
        await using var service = await ServiceUnderTest.Start();
        var slow = new List<TcpClient>();
        try
        {
            for (var index = 0; index < 200; index++)
            {
                var client = new TcpClient();
                await client.ConnectAsync("127.0.0.1", new Uri(service.Address).Port);
                await client.GetStream().WriteAsync(Encoding.ASCII.GetBytes("POST /api/v1/batches HTTP/1.1\r\nHost: localhost\r\nContent-Type: application/json\r\nContent-Length: 50\r\n\r\n{\"na"));
                slow.Add(client);
            }
            Assert.Equal(1, await service.OpenBatch("Quick"));
        }
        finally
        {
            slow.ForEach(client => client.Dispose());
        }
    }

    private static string Filled(string path, string value) => System.Text.RegularExpressions.Regex.Replace(path, @"\{[^}]+\}", value);

    private static StringContent Json(string body) => new(body, new UTF8Encoding(false), "application/json");

    private static ByteArrayContent Typed(string body, string? type)
    {
        var content = new ByteArrayContent(Encoding.UTF8.GetBytes(body));
        if (type is not null)
            content.Headers.TryAddWithoutValidation("Content-Type", type);
        return content;
    }

    /// <summary>1 if the request was refused.</summary>
    private static async Task<int> Check(ServiceUnderTest service, HttpMethod method, string path, HttpContent? content)
    {
        using var request = new HttpRequestMessage(method, path) { Content = content };
        // Where a decision is asked for, it gets as far as its body.
        request.Headers.TryAddWithoutValidation("If-Match", "\"1\"");
        request.Headers.Add("Connection", "close");
        using var answer = await service.Http.SendAsync(request, HttpCompletionOption.ResponseHeadersRead);
        var (status, what) = ((int)answer.StatusCode, $"{method} {(path.Length > 90 ? path[..90] : path)} answers {(int)answer.StatusCode}");
        Assert.True(status < 500, $"{what}: {await answer.Content.ReadAsStringAsync()}");
        foreach (var header in new[] { "X-Content-Type-Options", "Referrer-Policy", "X-Frame-Options", "Content-Security-Policy" })
            Assert.True(answer.Headers.Contains(header), $"{what} without {header}");
        if (status < 400)
            return 0;
        Assert.True(answer.Content.Headers.ContentType is { MediaType: "application/problem+json" }, $"{what} as {answer.Content.Headers.ContentType}");
        var problem = JsonNode.Parse(await answer.Content.ReadAsStringAsync())!;
        Assert.True(((string?)problem["detail"])?.EndsWith('.') == true && ((string?)problem["code"])?.Length > 0, $"{what}: {problem.ToJsonString()}");
        Assert.DoesNotMatch("System\\.|Microsoft\\.|   at ", problem.ToJsonString());
        return 1;
    }

    private static async Task<string> Raw(ServiceUnderTest service, string request)
    {
        using var client = new TcpClient();
        await client.ConnectAsync("127.0.0.1", new Uri(service.Address).Port);
        await client.GetStream().WriteAsync(Encoding.ASCII.GetBytes(request));
        using var reader = new StreamReader(client.GetStream());
        return await reader.ReadToEndAsync().WaitAsync(TimeSpan.FromSeconds(30));
    }
}
