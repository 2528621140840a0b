using System.Buffers;
using System.Globalization;
using System.Text.Json;
using Daxlin.Core.Posting.Receivers;
using Daxlin.Service.Outgoing;

namespace Daxlin.Service.Posting.Deliveries.Ways;

/// <summary>Sends a run to a web address in one request, signed by the Standard Webhooks specification, version 1.0.</summary>
/// <remarks>The key of the delivery is the same however often it is sent, as <c>webhook-id</c> and as <c>Idempotency-Key</c>: the receiver takes each once.</remarks>
internal sealed class WebhookDelivery(SignedRequests requests) : IDeliveryWay<WebhookWay>
{
    public Task Prepare(Parcel parcel, WebhookWay way, CancellationToken cancel)
    {
        requests.CheckKey(way);
        return Task.CompletedTask;
    }

    public async Task<string> HandOver(Parcel parcel, WebhookWay way, bool isResumed, CancellationToken cancel)
    {
        var body = BodyOf(parcel);
        var status = await requests.Send(way, parcel.Key, body, cancel);
        return $"{way.Place} answered {status}; {parcel.Files.Length} {(parcel.Files.Length == 1 ? "file" : "files")} in {Counted(body.Length)} bytes.";
    }

    /// <remarks>An event that says nothing would be a strange thing to receive, so only the line is tried.</remarks>
    public async Task<string> Reach(WebhookWay way, CancellationToken cancel) =>
        $"{way.Url.Host} answers ({await requests.Ask(way, cancel)} to a question without content). Whether it takes runs shows with the first.";

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

    private static string Counted(int number) => number.ToString("N0", CultureInfo.InvariantCulture);
}
