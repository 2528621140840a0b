using System.Collections.Immutable;
using System.Security.Cryptography;
using Daxlin.Service.Storage;
using Microsoft.AspNetCore.DataProtection;

namespace Daxlin.Service.Secrets;

/// <summary>Passwords and keys of receivers, each an encrypted file of the data folder. They are never handed out again.</summary>
/// <remarks>The keys stand in the folder, too, unless they are kept elsewhere: a copy of the secrets alone, in a backup or a mail, says nothing.</remarks>
public sealed class SecretStore(DataFolder folder, IDataProtectionProvider protection)
{
    private readonly IDataProtector protector = protection.CreateProtector("receivers' secrets");

    /// <summary>Files of earlier releases hold the secret as it is.</summary>
    private const string Mark = "daxlin-encrypted:";

    /// <summary>The longest secret, in characters: a private key has some thousands.</summary>
    public const int Longest = 20_000;

    /// <summary>The names of all that are kept, with the time when each was.</summary>
    public IEnumerable<(string Name, DateTime KeptAt)> All => Directory.Exists(folder.Secrets)
        ? new DirectoryInfo(folder.Secrets).EnumerateFiles().Where(file => file.Extension.Length == 0).OrderBy(file => file.Name, StringComparer.Ordinal).Select(file => (file.Name, file.LastWriteTimeUtc))
        : [];

    /// <summary>Null if there is none of the name, or if the keys are lost that it was encrypted with.</summary>
    public string? Find(string name)
    {
        if (!File.Exists(PathOf(name)))
            return null;
        var kept = File.ReadAllText(PathOf(name));
        try
        {
            return kept.StartsWith(Mark, StringComparison.Ordinal) ? protector.Unprotect(kept[Mark.Length..]) : kept;
        }
        catch (CryptographicException)
        {
            return null;
        }
    }

    /// <summary>Those of some names that nothing is kept under.</summary>
    public ImmutableArray<string> MissingOf(IEnumerable<string> names) => [.. names.Where(name => Find(name) is null)];

    /// <summary>Keeps a secret in the place of what was kept by the name; the old or the new is there at any moment.</summary>
    public void Keep(string name, string secret)
    {
        Directory.CreateDirectory(folder.Secrets);
        var part = folder.NewPart();
        File.WriteAllText(part, Mark + protector.Protect(secret));
        File.Move(part, PathOf(name), overwrite: true);
    }

    /// <returns>False if there was none.</returns>
    public bool Forget(string name)
    {
        if (!File.Exists(PathOf(name)))
            return false;
        File.Delete(PathOf(name));
        return true;
    }

    /// <param name="name">Checked by who asks: small letters, digits and hyphens.</param>
    private string PathOf(string name) => Path.Combine(folder.Secrets, name);
}
