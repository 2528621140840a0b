using System.Collections.Immutable;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Storage;

/// <summary>Which database the service stores in: what is the same to all who read and write it is <see cref="DaxlinDb"/>, what is not is here.</summary>
internal abstract class Store
{
    /// <param name="folder">Of the service, whose file is the database where none is named.</param>
    public static Store Of(ServiceSettings settings, DataFolder folder) => settings.Store.Length > 0 ? new PostgresStore(settings.Store) : new SqliteStore(folder);

    /// <summary>What it is called to whoever operates it; no passwords.</summary>
    public abstract string Title { get; }

    /// <summary>How large it is, in bytes.</summary>
    public abstract Task<long> Bytes(DaxlinDb db, CancellationToken cancel);

    /// <summary>Has contexts work on it.</summary>
    public abstract void Configure(DbContextOptionsBuilder builder);

    /// <summary>A context of its own, outside of any service.</summary>
    public DaxlinDb Open() => new(Options);

    protected DbContextOptions<DaxlinDb> Options
    {
        get
        {
            var options = new DbContextOptionsBuilder<DaxlinDb>();
            Configure(options);
            return options.Options;
        }
    }

    /// <summary>Says that nothing was ever stored in it, or that it is not there.</summary>
    /// <remarks>Of a server's database, the tables are made for the question.</remarks>
    public abstract Task<bool> IsEmpty(CancellationToken cancel);

    /// <summary>Makes a file of all that it holds at one moment, while a service may run on it.</summary>
    /// <returns>How many rows each table has.</returns>
    public abstract Task<ImmutableSortedDictionary<string, int>> CopyTo(DataFolder copy, CancellationToken cancel);

    /// <summary>Takes over all of such a file, whichever release made it. Only for one that is empty.</summary>
    /// <returns>How many rows each table has.</returns>
    public abstract Task<ImmutableSortedDictionary<string, int>> TakeFrom(DataFolder copy, CancellationToken cancel);

    /// <summary>Brings the database to the newest form, or makes it.</summary>
    public abstract Task Migrate(DaxlinDb db);

    /// <summary>Looks through the database and changes nothing, whether a service runs on it or not.</summary>
    /// <returns>The hashes of all documents that it knows, in their order, and what is wrong with it.</returns>
    public abstract Task<(IReadOnlyList<string> Documents, IReadOnlyList<DataFault> Faults)> Look(CancellationToken cancel);

    protected static async Task<List<string>> Documents(DaxlinDb db, CancellationToken cancel)
    {
        var documents = db.Intakes.Select(intake => intake.Sha256);
        // A database that an earlier release left is looked through as it is.
        if (!(await db.Database.GetPendingMigrationsAsync(cancel)).Any(migration => migration.EndsWith("_Sources", StringComparison.Ordinal)))
            documents = documents.Union(db.SourceItems.Where(item => item.Sha256 != "").Select(item => item.Sha256));
        return await documents.Distinct().OrderBy(sha256 => sha256).ToListAsync(cancel);
    }

    /// <summary>Waits, within a transaction that was just begun, until no other process that shares the database is changing it.</summary>
    public abstract Task TakeTurn(DaxlinDb db, CancellationToken cancel);
}
