using System.Security.Cryptography;
using System.Text;
using System.Text.Json;

namespace Daxlin.Cli;

/// <summary>Remembers which revision of an invoice this user was shown last, so that a decision is bound to it.</summary>
/// <remarks>
/// A clerk prints an invoice, it is captured again by another template, the clerk approves: the service refuses, since what
/// was printed is no more. Kept in one small file a service; without it the invoice is decided on as it is at the moment.
/// </remarks>
internal sealed class SeenInvoices(string server)
{
    private const int Most = 1000;

    private readonly string file = Path.Combine(
        Environment.GetEnvironmentVariable("DAXLIN_STATE") is { Length: > 0 } state ? state
            : Path.Combine(Environment.GetFolderPath(Environment.SpecialFolder.LocalApplicationData), "daxlin-client"),
        $"seen-{Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(server)))[..12]}.json");

    public int? Find(int invoice) => Load().TryGetValue(invoice, out var revision) ? revision : null;

    public void Remember(int invoice, int revision)
    {
        var seen = Load();
        seen[invoice] = revision;
        Save(seen);
    }

    public void Forget(int invoice)
    {
        var seen = Load();
        if (seen.Remove(invoice))
            Save(seen);
    }

    private SortedDictionary<int, int> Load()
    {
        try
        {
            return JsonSerializer.Deserialize<SortedDictionary<int, int>>(File.ReadAllText(file)) ?? [];
        }
        catch (Exception error) when (error is IOException or UnauthorizedAccessException or JsonException)
        {
            return [];
        }
    }

    private void Save(SortedDictionary<int, int> seen)
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
