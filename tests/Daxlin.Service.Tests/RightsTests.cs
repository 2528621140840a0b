using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Daxlin.Core.People;
using Daxlin.Testing;

namespace Daxlin.Service.Tests;

/// <summary>Every endpoint of the OpenAPI document × who asks: a new endpoint cannot be forgotten.</summary>
public partial class RightsTests
{
    private static readonly string[] Known = [.. Enum.GetValues<Right>().Select(Roles.Word)];

    [Fact]
    public async Task Each_endpoint_takes_those_with_its_right_and_refuses_all_others()
    {
        var (service, administrator) = await SignedIn.First();
        await using var _ = service;
        using var administrators = administrator;
        var keys = new Dictionary<Role, string>();
        foreach (var role in Enum.GetValues<Role>())
        {
            using var person = await administrator.Add(service, $"The {Roles.Word(role)}", Roles.Word(role));
            keys[role] = await person.MakeKey();
        }
        var (asked, refused) = (0, 0);
        foreach (var (path, methods) in (await service.Get("openapi.json"))["paths"]!.AsObject())
        {
            foreach (var (method, operation) in methods!.AsObject())
            {
                var right = (string)operation!["x-right"]!;
                Assert.True(right is "anyone" or "nobody" || Known.Contains(right), $"{method} {path} has the right “{right}”");
                if (method != "get")
                    Assert.True(right != "see", $"{method} {path} changes something, and needs no more than a look");
                foreach (var role in Enum.GetValues<Role>().Cast<Role?>().Append(null))
                {
                    var (status, problem) = await Ask(service, path, method, operation, role is null ? null : keys[role.Value]);
                    var mayDo = right == "nobody" || (role is not null && (right == "anyone" || Roles.RightsOf([role.Value]).Contains(Roles.FindRight(right)!.Value)));
                    var told = $"{method} {path} ({right}), asked by {(role is null ? "nobody" : Roles.Word(role.Value))}: {status} {problem}";
                    asked++;
                    if (mayDo)
                    {
                        Assert.True((string?)problem?["code"] is not ("sign-in-needed" or "right-missing"), told);
                        Assert.True(status < 500, told);
                        continue;
                    }
                    refused++;
                    Assert.True(status == (role is null ? 401 : 403), told);
                    Assert.True((string?)problem?["code"] == (role is null ? "sign-in-needed" : "right-missing"), told);
                    if (role is not null)
                        Assert.Matches($"^The {Roles.Word(role.Value)} may not .*; that is for {Roles.WhoCan(Roles.FindRight(right)!.Value)}\\. Those who can: .*\\.$", (string?)problem!["detail"]);
                }
            }
        }
        Assert.True(asked >= 500 && refused >= 200, $"only {asked} requests were made, and {refused} refused");
        // Nothing that was refused came to be, and each refusal of someone who is known is told.
        var history = await administrator.Get("history?limit=1000");
        Assert.Contains(history.AsArray(), entry => (string?)entry!["act"] == "refused" && (string?)entry["by"] == "The auditor" && ((string?)entry["what"])!.StartsWith("was refused: POST /api/v1/batches", StringComparison.Ordinal));
        Assert.DoesNotContain(history.AsArray(), entry => (string?)entry!["by"] == "The auditor" && (string?)entry["act"] is not ("refused" or "signedIn" or "passwordSet" or "keyMade" or "keyUsed" or "keyRevoked"));
    }

    [Fact]
    public async Task What_lies_outside_of_ones_groups_is_not_there()
    {
        var before = await ServiceUnderTest.Start();
        await before.SaveTemplates(Repository.Samples);
        foreach (var (name, vendor) in new[] { ("Engines", "brinewood-chandlery"), ("Galley", "port-ellery-galley") })
        {
            var batch = await before.OpenBatch(name);
            await before.Upload(batch, Repository.SampleInvoices(vendor).Take(2));
            await before.UntilDone(batch);
        }
        var mixed = await before.OpenBatch("Mixed");
        await before.Upload(mixed, [Repository.SampleInvoices("brinewood-chandlery").ElementAt(2), Repository.SampleInvoices("port-ellery-galley").ElementAt(2)]);
        await before.UntilDone(mixed);
        await before.Terminate();
        var (service, administrator) = await SignedIn.First(before.Data);
        await using var _ = service;
        using var held = await administrator.Add(service, "Berta Quill", "approver", "Galley");
        Assert.Empty((await held.Get("batches")).AsArray());
        Assert.Empty((await held.Get("review")).AsArray());

        var batches = (await administrator.Get("batches")).AsArray().ToDictionary(batch => (string)batch!["name"]!, batch => (int)batch!["id"]!);
        Assert.Equal(200, (await administrator.Send(HttpMethod.Put, $"batches/{batches["Galley"]}/group", new JsonObject { ["group"] = "Galley" }, 1)).Status);
        Assert.Equal((403, "right-missing"), (await held.Send(HttpMethod.Put, $"batches/{batches["Galley"]}/group", new JsonObject { ["group"] = "" }, 2)) is var (status, refused) ? (status, (string?)refused["code"]) : default);
        Assert.Equal("Galley", (string?)Assert.Single((await held.Get("batches")).AsArray())!["name"]);
        // A vendor of the group brings its invoices within reach, whichever batch they came with.
        var galley = (await administrator.Get("vendors")).AsArray().Single(vendor => ((string)vendor!["name"]!).Contains("Galley", StringComparison.Ordinal));
        Assert.Equal(200, (await administrator.Send(HttpMethod.Put, $"vendors/{galley!["id"]}/group", new JsonObject { ["group"] = "Galley" }, (int)galley["revision"]!)).Status);

        var all = new List<JsonNode>();
        foreach (var batch in batches.Values)
            all.AddRange((await administrator.Get($"batches/{batch}/invoices")).AsArray().Select(one => one!));
        var (mine, others) = (all.FindAll(one => (string?)one["vendor"] == (string?)galley["name"]), all.FindAll(one => (string?)one["vendor"] != (string?)galley["name"]));
        Assert.Equal((3, 3), (mine.Count, others.Count));
        foreach (var own in mine)
            Assert.Equal(200, (await held.Send(HttpMethod.Get, $"invoices/{own["id"]}", null)).Status);
        var seen = new HashSet<int>();
        foreach (var (path, methods) in (await service.Get("openapi.json"))["paths"]!.AsObject())
        {
            foreach (var (method, operation) in methods!.AsObject().Where(one => one.Value!["x-right"]!.GetValue<string>() is "see" or "work" or "approve" or "post"))
            {
                // Every address of an invoice, a batch or a document that is another's answers as if it were not there.
                var addressed = path.Contains("/invoices/{id}", StringComparison.Ordinal) ? others.Select(one => $"{one["id"]}")
                    : path.Contains("/batches/{id}", StringComparison.Ordinal) ? [$"{batches["Engines"]}", $"{batches["Mixed"]}"]
                    : path.Contains("{sha256}", StringComparison.Ordinal) ? await Documents(administrator, others) : [];
                foreach (var id in addressed)
                {
                    using var request = new HttpRequestMessage(new HttpMethod(method.ToUpperInvariant()), Placeholder().Replace(path["/api/v1/".Length..], id)) { Content = method == "get" ? null : JsonContent.Create(new JsonObject()) };
                    request.Headers.Add("Daxlin-Form", (string)held.Session["formToken"]!);
                    request.Headers.Add("If-Match", "\"1\"");
                    using var answer = await held.Http.SendAsync(request, HttpCompletionOption.ResponseHeadersRead);
                    var body = await answer.Content.ReadAsStringAsync();
                    // A batch of several groups is shown as far as one's own vendors' invoices are in it.
                    var isInPart = method == "get" && id == $"{batches["Mixed"]}" && InPart.Contains(path["/api/v1/batches/{id}".Length..]);
                    Assert.True(isInPart ? answer.IsSuccessStatusCode && !IsTold(body, others) : (int)answer.StatusCode is 404 or 415, $"{method} {path} of {id}: {answer.StatusCode} {body}");
                    seen.Add(HashCode.Combine(path, method));
                }
                // What goes over all of them tells of none.
                if (method == "get" && !path.Contains('{', StringComparison.Ordinal))
                {
                    using var told = await held.Http.GetAsync(path["/api/v1/".Length..]);
                    var text = await told.Content.ReadAsStringAsync();
                    Assert.False(IsTold(text, others), $"{path} tells of what is others'");
                }
            }
        }
        Assert.True(seen.Count >= 20, $"only {seen.Count} addresses name an invoice, a batch or a document");
        Assert.Equal(403, (await held.Send(HttpMethod.Post, "posting-runs", new JsonObject { ["allBatches"] = true })).Status);
        Assert.Equal(404, (await held.Send(HttpMethod.Post, "posting-runs", new JsonObject { ["batch"] = batches["Engines"] })).Status);
        Assert.Equal(409, (await held.Send(HttpMethod.Post, "batches", new JsonObject { ["name"] = "Engines" })).Status);
        Assert.Equal("Galley", (string?)(await held.Send(HttpMethod.Post, "batches", new JsonObject { ["name"] = "December" })).Body["group"]);

        // An act of one who is held still sees what it must not repeat.
        var own1 = mine[0];
        Assert.Equal(200, (await held.Send(HttpMethod.Post, $"invoices/{own1["id"]}/approval", new JsonObject { ["despite"] = "Looked at by hand." }, (int)own1["revision"]!)).Status);
    }

    private static readonly string[] InPart = ["", "/invoices", "/documents", "/table"];

    private static bool IsTold(string text, List<JsonNode> invoices) =>
        invoices.Exists(one => text.Contains((string)one["invoiceNumber"]!, StringComparison.Ordinal) || text.Contains((string)one["file"]!, StringComparison.Ordinal));

    private static async Task<List<string>> Documents(SignedIn asked, List<JsonNode> invoices)
    {
        var documents = new List<string>();
        foreach (var invoice in invoices)
            documents.Add((string)(await asked.Get($"invoices/{invoice["id"]}"))["document"]!["sha256"]!);
        return documents;
    }

    /// <summary>A request that would be well formed enough to be looked at, for things that are not there.</summary>
    private static async Task<(int Status, JsonNode? Problem)> Ask(ServiceUnderTest service, string path, string method, JsonNode operation, string? key)
    {
        using var request = new HttpRequestMessage(new HttpMethod(method.ToUpperInvariant()), service.Address + Placeholder().Replace(path, match => match.Value is "{name}" or "{key}" or "{sha256}" ? "nothing" : "999999"));
        if (operation["requestBody"]?["content"]?.AsObject().First().Key is { } type)
            request.Content = type == "application/json" ? JsonContent.Create(new JsonObject()) : new StringContent("x", MediaTypeHeaderValue.Parse(type == "multipart/form-data" ? type + "; boundary=x" : type));
        if (key is not null)
            request.Headers.Authorization = new AuthenticationHeaderValue("Bearer", key);
        using var answer = await service.Http.SendAsync(request, HttpCompletionOption.ResponseHeadersRead);
        var isProblem = answer.Content.Headers.ContentType?.MediaType == "application/problem+json";
        return ((int)answer.StatusCode, isProblem ? JsonNode.Parse(await answer.Content.ReadAsStringAsync()) : null);
    }

    [GeneratedRegex(@"\{[^}]*\}")]
    private static partial Regex Placeholder();
}
