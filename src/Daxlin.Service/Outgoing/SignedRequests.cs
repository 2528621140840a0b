using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using Daxlin.Core.Posting.Receivers;
using Daxlin.Service.Posting.Deliveries;
using Daxlin.Service.Posting.Receivers;
using Daxlin.Service.Secrets;

namespace Daxlin.Service.Outgoing;

/// <summary>Requests to web addresses that were named, each signed by the Standard Webhooks specification, version 1.0.</summary>
internal sealed class SignedRequests(SecretStore secrets, TimeProvider clock) : IDisposable
{
    private const string SecretPrefix = "whsec_";
    private const int LongestToldAnswer = 200;

    // What is sent goes to the address that was named, and nowhere that it points to.
    private readonly HttpClient http = new(new SocketsHttpHandler { AllowAutoRedirect = false, UseProxy = false, UseCookies = false }) { Timeout = Timeout.InfiniteTimeSpan };

    /// <exception cref="DeliveryFaultException">The secret that requests are signed with is not kept, or is none.</exception>
    public void CheckKey(WebhookWay way) => KeyOf(way);

    /// <param name="id">The same however often it is sent, by which the receiver takes it once.</param>
    /// <param name="body">JSON.</param>
    /// <returns>The status of the answer, one of success.</returns>
    /// <exception cref="DeliveryFaultException">The answer was another, or none came.</exception>
    public async Task<int> Send(WebhookWay way, string id, ReadOnlyMemory<byte> body, CancellationToken cancel)
    {
        using var request = new HttpRequestMessage(HttpMethod.Post, way.Url) { Content = new ReadOnlyMemoryContent(body) };
        request.Content.Headers.ContentType = new("application/json");
        foreach (var (name, value) in HeadersOf(id, body, KeyOf(way), clock.GetUtcNow()))
            request.Headers.Add(name, value);
        try
        {
            using var answer = await http.SendAsync(request, HttpCompletionOption.ResponseHeadersRead, cancel);
            return answer.IsSuccessStatusCode ? (int)answer.StatusCode : throw new DeliveryFaultException($"{way.Place} answered {(int)answer.StatusCode}{await SaidBy(answer, cancel)}.");
        }
        catch (HttpRequestException error)
        {
            throw new DeliveryFaultException($"{way.Place} could not be reached: {error.Message}.", inner: error);
        }
    }

    /// <summary>Asks whether anybody answers there.</summary>
    /// <returns>The status of the answer, whatever it is.</returns>
    /// <exception cref="DeliveryFaultException">None came.</exception>
    public async Task<int> Ask(WebhookWay way, CancellationToken cancel)
    {
        CheckKey(way);
        try
        {
            using var request = new HttpRequestMessage(HttpMethod.Head, way.Url);
            using var answer = await http.SendAsync(request, HttpCompletionOption.ResponseHeadersRead, cancel);
            return (int)answer.StatusCode;
        }
        catch (HttpRequestException error)
        {
            throw new DeliveryFaultException($"{way.Place} could not be reached: {error.Message}.", inner: error);
        }
    }

    /// <summary>The headers that a receiver checks; the signature is over the id, the time and the body.</summary>
    private static IEnumerable<(string Name, string Value)> HeadersOf(string id, ReadOnlyMemory<byte> body, byte[] key, DateTimeOffset at)
    {
        var time = at.ToUnixTimeSeconds().ToString(CultureInfo.InvariantCulture);
        using var signature = IncrementalHash.CreateHMAC(HashAlgorithmName.SHA256, key);
        signature.AppendData(Encoding.UTF8.GetBytes($"{id}.{time}."));
        signature.AppendData(body.Span);
        return [("webhook-id", id), ("webhook-timestamp", time), ("webhook-signature", "v1," + Convert.ToBase64String(signature.GetHashAndReset())), ("Idempotency-Key", id)];
    }

    /// <summary>The bytes behind a secret that is written as whsec_ and Base64; of any other, its letters.</summary>
    private byte[] KeyOf(WebhookWay way)
    {
        var secret = secrets.Needed(way.Secret);
        if (!secret.StartsWith(SecretPrefix, StringComparison.Ordinal))
            return Encoding.UTF8.GetBytes(secret);
        try
        {
            return Convert.FromBase64String(secret[SecretPrefix.Length..]);
        }
        catch (FormatException error)
        {
            throw new DeliveryFaultException($"The secret “{way.Secret}” begins with {SecretPrefix}, but what follows is not Base64.", nothingReached: true, inner: error);
        }
    }

    private static async Task<string> SaidBy(HttpResponseMessage answer, CancellationToken cancel)
    {
        await using var stream = await answer.Content.ReadAsStreamAsync(cancel);
        var begin = new byte[LongestToldAnswer];
        var text = Encoding.UTF8.GetString(begin, 0, await stream.ReadAtLeastAsync(begin, begin.Length, throwOnEndOfStream: false, cancel));
        var line = string.Concat(text.Select(letter => char.IsControl(letter) ? ' ' : letter)).Trim();
        return line.Length == 0 ? "" : $" and said: {line}";
    }

    public void Dispose() => http.Dispose();
}
