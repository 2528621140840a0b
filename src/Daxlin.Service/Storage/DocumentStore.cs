using System.Security.Cryptography;

namespace Daxlin.Service.Storage;

/// <summary>Keeps documents byte for byte in the data folder, each under the SHA-256 of its bytes.</summary>
public sealed class DocumentStore(DataFolder folder)
{
    public const string Missing = "document-missing";
    public const string Altered = "document-altered";

    /// <summary>The most bytes that one document may have.</summary>
    public const long LargestDocument = 50L << 20;

    /// <summary>
    /// Keeps a document. It is on the disk, whole, when the task is done; keeping it twice keeps it once, and mends one
    /// that was altered on the disk.
    /// </summary>
    /// <exception cref="TooLargeException">It has more than <see cref="LargestDocument"/> bytes.</exception>
    public async Task<(string Sha256, long Size)> Keep(Stream content, CancellationToken cancel)
    {
        var part = folder.NewPart();
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
            if (!File.Exists(place) || await FaultOf(sha256, cancel) is not null)
                File.Move(part, place, overwrite: true);
            return (sha256, size);
        }
        finally
        {
            File.Delete(part);
        }
    }

    public string PathOf(string sha256) => Path.Combine(folder.Documents, sha256[..2], sha256);

    /// <summary>The folder of what was recognised of a document's pages, if any of them are pictures; what is not there is recognised again.</summary>
    public string RecognisedOf(string sha256) => Path.Combine(folder.Recognised, sha256[..2], sha256);

    /// <summary>The first bytes of a kept document, by which its form is told.</summary>
    public async Task<ReadOnlyMemory<byte>> BeginningOf(string sha256, CancellationToken cancel)
    {
        await using var stream = File.OpenRead(PathOf(sha256));
        var bytes = new byte[128];
        return bytes.AsMemory(0, await stream.ReadAtLeastAsync(bytes, bytes.Length, throwOnEndOfStream: false, cancel));
    }

    /// <summary>Null if the document is there as it was taken in; else what is wrong with it.</summary>
    public async Task<(string Code, string Sentence)?> FaultOf(string sha256, CancellationToken cancel)
    {
        try
        {
            await using var file = File.OpenRead(PathOf(sha256));
            return Convert.ToHexStringLower(await SHA256.HashDataAsync(file, cancel)) == sha256 ? null
                : FaultAltered(sha256);
        }
        catch (Exception error) when (error is FileNotFoundException or DirectoryNotFoundException)
        {
            return FaultMissing(sha256);
        }
    }

    internal static (string Code, string Sentence) FaultAltered(string sha256) =>
        (Altered, $"The bytes of this document in the data folder are not those that were taken in (documents/{sha256[..2]}/{sha256[..8]}…). Take the file in again to mend it.");

    internal static (string Code, string Sentence) FaultMissing(string sha256) =>
        (Missing, $"The bytes of this document are missing in the data folder (documents/{sha256[..2]}/{sha256[..8]}…). Take the file in again to mend it.");

    /// <summary>Says that a text is a hash and not, say, a path.</summary>
    public static bool IsHash(string text) => text.Length == 64 && text.All(c => char.IsAsciiDigit(c) || c is >= 'a' and <= 'f');
}
