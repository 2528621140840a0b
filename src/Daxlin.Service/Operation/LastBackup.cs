using System.Text.Json;
using Daxlin.Service.Backups;
using Daxlin.Service.Storage;

namespace Daxlin.Service.Operation;

/// <summary>When a backup of the data was made last, as it stands in the data folder.</summary>
/// <param name="Folder">Where it was put then.</param>
/// <param name="Faults">How much was missing or altered already.</param>
internal sealed record LastBackup(DateTime At, string Folder, int Documents, int Invoices, int Faults)
{
    private const string FileName = "last-backup.json";

    /// <summary>Null if none was made, or nobody can read when.</summary>
    public static LastBackup? Of(DataFolder folder)
    {
        try
        {
            return JsonSerializer.Deserialize<LastBackup>(File.ReadAllText(Path.Combine(folder.Root, FileName)), JsonSerializerOptions.Web);
        }
        catch (Exception error) when (error is IOException or UnauthorizedAccessException or JsonException)
        {
            return null;
        }
    }

    /// <summary>Notes it down beside the data. A backup is whole without that: a folder that cannot be written may be just why it is made.</summary>
    public static void Keep(DataFolder folder, string target, Backup made)
    {
        var part = Path.Combine(folder.Root, $"{FileName}.{Guid.NewGuid():N}");
        try
        {
            File.WriteAllText(part, JsonSerializer.Serialize(new LastBackup(made.At, target, made.Documents, made.Rows.GetValueOrDefault("Invoices"), made.Faults.Length), JsonSerializerOptions.Web));
            File.Move(part, Path.Combine(folder.Root, FileName), overwrite: true);
        }
        catch (Exception error) when (error is IOException or UnauthorizedAccessException)
        {
            Console.Error.WriteLine($"That this backup was made could not be noted down in {folder.Root}: {error.Message}");
        }
    }
}
