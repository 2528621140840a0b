using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;

namespace Daxlin.Cli;

/// <summary>Remembers which revision of an invoice this user was shown last, so that a decision is bound to it.</summary>
/// <remarks>
/// A clerk prints an invoice, it is captured again by another template, the clerk approves: the service refuses, since what
/// was printed is no more. Kept in one small file a service; without it the invoice is decided on as it is at the moment. At one address
/// there may be another installation tomorrow, whose invoice 3 was received at another moment: what was seen of the one says nothing of the other.
/// </remarks>
internal sealed class SeenInvoices(string server)
{
    private const int Most = 1000;

    private readonly string file = Path.Combine(
        ClientFolder.Path, $"seen-{Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(server)))[..12]}.json");

    /// <param name="invoice">As it is at the moment.</param>
    public int? Find(JsonNode invoice) =>
        Load().TryGetValue(Shown.Number(invoice["id"]), out var seen) && seen.ReceivedAt == ReceivedAt(invoice) ? seen.Revision : null;

    /// <param name="invoice">As it was shown.</param>
    public void Remember(JsonNode invoice)
    {
        var seen = Load();
        seen[Shown.Number(invoice["id"])] = new Seen(Shown.Number(invoice["revision"]), ReceivedAt(invoice));
        Save(seen);
    }

    private static string ReceivedAt(JsonNode invoice) => Shown.Text(invoice["document"]!["receivedAt"]);

    /// <param name="ReceivedAt">When its document was received.</param>
    private sealed record Seen(int Revision, string ReceivedAt);

    public void Forget(int invoice)
    {
        var seen = Load();
        if (seen.Remove(invoice))
            Save(seen);
    }

    private SortedDictionary<int, Seen> Load()
    {
        try
        {
            return JsonSerializer.Deserialize<SortedDictionary<int, Seen>>(File.ReadAllText(file)) ?? [];
        }
        catch (Exception error) when (error is IOException or UnauthorizedAccessException or JsonException)
        {
            return [];
        }
    }

    private void Save(SortedDictionary<int, Seen> seen)
    {
        while (seen.Count > Most)
            seen.Remove(seen.First().Key);
        try
        {
            Directory.CreateDirectory(Path.GetDirectoryName(file)!);
            var part = $"{file}.{Environment.ProcessId}";
            File.WriteAllText(part, JsonSerializer.Serialize(seen));
            File.Move(part, file, overwrite: true);
        }
        catch (Exception error) when (error is IOException or UnauthorizedAccessException)
        {
            // Where nothing can be kept, each decision is bound to what is there when it is made.
        }
    }
}
