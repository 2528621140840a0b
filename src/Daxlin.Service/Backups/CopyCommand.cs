using System.Security.Cryptography;
using System.Text.Encodings.Web;
using System.Text.Json;
using Daxlin.Service.Storage;

namespace Daxlin.Service.Backups;

/// <summary>What making a backup and restoring one have in common: how they are asked, and what they say.</summary>
internal static class CopyCommand
{
    public static JsonSerializerOptions Form { get; } = new(JsonSerializerOptions.Web) { WriteIndented = true, Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping };

    /// <summary>The SHA-256 of a file, in hexadecimal letters.</summary>
    public static async Task<string> HashOf(string file, CancellationToken cancel)
    {
        await using var bytes = File.OpenRead(file);
        return Convert.ToHexStringLower(await SHA256.HashDataAsync(bytes, cancel));
    }

    public static async Task<int> Run(string[] arguments, Func<string, ServiceSettings, CancellationToken, Task<Backup>> make)
    {
        try
        {
            if (arguments is not [{ Length: > 0 } folder, .. var rest])
                throw new SettingsException("Say which folder holds the backup, or is to hold it.");
            var made = await make(Path.GetFullPath(folder), ServiceSettings.Parse(rest), CancellationToken.None);
            Console.WriteLine(JsonSerializer.Serialize(made, Form));
            return 0;
        }
        catch (SettingsException error)
        {
            await Console.Error.WriteLineAsync(error.Message);
            return 2;
        }
        catch (Exception error) when (StorageFaults.Of(error) is var (_, _, sentence))
        {
            await Console.Error.WriteLineAsync(sentence);
            return 4;
        }
    }
}
