using System.Security.Cryptography;
using System.Text;

namespace Daxlin.Service.People;

/// <summary>Random secrets that are shown once and kept as their hash.</summary>
internal static class Secrets
{
    /// <summary>256 random bits, as letters that go into a header, a link or a file as they are.</summary>
    public static string New() => Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(32));

    /// <summary>In hexadecimal letters. What is hashed is random, so that one pass of SHA-256 is enough.</summary>
    public static string HashOf(string secret) => Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(secret)));
}
