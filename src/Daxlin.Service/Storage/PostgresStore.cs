using System.Collections.Immutable;
using Microsoft.EntityFrameworkCore;
using Npgsql;

namespace Daxlin.Service.Storage;

/// <summary>A database of PostgreSQL, which several services may share.</summary>
/// <param name="connection">As its client library takes it: <c>Host=db.example.org;Database=daxlin;Username=daxlin</c>.</param>
internal sealed class PostgresStore(string connection) : Store
{
    /// <summary>The key of the lock that whoever changes something holds; any number that no other program on the database uses.</summary>
    private const long Turn = 0x4461786C696E;

    /// <summary>Connections whose sessions are not cleared between uses: nothing is left in one that the next could meet, since turns belong to transactions, and who listens has a connection alone.</summary>
    private static string Pooled(string connection) => new NpgsqlConnectionStringBuilder(connection) { NoResetOnClose = true }.ToString();

    /// <exception cref="SettingsException">It is no connection to a server.</exception>
    public static void Check(string connection)
    {
        try
        {
            if (new NpgsqlConnectionStringBuilder(connection) is { Host: { Length: > 0 }, Database: { Length: > 0 } })
                return;
        }
        catch (Exception error) when (error is ArgumentException or FormatException)
        {
            // What stands in it may hold a password, so it is not repeated.
        }
        throw new SettingsException("The store is named by how its server of PostgreSQL is reached: --store \"Host=db.example.org;Database=daxlin;Username=daxlin\". A password belongs in the variable DAXLIN_STORE, or in the file ~/.pgpass.");
    }

    /// <summary>A server's database, for a person.</summary>
    public static string Named(string connection)
    {
        var told = new NpgsqlConnectionStringBuilder(connection);
        return $"its database “{told.Database}” on {told.Host}";
    }

    public override string Title
    {
        get
        {
            var told = new NpgsqlConnectionStringBuilder(connection);
            return $"“{told.Database}” on {told.Host} (PostgreSQL)";
        }
    }

    public override Task<long> Bytes(DaxlinDb db, CancellationToken cancel) => db.Database.SqlQuery<long>($"""SELECT pg_database_size(current_database()) AS "Value" """).SingleAsync(cancel);

    public override void Configure(DbContextOptionsBuilder builder) => builder.UseNpgsql(Pooled(connection)).AddInterceptors(LostConnections.Instance);

    /// <remarks>
    /// Its migrations are its own: <see cref="PostgresDb"/>. Services that start at once go through them one after the other: the framework's own
    /// lock is let go between two of them.
    /// </remarks>
    public override async Task Migrate(DaxlinDb db)
    {
        await using var alone = new NpgsqlConnection(new NpgsqlConnectionStringBuilder(connection) { Pooling = false }.ToString());
        await alone.OpenAsync();
        await using (var wait = new NpgsqlCommand($"SELECT pg_advisory_lock({Turn + 1})", alone) { CommandTimeout = 0 })
            await wait.ExecuteNonQueryAsync();
        await using var own = new PostgresDb(Options);
        await own.Database.MigrateAsync();
    }

    public override async Task<bool> IsEmpty(CancellationToken cancel)
    {
        await using var db = Open();
        await Migrate(db);
        return !await db.History.AnyAsync(cancel) && !await db.Batches.AnyAsync(cancel) && !await db.Templates.AnyAsync(cancel) && !await db.Users.AnyAsync(cancel);
    }

    public override async Task<ImmutableSortedDictionary<string, int>> CopyTo(DataFolder copy, CancellationToken cancel)
    {
        var file = new SqliteStore(copy);
        await using var to = file.Open();
        await file.Migrate(to);
        await to.Database.ExecuteSqlRawAsync("PRAGMA journal_mode=DELETE;", cancel);
        await using var from = Open();
        return await DatabaseCopy.Run(from, to, cancel);
    }

    public override Task<ImmutableSortedDictionary<string, int>> TakeFrom(DataFolder copy, CancellationToken cancel) => SqliteStore.InNewestForm(
        copy,
        async from =>
        {
            await using var to = Open();
            await Migrate(to);
            return await DatabaseCopy.Run(from, to, cancel);
        },
        cancel);

    /// <remarks>Whether its own files are whole, the server says by its own ways.</remarks>
    public override async Task<(IReadOnlyList<string> Documents, IReadOnlyList<DataFault> Faults)> Look(CancellationToken cancel)
    {
        await using var db = Open();
        try
        {
            return (await Documents(db, cancel), []);
        }
        catch (Exception error) when (StorageFaults.Of(error) is var (_, code, sentence))
        {
            return ([], [new DataFault("the database server", code, sentence)]);
        }
    }

    /// <remarks>
    /// What a transaction reads once it has the lock is what the one before it has stored: each statement sees what was stored when it
    /// began (read committed). The server gives the lock on when the transaction ends, however it ends.
    /// </remarks>
    public override async Task TakeTurn(DaxlinDb db, CancellationToken cancel)
    {
        var usual = db.Database.GetCommandTimeout();
        // A posting run of another service may take minutes; who waits for it can give up by itself.
        db.Database.SetCommandTimeout(0);
        await db.Database.ExecuteSqlAsync($"SELECT pg_advisory_xact_lock({Turn})", cancel);
        db.Database.SetCommandTimeout(usual);
    }
}
