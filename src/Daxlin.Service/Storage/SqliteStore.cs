using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Storage;

/// <summary>A database that is a file of the data folder, which this process alone holds.</summary>
internal sealed class SqliteStore(DataFolder folder) : Store
{
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
