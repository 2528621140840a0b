using System.Security.Cryptography;
using System.Text;

namespace Daxlin.Cli;

/// <summary>The access key that <c>login</c> got from a service, in a file that only its user reads: one a service.</summary>
internal sealed class KeptKeys(string server)
{
    private readonly string file = Path.Combine(
        ClientFolder.Path, $"key-{Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(server.TrimEnd('/'))))[..12]}");

    /// <summary>The key to show: what the environment says (DAXLIN_KEY), else what was kept; null for none.</summary>
    public string? Find()
    {
        if (Environment.GetEnvironmentVariable("DAXLIN_KEY") is { Length: > 0 } said)
            return said.Trim();
        try
        {
            return File.ReadAllText(file).Trim();
        }
        catch (Exception error) when (error is IOException or UnauthorizedAccessException)
        {
            return null;
        }
    }

    public void Keep(string key)
    {
        Directory.CreateDirectory(ClientFolder.Path);
        File.Delete(file);
        var options = new FileStreamOptions { Mode = FileMode.CreateNew, Access = FileAccess.Write };
        if (!OperatingSystem.IsWindows())
            options.UnixCreateMode = UnixFileMode.UserRead | UnixFileMode.UserWrite;
        using var writer = new StreamWriter(file, options);
        writer.Write(key);
    }

    public void Forget() => File.Delete(file);
}
