using System.Buffers.Binary;
using System.Globalization;
using System.Security.Cryptography;
using System.Text;

namespace Daxlin.Core.History;

/// <summary>Chains the entries of the history by hash, so that a later change to one is seen.</summary>
/// <remarks>
/// The hash of an entry is SHA-256 (FIPS 180-4) over the hash of the entry before it in its stream, its number and all parts of
/// its deed, each part led by its length in bytes: "ab" and "c" is another entry than "a" and "bc". A stream whose last entries
/// are taken away is still a whole chain; that they are gone is seen by the next seal, an entry of its own stream that holds
/// the hash over the hashes of all entries since the seal before.
/// </remarks>
public static class HistoryChain
{
    /// <summary>What the first entry of a stream hangs on.</summary>
    public const string Beginning = "";

    /// <param name="before">The hash of the entry before it in its stream; <see cref="Beginning"/> for the first.</param>
    /// <param name="number">Its place in its stream, from 1.</param>
    public static string HashOf(string before, int number, Deed deed)
    {
        using var hash = IncrementalHash.CreateHash(HashAlgorithmName.SHA256);
        foreach (var part in (ReadOnlySpan<string>)
            [
                before, number.ToString(CultureInfo.InvariantCulture), deed.Stream, deed.At.ToUniversalTime().ToString("O", CultureInfo.InvariantCulture), deed.By,
                deed.Act, deed.What, deed.Before, deed.After, deed.Reason, deed.Letter, deed.Content,
            ])
        {
            Append(hash, part);
        }
        return Convert.ToHexStringLower(hash.GetHashAndReset());
    }

    /// <summary>The content of a seal.</summary>
    /// <param name="hashes">Those of all entries since the seal before, that seal among them, in the order of their ids.</param>
    public static string SealOf(IEnumerable<string> hashes)
    {
        using var seal = IncrementalHash.CreateHash(HashAlgorithmName.SHA256);
        foreach (var hash in hashes)
            Append(seal, hash);
        return Convert.ToHexStringLower(seal.GetHashAndReset());
    }

    /// <summary>The SHA-256 of a text's UTF-8, in hexadecimal letters.</summary>
    public static string ContentOf(string text) => ContentOf(Encoding.UTF8.GetBytes(text));

    /// <summary>The SHA-256 of bytes, in hexadecimal letters.</summary>
    public static string ContentOf(ReadOnlySpan<byte> bytes) => Convert.ToHexStringLower(SHA256.HashData(bytes));

    internal static void Append(IncrementalHash hash, string part)
    {
        var bytes = Encoding.UTF8.GetBytes(part);
        Span<byte> length = stackalloc byte[sizeof(int)];
        BinaryPrimitives.WriteInt32LittleEndian(length, bytes.Length);
        hash.AppendData(length);
        hash.AppendData(bytes);
    }
}
