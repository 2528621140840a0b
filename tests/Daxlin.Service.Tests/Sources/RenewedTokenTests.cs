using System.Text;
using System.Text.Json.Nodes;
using Daxlin.Testing;

namespace Daxlin.Service.Tests.Sources;

/// <summary>A mailbox behind tokens that end is looked at as one behind a password, until consent is withdrawn.</summary>
public class RenewedTokenTests
{
    [Fact]
    public async Task Tokens_are_renewed_before_they_end_and_once_they_are_refused()
    {
        using var provider = new TokenProvider();
        await using var server = await MailServer.Start(provider.Address + "/introspect");
        await using var service = await ServiceUnderTest.Start();
        Task<HttpResponseMessage> Keep(string name, string secret) => service.Http.PutAsync($"secrets/{name}", new StringContent(secret, Encoding.UTF8, "text/plain"));
        var source = new JsonObject
        {
            ["name"] = "post",
            ["batch"] = "Post",
            ["mailbox"] = new JsonObject
            {
                ["host"] = "127.0.0.1",
                ["port"] = server.Port,
                ["encryption"] = "none",
                ["user"] = MailServer.User,
                ["renewal"] = new JsonObject { ["url"] = provider.Address + "/token", ["client"] = TokenProvider.Client, ["clientSecret"] = "mail-client", ["refresh"] = "mail-refresh", ["scope"] = "imap" },
            },
        };
        Assert.Equal(201, (await service.Post("sources", source)).Status);
        Assert.Equal(["mail-refresh", "mail-client"], (await service.Get("sources/post"))["secretsMissing"]!.AsArray().Select(name => (string?)name));
        async Task<string> Look() => (string)(await service.Post("sources/post/look", new JsonObject())).Body["says"]!;
        Assert.StartsWith("The secret “mail-refresh” is not kept here yet", await Look(), StringComparison.Ordinal);
        (await Keep("mail-refresh", "refresh-0")).EnsureSuccessStatusCode();
        (await Keep("mail-client", "another")).EnsureSuccessStatusCode();
        Assert.StartsWith($"{provider.Address}/token gave no token (it answered 401, invalid_client).", await Look(), StringComparison.Ordinal);
        (await Keep("mail-client", TokenProvider.Secret)).EnsureSuccessStatusCode();

        var invoices = Repository.SampleInvoices("port-ellery-galley").ToList();
        async Task Arrives(int index)
        {
            await server.Put(Letters.With($"Invoice {index}", Letters.File($"{index}.pdf", invoices[index].Bytes)));
            for (var patience = System.Diagnostics.Stopwatch.StartNew(); (await service.Get("sources/post/items")).AsArray().Count <= index;)
                Assert.True(patience.Elapsed < TimeSpan.FromMinutes(1), await Look());
        }

        await Arrives(0);
        Assert.Equal((1, "refresh-1"), (provider.Given, provider.Refresh));
        await Look();
        Assert.Equal(1, provider.Given);

        // A token that the server takes no more is renewed, by the refresh token that came with the last.
        provider.Holding.Clear();
        source["mailbox"]!["host"] = "localhost";
        Assert.Equal(201, (await service.Post("sources", source)).Status);
        await Arrives(1);
        Assert.Equal((2, "refresh-2"), (provider.Given, provider.Refresh));

        // One that lasts no longer than the minute it is renewed before is renewed at each look.
        (provider.Lasts, provider.Refresh) = (30, "refresh-anew");
        (await Keep("mail-refresh", "refresh-anew")).EnsureSuccessStatusCode();
        await Arrives(2);
        var before = provider.Given;
        await Look();
        Assert.InRange(provider.Given, before + 1, int.MaxValue);

        provider.Refresh = null;
        Assert.StartsWith($"{provider.Address}/token gave no token (it answered 400, invalid_grant: Consent was withdrawn). If consent was withdrawn, sign in there anew and keep the new refresh token as the secret “mail-refresh”.", await Look(), StringComparison.Ordinal);
    }
}
