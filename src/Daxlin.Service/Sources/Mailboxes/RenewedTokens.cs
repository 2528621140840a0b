using System.Collections.Concurrent;
using System.Net.Http.Headers;
using System.Text;
using System.Text.Json;
using System.Text.Json.Serialization;
using Daxlin.Core.Sources;
using Daxlin.Service.Secrets;

namespace Daxlin.Service.Sources.Mailboxes;

/// <summary>Has access tokens renewed by the provider of a mailbox, each once while it holds (RFC 6749, 6).</summary>
internal sealed class RenewedTokens(SecretStore secrets, TimeProvider clock) : IDisposable
{
    /// <summary>A token is renewed so long before it ends, so that none ends on the way.</summary>
    private static readonly TimeSpan Before = TimeSpan.FromMinutes(1);

    /// <summary>Where the provider does not say how long a token holds.</summary>
    private static readonly TimeSpan Usual = TimeSpan.FromMinutes(10);

    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(30);
    private const int LongestAnswer = 100_000;
    private const int LongestTold = 200;

    // What is secret goes to the address that was named, and nowhere that it points to.
    private readonly HttpClient http = new(new SocketsHttpHandler { AllowAutoRedirect = false, UseProxy = false, UseCookies = false }) { Timeout = Patience, MaxResponseContentBufferSize = LongestAnswer };
    private readonly ConcurrentDictionary<TokenRenewal, Held> held = new();

    /// <summary>A token that holds; of two who ask at once, one may have it renewed in vain.</summary>
    /// <exception cref="SourceTroubleException">The provider gives none.</exception>
    public async Task<string> For(TokenRenewal renewal, CancellationToken cancel)
    {
        var refresh = Kept(renewal.Refresh);
        if (held.TryGetValue(renewal, out var known) && known.Refresh == refresh && known.Until > clock.GetUtcNow())
            return known.Token;
        using var request = new HttpRequestMessage(HttpMethod.Post, renewal.Url) { Content = new FormUrlEncodedContent(FormOf(renewal, refresh)) };
        request.Headers.Accept.Add(new MediaTypeWithQualityHeaderValue("application/json"));
        if (renewal.ClientSecret.Length > 0)
            request.Headers.Authorization = new AuthenticationHeaderValue("Basic", Convert.ToBase64String(Encoding.UTF8.GetBytes($"{Uri.EscapeDataString(renewal.Client)}:{Uri.EscapeDataString(Kept(renewal.ClientSecret))}")));
        var said = await Ask(request, renewal, cancel);
        // A provider that gives another takes the old one no more.
        if (said.RefreshToken is { Length: > 0 } next && next != refresh)
            secrets.Keep(renewal.Refresh, refresh = next);
        held[renewal] = new Held(said.AccessToken!, refresh, clock.GetUtcNow() + (said.ExpiresIn is > 0 and var seconds ? TimeSpan.FromSeconds(seconds) - Before : Usual));
        return said.AccessToken!;
    }

    /// <summary>A mail server refused what held by its time: the next look has another.</summary>
    public void Forget(TokenRenewal renewal) => held.TryRemove(renewal, out _);

    private async Task<Answer> Ask(HttpRequestMessage request, TokenRenewal renewal, CancellationToken cancel)
    {
        var place = renewal.Url.GetLeftPart(UriPartial.Path);
        try
        {
            using var answer = await http.SendAsync(request, cancel);
            var text = await answer.Content.ReadAsStringAsync(cancel);
            var said = text.TrimStart().StartsWith('{') ? JsonSerializer.Deserialize<Answer>(text) : null;
            if (answer.IsSuccessStatusCode && said?.AccessToken is { Length: > 0 })
                return said;
            var why = PlainLine.Of(string.Join(": ", new[] { said?.Error, said?.ErrorDescription }.Where(part => !string.IsNullOrEmpty(part))), LongestTold);
            throw new SourceTroubleException($"{place} gave no token (it answered {(int)answer.StatusCode}{(why.Length > 0 ? $", {why.TrimEnd('.')}" : "")}). If consent was withdrawn, sign in there anew and keep the new refresh token as the secret “{renewal.Refresh}”.");
        }
        catch (JsonException error)
        {
            throw new SourceTroubleException($"What {place} answered is no token.", error);
        }
        catch (Exception error) when (error is HttpRequestException || error is OperationCanceledException && !cancel.IsCancellationRequested)
        {
            throw new SourceTroubleException($"{place} could not be asked for a token: {(error is HttpRequestException ? error.Message.TrimEnd('.') : $"it did not answer within {Patience.TotalSeconds} seconds")}.", error);
        }
    }

    private static IEnumerable<KeyValuePair<string, string>> FormOf(TokenRenewal renewal, string refresh)
    {
        yield return new("grant_type", "refresh_token");
        yield return new("refresh_token", refresh);
        yield return new("client_id", renewal.Client);
        if (renewal.Scope.Length > 0)
            yield return new("scope", renewal.Scope);
    }

    private string Kept(string name) => secrets.Find(name) ?? throw SourceTroubleException.NotKept(name);

    public void Dispose() => http.Dispose();

    private sealed record Held(string Token, string Refresh, DateTimeOffset Until);

    private sealed record Answer(
        [property: JsonPropertyName("access_token")] string? AccessToken, [property: JsonPropertyName("refresh_token")] string? RefreshToken, [property: JsonPropertyName("expires_in")] double? ExpiresIn,
        [property: JsonPropertyName("error")] string? Error, [property: JsonPropertyName("error_description")] string? ErrorDescription);
}
