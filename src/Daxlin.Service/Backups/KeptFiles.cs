using Daxlin.Service.Storage;

namespace Daxlin.Service.Backups;

/// <summary>Copies what a data folder holds beside its database.</summary>
internal static class KeptFiles
{
    private const int BetweenWords = 1_000;

    /// <param name="documents">The hashes of those that the database knows.</param>
    /// <param name="told">Where to say how far it is.</param>
    /// <returns>How many bytes, and what is missing or altered; that is not copied.</returns>
    public static async Task<(long Bytes, List<DataFault> Faults)> Copy(DataFolder from, DataFolder to, IReadOnlyList<string> documents, TextWriter told, CancellationToken cancel)
    {
        var (kept, copies) = (new DocumentStore(from), new DocumentStore(to));
        var (bytes, faults) = (0L, new List<DataFault>());
        foreach (var (at, sha256) in documents.Index())
        {
            if (at % BetweenWords == BetweenWords - 1)
                await told.WriteLineAsync($"{at + 1} of {documents.Count} documents");
            if (await kept.FaultOf(sha256, cancel) is var (code, sentence))
            {
                faults.Add(new DataFault($"documents/{sha256[..2]}/{sha256}", code, sentence));
                continue;
            }
            await using var document = File.OpenRead(kept.PathOf(sha256));
            // Whole and on the disk when this is done; a disk that reads now one thing and now another is found by the hash.
            var (found, size) = await copies.Keep(document, cancel);
            if (found != sha256)
                faults.Add(new DataFault($"documents/{sha256[..2]}/{sha256}", DocumentStore.Altered, DocumentStore.FaultAltered(sha256).Sentence));
            bytes += size;
        }
        foreach (var (own, its) in new[] { (from.Secrets, to.Secrets), (from.ProtectionKeys, to.ProtectionKeys) })
        {
            if (!Directory.Exists(own))
                continue;
            Directory.CreateDirectory(its);
            foreach (var file in Directory.GetFiles(own))
                File.Copy(file, Path.Combine(its, Path.GetFileName(file)), overwrite: true);
        }
        return (bytes, faults);
    }
}
