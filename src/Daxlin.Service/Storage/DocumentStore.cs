using System.Security.Cryptography;

namespace Daxlin.Service.Storage;

/// <summary>Keeps documents byte for byte in the data folder, each under the SHA-256 of its bytes.</summary>
public sealed class DocumentStore(DataFolder folder)
{
    /// <summary>The most bytes that one document may have.</summary>
    public const long LargestDocument = 50L << 20;

    /// <summary>Keeps a document. It is on the disk, whole, when the task is done; keeping it twice keeps it once.</summary>
    /// <exception cref="TooLargeException">It has more than <see cref="LargestDocument"/> bytes.</exception>
    public async Task<(string Sha256, long Size)> Keep(Stream content, CancellationToken cancel)
    {
        var part = Path.Combine(folder.Incoming, Guid.NewGuid().ToString("N"));
        try
        {
            using var hash = IncrementalHash.CreateHash(HashAlgorithmName.SHA256);
            var size = 0L;
            await using (var file = new FileStream(part, FileMode.CreateNew, FileAccess.Write, FileShare.None, 1 << 16, useAsync: true))
            {
                var buffer = new byte[1 << 16];
                for (int read; (read = await content.ReadAsync(buffer, cancel)) > 0;)
                {
                    size += read;
                    if (size > LargestDocument)
                        throw new TooLargeException();
                    hash.AppendData(buffer, 0, read);
                    await file.WriteAsync(buffer.AsMemory(0, read), cancel);
                }
                file.Flush(flushToDisk: true);
            }
            var sha256 = Convert.ToHexStringLower(hash.GetHashAndReset());
            var place = PathOf(sha256);
            Directory.CreateDirectory(Path.GetDirectoryName(place)!);
            if (!File.Exists(place))
                File.Move(part, place, overwrite: true);
            return (sha256, size);
        }
        finally
        {
            File.Delete(part);
        }
    }

    public string PathOf(string sha256) => Path.Combine(folder.Documents, sha256[..2], sha256);

    public bool Has(string sha256) => IsHash(sha256) && File.Exists(PathOf(sha256));

    /// <summary>Says that a text is a hash and not, say, a path.</summary>
    public static bool IsHash(string text) => text.Length == 64 && text.All(c => char.IsAsciiDigit(c) || c is >= 'a' and <= 'f');
}
