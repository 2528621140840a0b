using System.Net;
using System.Text.Json.Nodes;
using Daxlin.Service.People.Provider;
using Daxlin.Testing;

namespace Daxlin.Service.Tests;

/// <summary>People come by an identity provider, with the roles that its groups give; a provider that answers wrongly lets nobody in.</summary>
public class ProviderTests
{
    [Fact]
    public async Task Who_comes_by_the_provider_is_a_person_with_the_roles_of_its_groups()
    {
        using var provider = new IdentityProviderUnderTest();
        var (service, administrator) = await SignedIn.First(null, "--identity-provider", provider.Described());
        await using var _ = service;
        using var administrators = administrator;
        using var berta = new SignedIn(service);
        Assert.Equal("Kestrel accounts", (string?)(await berta.Get("session"))["provider"]);

        var (status, page) = await berta.ComeByProvider("/batches/3");
        Assert.Equal((200, true), (status, page.Contains("url=/batches/3\"", StringComparison.Ordinal)));
        Assert.Equal(("Berta Quill", "clerk"), ((string?)berta.Session["name"], (string?)berta.Session["roles"]!.AsArray().Single()));
        Assert.Equal(201, (await berta.Send(HttpMethod.Post, "batches", new JsonObject { ["name"] = "November" })).Status);

        // No password and no second factor of hers are kept here.
        Assert.Equal((false, false), ((bool)berta.Session["hasPassword"]!, (bool)berta.Session["hasSecondFactor"]!));
        foreach (var (method, path, body) in new[]
        {
            (HttpMethod.Put, "session/password", new JsonObject { ["old"] = "", ["new"] = SignedIn.Password }), (HttpMethod.Post, "session/second-factor", new JsonObject()),
            (HttpMethod.Put, "session/second-factor", new JsonObject { ["code"] = "123456" }), (HttpMethod.Post, "session/second-factor/end", new JsonObject { ["password"] = "" }),
        })
            Assert.Equal((409, "no-password"), await berta.Send(method, path, body) is var (not, said) ? (not, (string?)said["code"]) : default);

        // Another name and other groups: still the same person, since the subject is the same.
        (provider.Name, provider.Groups) = ("Berta Quill-Fenn", ["AP clerks", "AP approvers", "Choir"]);
        Assert.Equal(200, (await berta.ComeByProvider()).Status);
        Assert.Equal(("Berta Quill", "clerk approver"), ((string?)berta.Session["name"], Listed(berta.Session["roles"]!)));
        var person = (await administrator.Get("people")).AsArray().Single(one => (string?)one!["name"] == "Berta Quill")!;
        Assert.Equal((true, false), ((bool)person["isByProvider"]!, (bool)person["hasPassword"]!));

        // Who is in no group any more that gives a role loses what he had at once, his keys' rights too; and gets it back with the group.
        var key = await berta.MakeKey();
        provider.Groups = ["Choir"];
        using (var elsewhere = new SignedIn(service))
            Assert.Equal((403, true), await elsewhere.ComeByProvider() is var (out1, told) ? (out1, told.Contains("None of the groups of Berta Quill", StringComparison.Ordinal)) : default);
        Assert.Equal(401, (await berta.Send(HttpMethod.Get, "batches", null)).Status);
        using (var request = new HttpRequestMessage(HttpMethod.Get, "batches") { Headers = { Authorization = new("Bearer", key) } })
        using (var answer = await service.Http.SendAsync(request))
            Assert.Equal(HttpStatusCode.Forbidden, answer.StatusCode);
        // Without any role she can be disabled, and taken back.
        person = (await administrator.Get("people")).AsArray().Single(one => (string?)one!["name"] == "Berta Quill")!;
        Assert.Empty(person["roles"]!.AsArray());
        foreach (var isDisabled in new[] { true, false })
        {
            var (kept, now) = await administrator.Send(HttpMethod.Put, $"people/{person["id"]}", new JsonObject { ["roles"] = new JsonArray(), ["isDisabled"] = isDisabled }, (int)person["revision"]!);
            Assert.Equal((200, isDisabled), (kept, (bool)now["isDisabled"]!));
            person = now;
        }
        provider.Groups = ["AP clerks", "AP approvers"];
        Assert.Equal(200, (await berta.ComeByProvider()).Status);
        person = (await administrator.Get("people")).AsArray().Single(one => (string?)one!["name"] == "Berta Quill")!;

        // Roles are the provider's to give; to disable someone is an administrator's, and counts at once and for good.
        var change = new JsonObject { ["roles"] = new JsonArray("clerk", "approver", "administrator"), ["isDisabled"] = false };
        var (refusedWith, refused) = await administrator.Send(HttpMethod.Put, $"people/{person["id"]}", change, (int)person["revision"]!);
        Assert.Equal((409, "roles-by-provider"), (refusedWith, (string?)refused["code"]));
        (change["roles"], change["isDisabled"]) = (new JsonArray("clerk", "approver"), true);
        Assert.Equal(200, (await administrator.Send(HttpMethod.Put, $"people/{person["id"]}", change, (int)person["revision"]!)).Status);
        Assert.Equal(401, (await berta.Send(HttpMethod.Get, "batches", null)).Status);
        (status, page) = await berta.ComeByProvider();
        Assert.Equal((403, true, false), (status, page.Contains("Berta Quill may not use Daxlin any more. An administrator can change that.", StringComparison.Ordinal), (bool)berta.Session["isSignedIn"]!));

        var history = (await administrator.Get($"history?person={person["id"]}")).AsArray();
        Assert.Equal(
            "personAdded signedIn personChanged signedIn keyMade personChanged signInRefused keyUsed refused personChanged personChanged personChanged signedIn personChanged signInRefused",
            string.Join(' ', history.OrderBy(entry => (int)entry!["id"]!).Select(entry => (string?)entry!["act"])));
        Assert.Contains(history, entry => (string?)entry!["before"] == "clerk" && (string?)entry["after"] == "clerk, approver");
        Assert.Contains(history, entry => ((string)entry!["what"]!).StartsWith("signed in by Kestrel accounts from", StringComparison.Ordinal));
    }

    [Fact]
    public async Task A_provider_that_answers_wrongly_lets_nobody_in()
    {
        using var provider = new IdentityProviderUnderTest();
        var (service, administrator) = await SignedIn.First(null, "--identity-provider", provider.Described());
        await using var _ = service;
        using var administrators = administrator;
        foreach (var fault in new[] { "other key", "unsigned", "other issuer", "other audience", "other nonce", "expired", "other state", "other subject", "denied" })
        {
            using var browser = new SignedIn(service);
            provider.Fault = fault;
            var (status, page) = await browser.ComeByProvider();
            Assert.True(status == 403 && !(bool)browser.Session["isSignedIn"]!, $"{fault}: {status} {page}");
            Assert.Contains(fault == "denied" ? "Kestrel accounts did not let you in." : "The answer of Kestrel accounts does not fit what was asked", page, StringComparison.Ordinal);
            Assert.DoesNotContain("refresh", page, StringComparison.Ordinal);
        }
        provider.Fault = "";

        // An answer is good for the browser that asked, and once.
        using var asked = new SignedIn(service);
        Assert.Equal(200, (await asked.ComeByProvider()).Status);
        Assert.True(provider.SentBackTo.TryPeek(out var first));
        foreach (var back in new[] { first, provider.SentBackTo.Last() })
        {
            using var thief = new SignedIn(service);
            using var answer = await thief.Http.GetAsync(back);
            Assert.Equal((HttpStatusCode.Forbidden, false), (answer.StatusCode, (bool)(await thief.Get("session"))["isSignedIn"]!));
            using var again = await asked.Http.GetAsync(back);
            Assert.Equal(HttpStatusCode.Forbidden, again.StatusCode);
        }

        (provider.Subject, provider.Name, provider.Groups) = ("subject-2", "Cato Fenn", ["Choir"]);
        using var cato = new SignedIn(service);
        var (refused, said) = await cato.ComeByProvider();
        Assert.Equal((403, true), (refused, said.Contains("None of the groups of Cato Fenn at Kestrel accounts gives a role in Daxlin; those that do are AP approvers, AP clerks, IT.", StringComparison.Ordinal)));
        Assert.DoesNotContain((await administrator.Get("people")).AsArray(), person => (string?)person!["name"] == "Cato Fenn");
    }

    [Fact]
    public async Task A_name_that_someone_has_here_is_that_person_only_where_the_file_says_so()
    {
        using var provider = new IdentityProviderUnderTest { Name = SignedIn.AdministratorsName, Groups = ["AP approvers"] };
        var (service, administrator) = await SignedIn.First(null, "--identity-provider", provider.Described());
        using var administrators = administrator;
        using var stranger = new SignedIn(service);
        var (status, page) = await stranger.ComeByProvider();
        Assert.Equal((403, true), (status, page.Contains("There is a person “Ada Wrenfield” in Daxlin already, and whether it is you is not known.", StringComparison.Ordinal) || page.Contains("There is a person &#x201C;Ada Wrenfield&#x201D; in Daxlin already", StringComparison.Ordinal)));
        await service.Terminate();

        await using var tying = await ServiceUnderTest.Start(service.Data, signsIn: true, arguments: ["--identity-provider", provider.Described(tiesNames: true)]);
        using var ada = new SignedIn(tying);
        // The groups would take the only administrator away.
        Assert.Equal((403, true), await ada.ComeByProvider() is var (kept, why) ? (kept, why.Contains("the only administrator who can sign in. Another has to become one first.", StringComparison.Ordinal)) : default);
        Assert.Equal(200, (await ada.SignIn(SignedIn.AdministratorsName)).Status);
        Assert.Equal("approver administrator", Listed(ada.Session["roles"]!));
        provider.Groups = ["AP clerks", "IT"];
        Assert.Equal(200, (await ada.ComeByProvider()).Status);
        Assert.Equal((SignedIn.AdministratorsName, "clerk administrator"), ((string?)ada.Session["name"], Listed(ada.Session["roles"]!)));
        // Whoever else is called so at the provider is someone else.
        provider.Subject = "subject-9";
        using var other = new SignedIn(tying);
        Assert.Equal(403, (await other.ComeByProvider()).Status);
    }

    [Fact]
    public async Task Nobody_is_sent_on_to_another_site()
    {
        using var provider = new IdentityProviderUnderTest();
        await using var service = await ServiceUnderTest.Start(signsIn: true, arguments: ["--identity-provider", provider.Described()]);
        foreach (var to in new[] { "https://elsewhere.example/", "//elsewhere.example", "/\\elsewhere.example", "/sign-in/provider", "" })
        {
            using var browser = new SignedIn(service);
            var (status, page) = await browser.ComeByProvider(to);
            Assert.Equal((200, true, false), (status, page.Contains("url=/\"", StringComparison.Ordinal), page.Contains("elsewhere", StringComparison.Ordinal)));
        }
        // Of what other sites' pages ask for, only links are let through, and nothing of the interface.
        foreach (var (path, mode, isForeign) in new[] { ("/sign-in/provider/back?code=1&state=2", "navigate", false), ("/api/v1/session", "navigate", true), ("/sign-in/provider", "no-cors", true) })
        {
            using var request = new HttpRequestMessage(HttpMethod.Get, new Uri(new Uri(service.Address), path));
            foreach (var (name, value) in new[] { ("Sec-Fetch-Site", "cross-site"), ("Sec-Fetch-Mode", mode), ("Sec-Fetch-Dest", "document") })
                request.Headers.Add(name, value);
            using var answer = await service.Http.SendAsync(request);
            Assert.Equal((HttpStatusCode.Forbidden, isForeign), (answer.StatusCode, (await answer.Content.ReadAsStringAsync()).Contains("origin-refused", StringComparison.Ordinal)));
        }
    }

    [Theory]
    [InlineData("""{ "name": "A", "authority": "http://id.example", "clientId": "d", "roles": { "G": ["clerk"] } }""", "the authority “http://id.example” is no address that begins with https://.")]
    [InlineData("""{ "name": "A", "authority": "https://id.example", "clientId": "d", "roles": { "G": ["chief"] } }""", "the group “G” gives “chief”; there are the roles clerk, approver, administrator and auditor.")]
    [InlineData("""{ "name": "A", "authority": "https://id.example", "clientId": "d", "roles": {} }""", "no group gives a role, so nobody could sign in.")]
    [InlineData("""{ "name": "A", "authority": "https://id.example", "clientId": "d", "roles": { "G": ["clerk"] }, "role": 1 }""", "at $.role the file is not as docs/PEOPLE.md shows it.")]
    [InlineData("""{ "name": "A" }""", "the file is not as docs/PEOPLE.md shows it.")]
    public void A_file_that_says_what_cannot_be_ends_the_start(string file, string said)
    {
        var path = Path.GetTempFileName();
        File.WriteAllText(path, file);
        Assert.Equal($"The identity provider of {path} cannot be used: {said}", Assert.Throws<SettingsException>(() => IdentityProvider.Read(path)).Message);
        File.Delete(path);
        Assert.Equal($"The file {path} cannot be read.", Assert.Throws<SettingsException>(() => ServiceSettings.Parse(["--identity-provider", path])).Message);
    }

    private static string Listed(JsonNode words) => string.Join(' ', words.AsArray().Select(word => (string?)word));
}
