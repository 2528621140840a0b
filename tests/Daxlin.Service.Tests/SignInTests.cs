using System.Buffers.Binary;
using System.Globalization;
using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Security.Cryptography;
using System.Text.Json.Nodes;
using Daxlin.Testing;

namespace Daxlin.Service.Tests;

/// <summary>Who may sign in, how, and what of it ends when.</summary>
public class SignInTests
{
    private const string Wrong = "three gulls on a mast";

    [Fact]
    public async Task The_first_administrator_begins_with_a_link_that_works_once()
    {
        await using var service = await ServiceUnderTest.Start(signsIn: true);
        var link = await service.PrintedLink();
        using var browser = new SignedIn(service);
        Assert.False((bool)(await browser.Get("session"))["isSignedIn"]!);
        Assert.Equal(401, (await browser.Send(HttpMethod.Get, "batches", null)).Status);

        var (looked, whose) = await browser.Send(HttpMethod.Post, "welcome/look", new JsonObject { ["link"] = link });
        Assert.Equal((200, true), (looked, (bool)whose["choosesName"]!));
        foreach (var (name, password, said) in new[]
        {
            ("", SignedIn.Password, "A person needs a name."),
            ("Daxlin", SignedIn.Password, "“Daxlin” stands in the history for what the service does by itself."),
            ("Ada", "four gulls", "A password has 12 characters at least; this one has 10. A sentence of some words is easy to keep in mind."),
            ("Ada", "abcdefghijklmnop", "The password is one run of the alphabet, of figures or of a keyboard's row, which is guessed first."),
            ("Ada", "aaaaaaaaaaaabb", "The password is made of 2 different characters; it needs 5 at least."),
            ("Ada", "adaadaadaada with more", "The password holds the name that it belongs to."),
        })
        {
            var (status, problem) = await browser.Send(HttpMethod.Post, "welcome", new JsonObject { ["link"] = link, ["name"] = name, ["password"] = password });
            Assert.Equal((422, said), (status, (string?)problem["detail"]));
        }
        await browser.Follow(link, SignedIn.AdministratorsName);
        Assert.Equal("administrator approver", string.Join(' ', browser.Session["roles"]!.AsArray().Select(role => (string)role!).Order()));
        Assert.Equal(200, (await browser.Send(HttpMethod.Get, "batches", null)).Status);

        using var late = new SignedIn(service);
        foreach (var spent in new[] { link, "1-" + new string('0', 64), "1", "", "x-y-z" })
            Assert.Equal((401, "link-spent"), Code(await late.Send(HttpMethod.Post, "welcome", new JsonObject { ["link"] = spent, ["name"] = "Someone", ["password"] = SignedIn.Password })));
    }

    [Fact]
    public async Task Wrong_names_and_wrong_passwords_are_answered_alike_and_too_many_lock_the_name()
    {
        var (service, administrator) = await SignedIn.First();
        await using var _ = service;
        using var clerk = await administrator.Add(service, "Berta Quill", "clerk");
        using var stranger = new SignedIn(service);
        var told = new HashSet<string>();
        foreach (var (name, password) in new[] { ("Berta Quill", Wrong), ("Nobody Known", Wrong), ("Nobody Known", SignedIn.Password), ("", ""), ("berta quill", Wrong), ("Berta Quill", ""), ("Berta Quill", Wrong), ("Berta Quill", Wrong) })
        {
            var (status, problem) = await stranger.SignIn(name, password);
            Assert.Equal((401, "sign-in-refused"), Code((status, problem)));
            told.Add(problem.ToJsonString());
        }
        // Locked now: the right password is answered like a wrong one, and gives nothing away.
        told.Add((await stranger.SignIn("Berta Quill")).Body.ToJsonString());
        Assert.Single(told);
        Assert.Contains("after 5 wrong tries in a row nobody gets in by it for 10 minutes", told.Single(), StringComparison.Ordinal);
        Assert.True((bool)(await Person(administrator, "Berta Quill"))["isLocked"]!);
        // Who is in already goes on to work.
        Assert.Equal(200, (await clerk.Send(HttpMethod.Get, "batches", null)).Status);

        await Change(service, "UPDATE \"People\" SET \"LockoutEnd\" = '2026-01-01 00:00:00+00:00'");
        Assert.Equal(200, (await stranger.SignIn("berta  quill ")).Status);
        Assert.Equal("Berta Quill", (string?)stranger.Session["name"]);
        Assert.Equal(3, (await administrator.Get("history?act=signInRefused")).AsArray().Count(entry => (string?)entry!["stream"] == "sign-ins"));
        var acts = await Acts(administrator, (int)(await Person(administrator, "Berta Quill"))["id"]!);
        Assert.Equal("personAdded passwordSet signedIn signInRefused signInRefused signInRefused signInRefused signInRefused locked signInRefused signedIn", acts);
        using var verified = await service.Http.SendAsync(WithKey(HttpMethod.Get, "history/verify", await administrator.MakeKey()));
        Assert.True((bool)JsonNode.Parse(await verified.Content.ReadAsStringAsync())!["isWhole"]!);
    }

    [Fact]
    public async Task Who_tries_again_and_again_from_one_address_has_to_wait()
    {
        var (service, administrator) = await SignedIn.First();
        await using var _ = service;
        using var administrators = administrator;
        using var stranger = new SignedIn(service);
        var last = (Status: 401, Body: (JsonNode)new JsonObject());
        // Twice as many as a minute takes, since one can end meanwhile.
        for (var tries = 0; tries < 62 && last.Status == 401; tries++)
            last = await stranger.SignIn("Nobody Known", Wrong);
        Assert.Equal((429, "too-many-tries"), Code(last));
        Assert.Equal("More than 30 tries in a minute came from this address. Wait a minute.", (string?)last.Body["detail"]);
        // Who is in already is not kept from working.
        Assert.Equal(200, (await administrator.Send(HttpMethod.Get, "batches", null)).Status);
    }

    [Fact]
    public async Task One_sees_ones_own_sign_ins_and_ends_what_one_does_not_know()
    {
        var (service, administrator) = await SignedIn.First();
        await using var _ = service;
        using var clerk = await administrator.Add(service, "Berta Quill", "clerk");
        using var elsewhere = new SignedIn(service);
        await elsewhere.SignIn("Berta Quill");
        var own = (await clerk.Get("session/sign-ins")).AsArray();
        Assert.Equal([false, true], own.Select(one => (bool)one!["isThis"]!));
        Assert.All(own, one => Assert.Equal("127.0.0.1", (string?)one!["from"]));
        // Another's is not there, and neither is one that has ended.
        Assert.Equal(404, (await administrator.Send(HttpMethod.Post, $"session/sign-ins/{own[0]!["name"]}/end", null)).Status);
        Assert.Equal(204, (await clerk.Send(HttpMethod.Post, $"session/sign-ins/{own[0]!["name"]}/end", null)).Status);
        Assert.Equal(404, (await clerk.Send(HttpMethod.Post, $"session/sign-ins/{own[0]!["name"]}/end", null)).Status);
        Assert.Equal((401, 200), ((await elsewhere.Send(HttpMethod.Get, "batches", null)).Status, (await clerk.Send(HttpMethod.Get, "batches", null)).Status));
        Assert.Single((await clerk.Get("session/sign-ins")).AsArray());
        Assert.EndsWith("signedOut", await Acts(administrator, (int)(await Person(administrator, "Berta Quill"))["id"]!), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_second_factor_asks_for_a_new_code_each_time()
    {
        var (service, administrator) = await SignedIn.First();
        await using var _ = service;
        var (begun, factor) = await administrator.Send(HttpMethod.Post, "session/second-factor", new JsonObject());
        Assert.Equal(200, begun);
        Assert.StartsWith("otpauth://totp/Daxlin:Ada%20Wrenfield?secret=", (string?)factor["uri"], StringComparison.Ordinal);
        var secret = (string)factor["secret"]!;
        using var other = new SignedIn(service);
        // Nothing holds until a code was shown.
        Assert.Equal(200, (await other.SignIn(SignedIn.AdministratorsName)).Status);
        Assert.Equal((422, "code-refused"), Code(await administrator.Send(HttpMethod.Put, "session/second-factor", new JsonObject { ["code"] = "000" })));
        Assert.Equal(204, (await administrator.Send(HttpMethod.Put, "session/second-factor", new JsonObject { ["code"] = CodeOf(secret, 0) })).Status);

        using var stranger = new SignedIn(service);
        Assert.Equal((401, "code-needed"), Code(await stranger.SignIn(SignedIn.AdministratorsName)));
        Assert.Equal((401, "sign-in-refused"), Code(await stranger.SignIn(SignedIn.AdministratorsName, Wrong, CodeOf(secret, 1))));
        Assert.Equal((401, "code-refused"), Code(await stranger.SignIn(SignedIn.AdministratorsName, code: CodeOf(secret, 40))));
        var code = CodeOf(secret, 1);
        Assert.Equal(200, (await stranger.SignIn(SignedIn.AdministratorsName, code: code[..3] + " " + code[3..])).Status);
        Assert.Equal((401, "code-refused"), Code(await stranger.SignIn(SignedIn.AdministratorsName, code: code)));
        Assert.Equal((422, "password-wrong"), Code(await administrator.Send(HttpMethod.Post, "session/second-factor/end", new JsonObject { ["password"] = Wrong })));
        Assert.Equal(204, (await administrator.Send(HttpMethod.Post, "session/second-factor/end", new JsonObject { ["password"] = SignedIn.Password })).Status);
        Assert.Equal(200, (await stranger.SignIn(SignedIn.AdministratorsName)).Status);
    }

    [Fact]
    public async Task A_sign_in_is_new_each_time_and_worth_nothing_once_it_ended()
    {
        var (service, administrator) = await SignedIn.First();
        await using var _ = service;
        using var clerk = await administrator.Add(service, "Berta Quill", "clerk");
        var cookie = Assert.Single(clerk.Cookies.GetCookies(clerk.Address), one => one.Name == "daxlin-sign-in");
        Assert.True(cookie.HttpOnly);
        // A cookie that was there before the sign-in is not the one after it.
        Assert.Equal(200, (await clerk.SignIn("Berta Quill")).Status);
        var after = clerk.Cookies.GetCookies(clerk.Address)["daxlin-sign-in"]!.Value;
        Assert.NotEqual(cookie.Value, after);

        // Without the form token nothing is changed by a cookie, and a token of another does not help.
        using (var bare = new HttpRequestMessage(HttpMethod.Post, "batches") { Content = JsonContent.Create(new JsonObject { ["name"] = "Forged" }) })
        {
            bare.Headers.Add("Daxlin-Form", (string)administrator.Session["formToken"]!);
            using var refused = await clerk.Http.SendAsync(bare);
            Assert.Equal((403, "form-token-missing"), Code(((int)refused.StatusCode, JsonNode.Parse(await refused.Content.ReadAsStringAsync())!)));
        }
        Assert.Equal(201, (await clerk.Send(HttpMethod.Post, "batches", new JsonObject { ["name"] = "November" })).Status);

        using var thief = new SignedIn(service);
        thief.Cookies.Add(clerk.Address, new Cookie("daxlin-sign-in", after));
        Assert.Equal(200, (await thief.Send(HttpMethod.Get, "batches", null)).Status);
        Assert.Equal(204, (await clerk.Send(HttpMethod.Delete, "session", null)).Status);
        Assert.Equal((401, "sign-in-needed"), Code(await thief.Send(HttpMethod.Get, "batches", null)));
        thief.Cookies.Add(clerk.Address, new Cookie("daxlin-sign-in", after[..^4] + "AAAA"));
        Assert.Equal((401, "sign-in-needed"), Code(await thief.Send(HttpMethod.Get, "batches", null)));
    }

    [Fact]
    public async Task A_new_password_ends_all_other_sign_ins_and_a_disabled_person_is_out_at_once()
    {
        var (service, administrator) = await SignedIn.First();
        await using var _ = service;
        using var clerk = await administrator.Add(service, "Berta Quill", "clerk");
        var key = await clerk.MakeKey();
        using var elsewhere = new SignedIn(service);
        await elsewhere.SignIn("Berta Quill");
        Assert.Equal((422, "password-wrong"), Code(await clerk.Send(HttpMethod.Put, "session/password", new JsonObject { ["old"] = Wrong, ["new"] = Wrong })));
        Assert.Equal(204, (await clerk.Send(HttpMethod.Put, "session/password", new JsonObject { ["old"] = SignedIn.Password, ["new"] = Wrong })).Status);
        Assert.Equal(200, (await clerk.Send(HttpMethod.Get, "batches", null)).Status);
        Assert.Equal(401, (await elsewhere.Send(HttpMethod.Get, "batches", null)).Status);
        Assert.Equal(401, (await elsewhere.SignIn("Berta Quill")).Status);
        Assert.Equal(200, (await elsewhere.SignIn("Berta Quill", Wrong)).Status);

        var person = await Person(administrator, "Berta Quill");
        var path = $"people/{person["id"]}";
        // Rights that change hold at once: an auditor changes nothing.
        var (changed, auditor) = await administrator.Send(HttpMethod.Put, path, Rights("auditor"), (int)person["revision"]!);
        Assert.Equal(200, changed);
        Assert.Equal((403, "right-missing"), Code(await clerk.Send(HttpMethod.Post, "batches", new JsonObject { ["name"] = "December" })));
        Assert.Equal(412, (await administrator.Send(HttpMethod.Put, path, Rights("clerk"), (int)person["revision"]!)).Status);
        Assert.Equal(200, (await administrator.Send(HttpMethod.Put, path, Rights("clerk", isDisabled: true), (int)auditor["revision"]!)).Status);
        Assert.Equal(401, (await clerk.Send(HttpMethod.Get, "batches", null)).Status);
        Assert.Equal(401, (await clerk.SignIn("Berta Quill", Wrong)).Status);
        using var byKey = await service.Http.SendAsync(WithKey(HttpMethod.Get, "batches", key));
        Assert.Equal(HttpStatusCode.Unauthorized, byKey.StatusCode);
        Assert.StartsWith("The access key's owner may not use Daxlin any more.", (string?)JsonNode.Parse(await byKey.Content.ReadAsStringAsync())!["detail"], StringComparison.Ordinal);

        // Someone must be left to look after people.
        var own = await Person(administrator, SignedIn.AdministratorsName);
        Assert.Equal((409, "last-administrator"), Code(await administrator.Send(HttpMethod.Put, $"people/{own["id"]}", Rights("approver"), (int)own["revision"]!)));
    }

    [Fact]
    public async Task A_key_does_what_it_was_made_for_until_it_ends()
    {
        var (service, administrator) = await SignedIn.First();
        await using var _ = service;
        using var clerk = await administrator.Add(service, "Berta Quill", "clerk");
        var key = await clerk.MakeKey("post");
        Assert.Matches("^daxlin_[0-9a-f]{64}$", key);
        if (!StoreUnderTest.IsServer)
            Assert.DoesNotContain(key, await File.ReadAllTextAsync(Path.Combine(service.Data, "daxlin.db"), System.Text.Encoding.Latin1), StringComparison.Ordinal);
        Assert.Equal((422, "right-missing"), Code(await clerk.Send(HttpMethod.Post, "access-keys", new JsonObject { ["name"] = "too much", ["rights"] = new JsonArray("approve") })));
        async Task<(int Status, JsonNode Body)> Ask(HttpMethod method, string path, string shown, JsonObject? body = null)
        {
            using var request = WithKey(method, path, shown);
            request.Content = body is null ? null : JsonContent.Create(body);
            using var answer = await service.Http.SendAsync(request);
            return ((int)answer.StatusCode, JsonNode.Parse(await answer.Content.ReadAsStringAsync())!);
        }

        Assert.Equal(200, (await Ask(HttpMethod.Get, "batches", key)).Status);
        Assert.Equal((409, "nothing-to-post"), Code(await Ask(HttpMethod.Post, "posting-runs", key, new JsonObject { ["allBatches"] = true })));
        var (status, problem) = await Ask(HttpMethod.Post, "batches", key, new JsonObject { ["name"] = "November" });
        Assert.Equal((403, "The access key “nightly” may not take in, correct or prepare anything: it was made without the right “work”, which Berta Quill has."), (status, (string?)problem["detail"]));
        Assert.Equal((409, "key-by-key"), Code(await Ask(HttpMethod.Post, "access-keys", key, new JsonObject { ["name"] = "another" })));

        // A key in an address is in logs and histories of browsers: it opens nothing.
        foreach (var query in new[] { "access_token", "key", "authorization" })
        {
            using var answer = await service.Http.GetAsync($"batches?{query}={key}");
            Assert.Equal(HttpStatusCode.Unauthorized, answer.StatusCode);
        }
        Assert.Equal(401, (await Ask(HttpMethod.Get, "batches", key[..^1] + (key[^1] == '0' ? '1' : '0'))).Status);

        var record = Assert.Single((await clerk.Get("access-keys")).AsArray());
        Assert.NotNull(record!["lastUsedAt"]);
        await Change(service, "UPDATE \"AccessKeys\" SET \"ExpiresAt\" = '2026-01-01 00:00:00'");
        Assert.StartsWith("The access key has expired.", (string?)(await Ask(HttpMethod.Get, "batches", key)).Body["detail"], StringComparison.Ordinal);
        await Change(service, "UPDATE \"AccessKeys\" SET \"ExpiresAt\" = '2999-01-01 00:00:00'");
        using var approver = await administrator.Add(service, "Cato Fenn", "approver");
        Assert.Equal(404, (await approver.Send(HttpMethod.Post, $"access-keys/{record["id"]}/revocation", new JsonObject(), 1)).Status);
        Assert.Equal(200, (await administrator.Send(HttpMethod.Post, $"access-keys/{record["id"]}/revocation", new JsonObject(), 1)).Status);
        Assert.StartsWith("The access key was revoked.", (string?)(await Ask(HttpMethod.Get, "batches", key)).Body["detail"], StringComparison.Ordinal);
        Assert.Contains("keyMade keyUsed", await Acts(administrator, 2), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_folder_that_had_no_people_keeps_all_it_has_and_old_decisions_their_names()
    {
        var before = await ServiceUnderTest.Start();
        before.Http.DefaultRequestHeaders.Add("Daxlin-Person", "Old%20Hand");
        await before.SaveTemplates(Path.Combine(Repository.Samples, "port-ellery-galley"));
        var batch = await before.OpenBatch("November");
        await before.Upload(batch, Repository.SampleInvoices("port-ellery-galley").Take(1));
        await before.UntilDone(batch);
        var invoice = Assert.Single(await before.Invoices(batch))["id"];
        await before.Decide(invoice, "approval", new JsonObject { ["despite"] = "It was looked at by hand." });
        await before.Terminate();

        var (service, administrator) = await SignedIn.First(before.Data);
        await using var _ = service;
        Assert.Equal("approved", (string?)(await administrator.Get($"invoices/{invoice}"))["state"]);
        var told = await administrator.Get($"history?invoice={invoice}");
        Assert.Contains(told.AsArray(), entry => (string?)entry!["act"] == "approved" && (string?)entry["by"] == "Old Hand");
        // A name in a header is a claim that nobody proves.
        administrator.Http.DefaultRequestHeaders.Add("Daxlin-Person", "Old%20Hand");
        await administrator.Send(HttpMethod.Put, "closed-periods", new JsonObject { ["through"] = "2026-01-31" }, (int)(await administrator.Get("closed-periods"))["revision"]!);
        Assert.Equal(SignedIn.AdministratorsName, (string?)(await administrator.Get("closed-periods"))["changes"]![0]!["by"]);
    }

    private static (int Status, string? Code) Code((int Status, JsonNode Body) answer) => (answer.Status, (string?)answer.Body["code"]);

    private static JsonObject Rights(string role, bool isDisabled = false) => new() { ["roles"] = new JsonArray(role), ["groups"] = new JsonArray(), ["isDisabled"] = isDisabled };

    private static async Task<JsonNode> Person(SignedIn asked, string name) => (await asked.Get("people")).AsArray().Single(one => (string?)one!["name"] == name)!;

    /// <summary>What was done by and to a person, the oldest first.</summary>
    private static async Task<string> Acts(SignedIn asked, int person) =>
        string.Join(' ', (await asked.Get($"history?person={person}")).AsArray().Reverse().Select(entry => (string)entry!["act"]!));

    private static HttpRequestMessage WithKey(HttpMethod method, string path, string key)
    {
        var request = new HttpRequestMessage(method, path);
        request.Headers.Authorization = new AuthenticationHeaderValue("Bearer", key);
        return request;
    }

    private static async Task Change(ServiceUnderTest service, string statement) => Assert.True(await StoreUnderTest.Change(service.Data, statement) > 0);

    /// <summary>The code that an authenticator shows so many steps from now (RFC 6238 with RFC 4226, 5.3), with a secret in base 32.</summary>
    private static string CodeOf(string secret, int steps)
    {
        var bits = string.Concat(secret.TrimEnd('=').Select(letter => Convert.ToString("ABCDEFGHIJKLMNOPQRSTUVWXYZ234567".IndexOf(letter, StringComparison.Ordinal), 2).PadLeft(5, '0')));
        var key = bits.Chunk(8).Where(bits => bits.Length == 8).Select(bits => Convert.ToByte(new string(bits), 2)).ToArray();
        var counter = new byte[8];
        BinaryPrimitives.WriteInt64BigEndian(counter, DateTimeOffset.UtcNow.ToUnixTimeSeconds() / 30 + steps);
#pragma warning disable CA5350 // What authenticators use.
        var hash = HMACSHA1.HashData(key, counter);
#pragma warning restore CA5350
        var number = BinaryPrimitives.ReadInt32BigEndian(hash.AsSpan(hash[^1] & 15)) & int.MaxValue;
        return (number % 1_000_000).ToString("D6", CultureInfo.InvariantCulture);
    }
}
