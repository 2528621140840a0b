using System.Net.Http.Json;
using System.Text.Json.Nodes;
using Daxlin.Testing;

namespace Daxlin.Cli.Tests;

/// <summary>Signing the client in, people and keys, and approvals of many.</summary>
public sealed class PeopleCommandTests
{
    private const string Password = "four gulls on a mast";

    [Fact]
    public async Task The_client_signs_in_by_a_key_of_its_own_and_does_what_its_person_may()
    {
        await using var service = await ServiceUnderTest.Start(signsIn: true);
        var server = service.Address;
        var (code, _, refused) = await Client.Run(server, "batch", "list");
        Assert.Equal((3, "Nobody is signed in. Sign in, or show an access key. “./daxlin login” signs in and keeps a key for this user."), (code, refused.Trim()));
        Assert.Equal(1, (await Client.Run(server, "whoami")).ExitCode);
        await Follow(service, await service.PrintedLink(), "Ada Wrenfield");

        (code, _, refused) = await Client.Type("Ada Wrenfield\nthree gulls on a mast\n", server, "login");
        Assert.Equal(3, code);
        Assert.StartsWith("The name and the password do not fit each other", refused, StringComparison.Ordinal);
        (code, var said, refused) = await Client.Type($"ada wrenfield\n{Password}\n", server, "login");
        Assert.True(code == 0, refused);
        Assert.Matches(@"^Ada Wrenfield is signed in on this machine until \d{4}-\d\d-\d\d; “./daxlin logout” ends it\.", said);
        Assert.StartsWith("Ada Wrenfield, approver, administrator, by the access key “client on", (await Client.Run(server, "whoami")).Out, StringComparison.Ordinal);

        (_, said, _) = await Client.Run(server, "person", "add", "Berta Quill", "--role", "clerk", "--group", "Galley");
        Assert.Contains("With this link Berta Quill sets a password", said, StringComparison.Ordinal);
        await Follow(service, said.Trim()[(said.Trim().LastIndexOf('#') + 1)..]);
        Assert.Contains("There is no person “Berta”", (await Client.Run(server, "person", "disable", "Berta")).Error, StringComparison.Ordinal);
        (_, said, _) = await Client.Run(server, "person", "list");
        Assert.Matches(@"Berta Quill\s+clerk\s+Galley\s+\d{4}-", said);
        Assert.Contains("“boss” is no role", (await Client.Run(server, "person", "change", "Berta Quill", "--role", "boss")).Error, StringComparison.Ordinal);

        (code, said, refused) = await Client.Type($"Berta Quill\n{Password}\n", server, "key", "add", "Nightly import", "--right", "work", "--days", "7");
        Assert.True(code == 0, refused);
        Assert.Contains("with the rights see, work. It is not shown again:", said, StringComparison.Ordinal);
        var key = (await Client.Json(server, "key", "list")).AsArray().Single(one => (string?)one!["name"] == "Nightly import")!;
        Assert.Contains("is revoked", (await Client.Run(server, "key", "revoke", $"{key["id"]}")).Out, StringComparison.Ordinal);
        Assert.Matches(@"Nightly import\s+Berta Quill\s+revoked\s+never\s+see, work", (await Client.Run(server, "key", "list")).Out);
        Assert.Equal(0, (await Client.Run(server, "person", "disable", "Berta Quill")).ExitCode);
        Assert.Equal(3, (await Client.Run(server, "person", "disable", "Ada Wrenfield")).ExitCode);

        Assert.Equal(0, (await Client.Run(server, "logout")).ExitCode);
        Assert.Equal(3, (await Client.Run(server, "batch", "list")).ExitCode);
    }

    [Fact]
    public async Task All_that_is_clear_is_approved_once_its_sum_is_said()
    {
        var (service, batch) = await ServiceUnderTest.StartWith("halvard-marine-diesel");
        await using var _ = service;
        var server = service.Address;
        Assert.Equal(2, (await Client.Run(server, "approval", "ask", "--two-above", "5000 GBP")).ExitCode);
        var (_, rules, _) = await Client.Run(server, "approval", "ask", "--not-correctors", "--typed-above", "GBP=100");
        Assert.StartsWith("Who corrected an invoice does not approve it.\nWho approves many at once types their sum above 100.00 GBP.\n", rules.ReplaceLineEndings("\n"), StringComparison.Ordinal);
        var there = await service.Get($"batches/{batch}/approval");
        var (code, _, refused) = await Client.Run(server, "approval", "all", $"{batch}");
        Assert.Equal(3, code);
        Assert.Contains("which is more than 100.00 GBP: type the sum to approve them.", refused, StringComparison.Ordinal);
        (code, var said, refused) = await Client.Run(server, "approval", "all", $"{batch}", "--sum", $"GBP={there["sums"]!["GBP"]}");
        Assert.True(code == 0, refused);
        var count = there["invoices"]!.AsArray().Count;
        Assert.StartsWith($"● approved: {count} of {count}, ", said, StringComparison.Ordinal);
        Assert.Contains("No invoice of batch", (await Client.Run(server, "approval", "all", $"{batch}")).Error, StringComparison.Ordinal);
        var first = there["invoices"]![0]!["id"];
        Assert.Contains("○ clear again", (await Client.Run(server, "invoice", "reopen", $"{first}", "--because", "The vendor called.")).Out, StringComparison.Ordinal);
        Assert.Equal(3, (await Client.Run(server, "invoice", "reopen", $"{first}", "--because", "The vendor called.")).ExitCode);
    }

    private static async Task Follow(ServiceUnderTest service, string link, string? name = null)
    {
        using var answer = await service.Http.PostAsJsonAsync("welcome", new JsonObject { ["link"] = link, ["name"] = name, ["password"] = Password });
        Assert.True(answer.IsSuccessStatusCode, await answer.Content.ReadAsStringAsync());
    }
}
