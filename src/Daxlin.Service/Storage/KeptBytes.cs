using System.Security.Cryptography;
using Daxlin.Reading;
using Daxlin.Reading.Recognising;

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

    /// <summary>Reads a kept document, with what was recognised of it.</summary>
    /// <param name="recognised">The folder of its recognised pages.</param>
    /// <exception cref="PicturesUnreadException">Pages of it have to be recognised first.</exception>
    /// <exception cref="UnreadableException">As for <see cref="Of"/>, or it cannot be read.</exception>
    public static ReadDocument Read(string path, string sha256, string recognised)
    {
        var bytes = Of(path, sha256);
        try
        {
            return DocumentReader.Read(bytes, new RecognisedPages(recognised));
        }
        catch (PicturesUnreadException error)
        {
            throw new PicturesUnreadException(error.Pages) { Document = sha256 };
        }
    }

    private static UnreadableException Fault((string Code, string Sentence) fault) => new(fault.Code, fault.Sentence);
}
