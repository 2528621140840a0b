using System.Security.Cryptography;
using Daxlin.Reading;

namespace Daxlin.Service.Storage;

/// <summary>The bytes of a kept document, as reading processes come by them: never others than those that were taken in.</summary>
internal static class KeptBytes
{
    /// <exception cref="UnreadableException">They are missing in the data folder, or have been altered there.</exception>
    public static byte[] Of(string path, string sha256)
    {
        byte[] bytes;
        try
        {
            bytes = File.ReadAllBytes(path);
        }
        catch (Exception error) when (error is FileNotFoundException or DirectoryNotFoundException)
        {
            throw Fault(DocumentStore.FaultMissing(sha256));
        }
        return Convert.ToHexStringLower(SHA256.HashData(bytes)) == sha256 ? bytes : throw Fault(DocumentStore.FaultAltered(sha256));
    }

    private static UnreadableException Fault((string Code, string Sentence) fault) => new(fault.Code, fault.Sentence);
}
