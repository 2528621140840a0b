using System.Text.Json;
using Daxlin.Service.History;
using Daxlin.Service.Operation;
using Daxlin.Service.Storage;

namespace Daxlin.Service.Backups;

/// <summary>Makes a copy of all that a service has stored, while it runs. The copy is a data folder, whatever the database was.</summary>
internal static class BackupCommand
{
    public const string Argument = "backup";

    /// <param name="arguments">The folder that is to hold it, and <c>--data DIR --store CONNECTION</c>.</param>
    public static Task<int> Run(string[] arguments) => CopyCommand.Run(arguments, Make);

    private static async Task<Backup> Make(string target, ServiceSettings settings, CancellationToken cancel)
    {
        if (Directory.Exists(target) && Directory.EnumerateFileSystemEntries(target).Any())
            throw new SettingsException($"There is something in {target} already. A backup wants a folder of its own.");
        var folder = new DataFolder(settings.Data, isLookedAtOnly: true);
        var source = Store.Of(settings, folder);
        DataFolder.Secure(target);
        var copy = new DataFolder(target);
        var at = new StoredClock().GetUtcNow().UtcDateTime;
        var rows = await source.CopyTo(copy, cancel);
        var (documents, _) = await new SqliteStore(copy).Look(cancel);
        var (bytes, faults) = await KeptFiles.Copy(folder, copy, documents, Console.Error, cancel);
        SqliteStore.LetGo(copy);
        var history = await SqliteStore.InNewestForm(copy, db => HistoryVerification.Run(db, withRecords: true, cancel), cancel);
        if (!history.IsWhole)
            faults.Add(new DataFault("the history", "history-broken", history.Sentence));
        Directory.Delete(copy.Incoming);
        var made = new Backup(at, rows, documents.Count, bytes, await CopyCommand.HashOf(copy.Database, cancel), history.NewestSeal, [.. faults]);
        await File.WriteAllTextAsync(Path.Combine(target, Backup.FileName), JsonSerializer.Serialize(made, CopyCommand.Form), cancel);
        LastBackup.Keep(folder, target, made);
        return made;
    }
}
