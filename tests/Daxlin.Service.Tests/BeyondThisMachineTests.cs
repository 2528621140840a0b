using System.Net;
using System.Net.Http.Json;
using System.Security.Cryptography;
using System.Security.Cryptography.X509Certificates;
using System.Text.Json.Nodes;
using Daxlin.Testing;

namespace Daxlin.Service.Tests;

/// <summary>Beyond this machine Daxlin is reached by those who sign in, on an encrypted line, under the name that it was given.</summary>
public class BeyondThisMachineTests
{
    private const string Name = "ap.kestrel.example";

    [Theory]
    [InlineData("--bind 0.0.0.0", "Daxlin does not listen on 0.0.0.0 unencrypted: passwords and invoices could be read on the way.")]
    [InlineData("--bind 0.0.0.0 --without-sign-in", "Without sign-in Daxlin is for this machine alone: anyone on the network could approve and post invoices.")]
    [InlineData("--behind-proxy 127.0.0.1 --host ap.kestrel.example --without-sign-in", "Without sign-in Daxlin is for this machine alone")]
    [InlineData("--bind 0.0.0.0 --behind-proxy 192.0.2.7", "Say by which name Daxlin is reached (--host ap.example.org)")]
    [InlineData("--bind somewhere", "“somewhere” is no address")]
    [InlineData("--certificate nowhere.pem", "The certificate nowhere.pem cannot be read: it is a PEM file")]
    [InlineData("--certificate-key nowhere.pem", "--certificate-key is of no use without --certificate.")]
    public async Task It_does_not_start_where_strangers_could_listen_or_act(string arguments, string said)
    {
        var data = Directory.CreateTempSubdirectory("daxlin-test-").FullName;
        var (code, told) = await ServiceUnderTest.Refused([.. arguments.Split(' '), "--data", data, "--port", "0"]);
        Assert.Equal(2, code);
        Assert.StartsWith(said, told, StringComparison.Ordinal);
        Directory.Delete(data, recursive: true);
    }

    [Fact]
    public async Task With_a_certificate_its_cookies_go_over_the_encrypted_line_alone()
    {
        var scratch = Directory.CreateTempSubdirectory("daxlin-test-").FullName;
        using var key = ECDsa.Create(ECCurve.NamedCurves.nistP256);
        var request = new CertificateRequest($"CN={Name}", key, HashAlgorithmName.SHA256);
        using var certificate = request.CreateSelfSigned(DateTimeOffset.UtcNow.AddDays(-1), DateTimeOffset.UtcNow.AddDays(1));
        var (file, keyFile) = (Path.Combine(scratch, "line.pem"), Path.Combine(scratch, "line.key"));
        await File.WriteAllTextAsync(file, certificate.ExportCertificatePem());
        await File.WriteAllTextAsync(keyFile, key.ExportPkcs8PrivateKeyPem());
        await using var service = await ServiceUnderTest.Start(signsIn: true, arguments: ["--bind", "0.0.0.0", "--host", Name, "--certificate", file, "--certificate-key", keyFile]);
        Assert.StartsWith("https://", service.Address, StringComparison.Ordinal);
        var link = await service.PrintedLink();
        using var handler = new HttpClientHandler { ServerCertificateCustomValidationCallback = (_, shown, _, _) => shown?.Thumbprint == certificate.Thumbprint, UseCookies = false };
        using var http = new HttpClient(handler) { BaseAddress = new Uri($"https://localhost:{new Uri(service.Address).Port}/api/v1/") };

        foreach (var (host, status) in new[] { (Name, HttpStatusCode.OK), ("localhost", HttpStatusCode.OK), ("ap.stranger.example", HttpStatusCode.Forbidden) })
        {
            using var asked = new HttpRequestMessage(HttpMethod.Get, "session") { Headers = { Host = host } };
            using var answer = await http.SendAsync(asked);
            Assert.Equal(status, answer.StatusCode);
            Assert.Equal("max-age=31536000", answer.Headers.GetValues("Strict-Transport-Security").Single());
        }
        using var entered = await http.PostAsJsonAsync("welcome", new JsonObject { ["link"] = link, ["name"] = SignedIn.AdministratorsName, ["password"] = SignedIn.Password });
        Assert.Equal(HttpStatusCode.OK, entered.StatusCode);
        Assert.All(entered.Headers.GetValues("Set-Cookie"), cookie => Assert.Matches("; secure; samesite=strict; httponly$", cookie));
        Directory.Delete(scratch, recursive: true);
    }

    [Theory]
    [InlineData(true)]
    [InlineData(false)]
    public async Task The_word_of_a_proxy_counts_if_it_was_named_and_nobody_elses(bool isNamed)
    {
        await using var service = await ServiceUnderTest.Start(signsIn: true, arguments: ["--behind-proxy", isNamed ? "127.0.0.1" : "192.0.2.7", "--host", Name]);
        var link = await service.PrintedLink();
        using var handler = new HttpClientHandler { UseCookies = false };
        using var http = new HttpClient(handler) { BaseAddress = service.Http.BaseAddress };
        using var asked = new HttpRequestMessage(HttpMethod.Post, "welcome") { Content = JsonContent.Create(new JsonObject { ["link"] = link, ["name"] = SignedIn.AdministratorsName, ["password"] = SignedIn.Password }) };
        foreach (var (header, value) in new[] { ("X-Forwarded-For", "203.0.113.9"), ("X-Forwarded-Proto", "https"), ("X-Forwarded-Host", Name), ("Origin", $"https://{Name}") })
            asked.Headers.Add(header, value);
        using var answer = await http.SendAsync(asked);
        if (!isNamed)
        {
            Assert.Equal("origin-refused", (string?)JsonNode.Parse(await answer.Content.ReadAsStringAsync())!["code"]);
            return;
        }
        // What reached the proxy unencrypted goes no further.
        using var plain = new HttpRequestMessage(HttpMethod.Get, "session") { Headers = { { "X-Forwarded-For", "203.0.113.9" }, { "X-Forwarded-Proto", "http" }, { "X-Forwarded-Host", Name } } };
        using var refused = await http.SendAsync(plain);
        Assert.Equal((HttpStatusCode.Forbidden, "line-unencrypted"), (refused.StatusCode, (string?)JsonNode.Parse(await refused.Content.ReadAsStringAsync())!["code"]));
        Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
        Assert.All(answer.Headers.GetValues("Set-Cookie"), cookie => Assert.Contains("; secure; ", cookie, StringComparison.Ordinal));
        using var browser = new SignedIn(service);
        await browser.SignIn(SignedIn.AdministratorsName);
        Assert.Contains((await browser.Get("history?act=signedIn")).AsArray(), entry => (string?)entry!["what"] == "signed in from 203.0.113.9");
    }
}
