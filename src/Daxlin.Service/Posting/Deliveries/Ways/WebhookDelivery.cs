using System.Buffers;
using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using Daxlin.Service.Secrets;
using Daxlin.Core.Posting.Receivers;
using Daxlin.Service.Posting.Receivers;

namespace Daxlin.Service.Posting.Deliveries.Ways;

/// <summary>Sends a run to a web address in one request, signed by the Standard Webhooks specification, version 1.0.</summary>
/// <remarks>The key of the delivery is the same however often it is sent, as <c>webhook-id</c> and as <c>Idempotency-Key</c>: the receiver takes each once.</remarks>
internal sealed class WebhookDelivery(SecretStore secrets, TimeProvider clock) : IDeliveryWay<WebhookWay>, IDisposable
{
    private const string SecretPrefix = "whsec_";
    private const int LongestToldAnswer = 200;

    // What is sent goes to the address that was named, and nowhere that it points to.
    private readonly HttpClient http = new(new SocketsHttpHandler { AllowAutoRedirect = false, UseProxy = false, UseCookies = false }) { Timeout = Timeout.InfiniteTimeSpan };

    public Task Prepare(Parcel parcel, WebhookWay way, CancellationToken cancel)
    {
        KeyOf(way);
        return Task.CompletedTask;
    }

    public async Task<string> HandOver(Parcel parcel, WebhookWay way, bool isResumed, CancellationToken cancel)
    {
        var body = BodyOf(parcel);
        using var request = new HttpRequestMessage(HttpMethod.Post, way.Url) { Content = new ReadOnlyMemoryContent(body) };
        request.Content.Headers.ContentType = new("application/json");
        foreach (var (name, value) in HeadersOf(parcel.Key, body, KeyOf(way), clock.GetUtcNow()))
            request.Headers.Add(name, value);
        try
        {
            using var answer = await http.SendAsync(request, HttpCompletionOption.ResponseHeadersRead, cancel);
            if (answer.IsSuccessStatusCode)
                return $"{way.Place} answered {(int)answer.StatusCode}; {parcel.Files.Length} {(parcel.Files.Length == 1 ? "file" : "files")} in {Counted(body.Length)} bytes.";
            throw new DeliveryFaultException($"{way.Place} answered {(int)answer.StatusCode}{await SaidBy(answer, cancel)}.");
        }
        catch (HttpRequestException error)
        {
            throw new DeliveryFaultException($"{way.Place} could not be reached: {error.Message}.", inner: error);
        }
    }

    /// <remarks>An event that says nothing would be a strange thing to receive, so only the line is tried.</remarks>
    public async Task<string> Reach(WebhookWay way, CancellationToken cancel)
    {
        KeyOf(way);
        try
        {
            using var request = new HttpRequestMessage(HttpMethod.Head, way.Url);
            using var answer = await http.SendAsync(request, HttpCompletionOption.ResponseHeadersRead, cancel);
            return $"{way.Url.Host} answers ({(int)answer.StatusCode} to a question without content). Whether it takes runs shows with the first.";
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

    /// <summary>Written as bytes from the first: as text, a run of many invoices would stand in memory several times.</summary>
    private static ReadOnlyMemory<byte> BodyOf(Parcel parcel)
    {
        var bytes = new ArrayBufferWriter<byte>();
        using (var json = new Utf8JsonWriter(bytes))
        {
            var run = parcel.Run;
            json.WriteStartObject();
            json.WriteString("type", "posting-run.made");
            json.WriteString("timestamp", run.At.ToString("yyyy-MM-dd'T'HH:mm:ss'Z'", CultureInfo.InvariantCulture));
            json.WriteStartObject("data");
            json.WriteNumber("run", run.Number);
            if (run.Reverses is { } reverses)
                json.WriteNumber("reverses", reverses);
            else
                json.WriteNull("reverses");
            json.WriteString("layout", run.Layout);
            json.WriteNumber("layoutVersion", run.LayoutVersion);
            json.WriteString("by", run.By);
            json.WriteNumber("invoices", run.Invoices);
            json.WriteNumber("records", run.Rows);
            json.WritePropertyName("sums");
            json.WriteRawValue(run.Sums);
            json.WriteStartArray("files");
            foreach (var file in parcel.Files)
            {
                json.WriteStartObject();
                json.WriteString("name", file.Name);
                json.WriteString("mediaType", file.MediaType);
                json.WriteNumber("records", file.Records);
                json.WriteString("sha256", file.Sha256);
                json.WriteBase64String("content", file.Content);
                json.WriteEndObject();
            }
            json.WriteEndArray();
            json.WriteEndObject();
            json.WriteEndObject();
        }
        return bytes.WrittenMemory;
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

    private static string Counted(int number) => number.ToString("N0", CultureInfo.InvariantCulture);

    public void Dispose() => http.Dispose();
}
