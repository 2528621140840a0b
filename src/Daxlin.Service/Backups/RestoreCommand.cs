using System.Text.Json;
using Daxlin.Service.Captures.Notices;
using Daxlin.Service.History;
using Daxlin.Service.Outgoing;
using Daxlin.Service.Posting.Deliveries;
using Daxlin.Service.Schedules;
using Daxlin.Service.Sources;
using Daxlin.Service.Storage;

namespace Daxlin.Service.Backups;

/// <summary>Puts a backup into an empty data folder, or an empty database of a server with it: also the way from one to the other.</summary>
internal static class RestoreCommand
{
    public const string Argument = "restore";

    /// <param name="arguments">The folder that holds the backup, and <c>--data DIR --store CONNECTION</c>.</param>
    public static Task<int> Run(string[] arguments) => CopyCommand.Run(arguments, Make);

    private static async Task<Backup> Make(string of, ServiceSettings settings, CancellationToken cancel)
    {
        var copy = new DataFolder(of, isLookedAtOnly: true);
        var told = await Read(copy, cancel);
        await using var held = FolderLock.Take(settings.Data, settings.Node);
        var folder = new DataFolder(settings.Data, settings.Node);
        var target = Store.Of(settings, folder);
        if (folder.HasDocuments || !await target.IsEmpty(cancel))
            throw new SettingsException($"There is something in {folder.Root} already, or in its database. A backup is restored into an empty folder and an empty database.");
        var rows = await target.TakeFrom(copy, cancel);
        var (documents, _) = await target.Look(cancel);
        var (bytes, faults) = await KeptFiles.Copy(copy, folder, documents, Console.Error, cancel);
        await using var db = target.Open();
        if (await RestoredDeliveries.GiveUp(db, new StoredClock().GetUtcNow().UtcDateTime, cancel) is > 0 and var waited)
        {
            faults.Add(new DataFault(
                "deliveries", "deliveries-waited", $"{(waited == 1 ? "One delivery waited" : $"{waited} deliveries waited")} when the backup was made. Whether the receiver has it since, nobody can tell here: it is given up until a person sends it again or settles it."));
        }
        if (await SourceShelf.PauseRestored(db, new StoredClock().GetUtcNow().UtcDateTime, cancel) is > 0 and var sources)
        {
            faults.Add(new DataFault(
                "sources", "sources-paused", $"{(sources == 1 ? "One source is" : $"{sources} sources are")} paused: what the service took in that the backup was made of, nobody can tell here. Resume each once that one looks at it no more."));
        }
        if (await ScheduleShelf.PauseRestored(db, new StoredClock().GetUtcNow().UtcDateTime, cancel) is > 0 and var schedules)
        {
            faults.Add(new DataFault(
                "schedules", "schedules-paused", $"{(schedules == 1 ? "One schedule is" : $"{schedules} schedules are")} paused: what the service did by itself that the backup was made of, nobody can tell here. Resume each once that one is stopped."));
        }
        if (await RestoredMail.GiveUp(db, cancel) is > 0 and var answers)
        {
            faults.Add(new DataFault(
                "answers", "answers-waited", $"{(answers == 1 ? "One answer, letter or digest" : $"{answers} answers, letters and digests")} waited when the backup was made. Whether any was sent since, nobody can tell here: none is sent now."));
        }
        if (await AskingForNotice.GiveRestoredUp(db, cancel) is > 0 and var notices)
        {
            faults.Add(new DataFault(
                "notices", "notices-waited", $"{(notices == 1 ? "One notice" : $"{notices} notices")} of a captured document waited when the backup was made. Whether it was sent since, nobody can tell here: none is sent."));
        }
        var history = await HistoryVerification.Run(db, withRecords: true, cancel);
        if (!history.IsWhole)
            faults.Add(new DataFault("the history", "history-broken", history.Sentence));
        if (history.NewestSeal != told.NewestSeal)
            faults.Add(new DataFault("the history", "seal-differs", "The newest seal of the history is not the one that the backup was made with."));
        return told with { Rows = rows, Documents = documents.Count, Bytes = bytes, Faults = [.. faults] };
    }

    private static async Task<Backup> Read(DataFolder copy, CancellationToken cancel)
    {
        var said = Path.Combine(copy.Root, Backup.FileName);
        if (!File.Exists(said) || !File.Exists(copy.Database))
            throw new SettingsException($"{copy.Root} is no whole backup: it has no {(File.Exists(said) ? "database" : Backup.FileName)}. One that was broken off is to be made again.");
        var told = JsonSerializer.Deserialize<Backup>(await File.ReadAllTextAsync(said, cancel), CopyCommand.Form) ?? throw new SettingsException($"{said} says nothing.");
        return await CopyCommand.HashOf(copy.Database, cancel) == told.DatabaseSha256 ? told
            : throw new SettingsException($"The database in {copy.Root} is not the one that was backed up: its bytes were changed since.");
    }
}
