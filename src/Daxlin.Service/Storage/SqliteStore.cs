using System.Collections.Immutable;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Storage;

/// <summary>A database that is a file of the data folder, which this process alone holds.</summary>
internal sealed class SqliteStore(DataFolder folder) : Store
{
    public override string Title => "a file of the data folder";

    public override Task<long> Bytes(DaxlinDb db, CancellationToken cancel) =>
        Task.FromResult(new[] { folder.Database, folder.Database + "-wal" }.Where(File.Exists).Sum(file => new FileInfo(file).Length));

    public override void Configure(DbContextOptionsBuilder builder) => builder.UseSqlite($"Data Source={folder.Database}");

    public override async Task<(IReadOnlyList<string> Documents, IReadOnlyList<DataFault> Faults)> Look(CancellationToken cancel)
    {
        if (!File.Exists(folder.Database))
            return ([], [new DataFault("daxlin.db", "database-missing", $"There is no database in {folder.Root}.")]);
        var (documents, faults) = (new List<string>(), new List<DataFault>());
        try
        {
            await using var connection = new SqliteConnection(new SqliteConnectionStringBuilder { DataSource = folder.Database, Mode = SqliteOpenMode.ReadOnly, Pooling = false }.ToString());
            await using var db = new DaxlinDb(new DbContextOptionsBuilder<DaxlinDb>().UseSqlite(connection).Options);
            foreach (var said in await db.Database.SqlQueryRaw<string>("PRAGMA integrity_check").ToListAsync(cancel))
            {
                if (said != "ok")
                    faults.Add(new DataFault("daxlin.db", "database-damaged", $"The database is damaged: {said}."));
            }
            documents = await Documents(db, cancel);
        }
        catch (SqliteException error)
        {
            faults.Add(new DataFault("daxlin.db", "database-damaged", StorageFaults.Of(error)?.Sentence ?? "The database cannot be read."));
        }
        return (documents, faults);
    }

    public override Task<bool> IsEmpty(CancellationToken cancel) => Task.FromResult(!File.Exists(folder.Database));

    /// <remarks>By the database's own online copy: what a service commits meanwhile is in it or not, never in part.</remarks>
    public override async Task<ImmutableSortedDictionary<string, int>> CopyTo(DataFolder copy, CancellationToken cancel)
    {
        if (!File.Exists(folder.Database))
            throw new SettingsException($"There is no database in {folder.Root}.");
        await using (var from = new SqliteConnection(new SqliteConnectionStringBuilder { DataSource = folder.Database, Mode = SqliteOpenMode.ReadOnly, Pooling = false }.ToString()))
        await using (var to = new SqliteConnection(new SqliteConnectionStringBuilder { DataSource = copy.Database, Pooling = false }.ToString()))
        {
            await from.OpenAsync(cancel);
            await to.OpenAsync(cancel);
            from.BackupDatabase(to);
            await using var alone = to.CreateCommand();
            // One file that is whole by itself, without a log beside it.
            alone.CommandText = "PRAGMA journal_mode=DELETE;";
            await alone.ExecuteNonQueryAsync(cancel);
        }
        await using var db = new SqliteStore(copy).Open();
        return await Rows(db, cancel);
    }

    public override async Task<ImmutableSortedDictionary<string, int>> TakeFrom(DataFolder copy, CancellationToken cancel)
    {
        File.Copy(copy.Database, folder.Database);
        await using var db = Open();
        await MakeNewest(db);
        return await Rows(db, cancel);
    }

    /// <summary>Does something with what a file holds, in the newest form, whichever release made the file. The file stays as it is.</summary>
    public static async Task<T> InNewestForm<T>(DataFolder file, Func<DaxlinDb, Task<T>> act, CancellationToken cancel)
    {
        var passing = new DataFolder(Directory.CreateTempSubdirectory("daxlin-copy-").FullName);
        try
        {
            await using (var from = File.OpenRead(file.Database))
            await using (var to = File.Create(passing.Database))
                await from.CopyToAsync(to, cancel);
            var store = new SqliteStore(passing);
            await using var db = store.Open();
            await store.MakeNewest(db);
            return await act(db);
        }
        finally
        {
            LetGo(passing);
            Directory.Delete(passing.Root, recursive: true);
        }
    }

    private async Task MakeNewest(DaxlinDb db)
    {
        await Migrate(db);
        await EarlierReleases.TakeOver(db, new StoredClock().GetUtcNow().UtcDateTime);
    }

    /// <summary>Closes what is kept open to a file, so that it is whole and can be moved.</summary>
    public static void LetGo(DataFolder copy)
    {
        using var kept = new SqliteConnection($"Data Source={copy.Database}");
        SqliteConnection.ClearPool(kept);
    }

    private static async Task<ImmutableSortedDictionary<string, int>> Rows(DaxlinDb db, CancellationToken cancel)
    {
        var rows = ImmutableSortedDictionary.CreateBuilder<string, int>(StringComparer.Ordinal);
        // A file that no service of this release has started on may lack some.
        var there = await db.Database.SqlQueryRaw<string>("SELECT name AS \"Value\" FROM sqlite_master WHERE type = 'table'").ToListAsync(cancel);
        foreach (var table in db.Model.GetEntityTypes().Where(type => !DaxlinDb.IsPassing(type.ClrType)).Select(type => type.GetTableName()!).Intersect(there))
        {
#pragma warning disable EF1002 // Names of the model's own tables.
            rows[table] = (await db.Database.SqlQueryRaw<int>($"SELECT COUNT(*) AS \"Value\" FROM \"{table}\"").ToListAsync(cancel))[0];
#pragma warning restore EF1002
        }
        return rows.ToImmutable();
    }

    public override async Task Migrate(DaxlinDb db)
    {
        if (!File.Exists(folder.Database) && folder.HasDocuments)
            throw new StorageException("database-missing", $"{folder.Root} holds documents but no database (daxlin.db). Restore the database from a backup, or name an empty folder with --data; Daxlin does not begin anew beside documents it knows nothing of.");
        // A start that was killed while it changed the database leaves its mark there. This process alone holds the folder,
        // so whoever set the mark is dead; waiting for it would never end.
        await db.Database.ExecuteSqlRawAsync("DROP TABLE IF EXISTS \"__EFMigrationsLock\";");
        await db.Database.MigrateAsync();
        // Write-ahead logging: readers do not wait for the writer, and a kill loses nothing that was committed.
        await db.Database.ExecuteSqlRawAsync("PRAGMA journal_mode=WAL;");
    }

    /// <remarks>A transaction of this database holds off all others from its beginning.</remarks>
    public override Task TakeTurn(DaxlinDb db, CancellationToken cancel) => Task.CompletedTask;
}
