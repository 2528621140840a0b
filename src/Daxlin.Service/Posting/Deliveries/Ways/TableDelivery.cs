using System.Net.Sockets;
using Daxlin.Service.Secrets;
using Daxlin.Core.History;
using Daxlin.Core.Posting.Expressions;
using Daxlin.Core.Posting.Layouts;
using Daxlin.Core.Posting.Receivers;
using Daxlin.Service.Posting.Receivers;
using Npgsql;
using NpgsqlTypes;

namespace Daxlin.Service.Posting.Deliveries.Ways;

/// <summary>Adds a run's records to tables in PostgreSQL, all in one transaction with the run's number, which is there once or not at all.</summary>
internal sealed class TableDelivery(IServiceScopeFactory scopes, SecretStore secrets) : IDeliveryWay<TableWay>
{
    /// <summary>The table of the runs that are there, beside those of the layout.</summary>
    private const string Runs = "daxlin_runs";

    /// <summary>The column with the run's number in each table of the layout.</summary>
    private const string RunColumn = "daxlin_run";

    public Task Prepare(Parcel parcel, TableWay way, CancellationToken cancel)
    {
        ConnectionOf(way);
        return Task.CompletedTask;
    }

    public Task<string> HandOver(Parcel parcel, TableWay way, bool isResumed, CancellationToken cancel) => With(way, async connection =>
    {
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        await MakeRuns(connection, way, cancel);
        if (await SinceOf(connection, parcel, way, cancel) is { } since)
            return $"Run {parcel.Run.Number} is in {way.Place} since {since:yyyy-MM-dd HH:mm} UTC.";
        var counts = await Copy(connection, parcel, way, cancel);
        await transaction.CommitAsync(cancel);
        return $"Added to {way.Place}: {string.Join(", ", counts.Select(one => $"{one.Count} in {one.Table}"))}.";
    }, cancel);

    public Task<string> Reach(TableWay way, CancellationToken cancel) => With(way, async connection =>
    {
        await using var command = new NpgsqlCommand("SELECT has_database_privilege(current_database(), 'CREATE') OR has_schema_privilege(to_regnamespace(@schema), 'CREATE')", connection);
        command.Parameters.AddWithValue("schema", way.Schema);
        return await command.ExecuteScalarAsync(cancel) is true ? $"{way.Host} takes {way.User}, and tables can be made in {way.Schema} of {way.Database}."
            : throw new DeliveryFaultException($"{way.User} may make no tables in schema {way.Schema} of {way.Database}.", nothingReached: true);
    }, cancel);

    private static async Task MakeRuns(NpgsqlConnection connection, TableWay way, CancellationToken cancel)
    {
        // Two deliveries that begin at once would both find no table; the second waits here until the first has ended.
        await Execute(connection, "SELECT pg_advisory_xact_lock(hashtext('daxlin ' || @schema))", cancel, ("schema", way.Schema));
        await Execute(
            connection,
            $"""
            DO $$ BEGIN IF to_regnamespace('{way.Schema}') IS NULL THEN CREATE SCHEMA {Quoted(way.Schema)}; END IF; END $$;
            CREATE TABLE IF NOT EXISTS {Named(way, Runs)} (
                run integer PRIMARY KEY, content text NOT NULL, made_at timestamptz NOT NULL, made_by text NOT NULL, layout text NOT NULL, layout_version integer NOT NULL,
                reverses integer, invoices integer NOT NULL, sums jsonb NOT NULL, added_at timestamptz NOT NULL DEFAULT now());
            """, cancel);
    }

    /// <summary>Since when the run is there, if it is; else it is entered.</summary>
    private static async Task<DateTime?> SinceOf(NpgsqlConnection connection, Parcel parcel, TableWay way, CancellationToken cancel)
    {
        var content = HistoryChain.ContentOf(string.Join('\n', parcel.Files.Select(file => $"{file.Sha256} {file.Name}")));
        await using (var command = new NpgsqlCommand($"SELECT content, added_at FROM {Named(way, Runs)} WHERE run = @run", connection))
        {
            command.Parameters.AddWithValue("run", parcel.Run.Number);
            await using var row = await command.ExecuteReaderAsync(cancel);
            if (await row.ReadAsync(cancel))
            {
                return row.GetString(0) == content ? row.GetDateTime(1).ToUniversalTime() : throw new DeliveryFaultException(
                    $"There is another run {parcel.Run.Number} in {way.Place}, which did not come from here. Give this receiver a schema of its own.", nothingReached: true);
            }
        }
        var run = parcel.Run;
        await Execute(
            connection,
            $"INSERT INTO {Named(way, Runs)} (run, content, made_at, made_by, layout, layout_version, reverses, invoices, sums) VALUES (@run, @content, @at, @by, @layout, @version, @reverses, @invoices, @sums::jsonb)",
            cancel, ("run", run.Number), ("content", content), ("at", run.At), ("by", run.By), ("layout", run.Layout), ("version", run.LayoutVersion), ("reverses", (object?)run.Reverses ?? DBNull.Value),
            ("invoices", run.Invoices), ("sums", run.Sums));
        return null;
    }

    /// <summary>Copies the records in, table by table: a line to the database takes one copy at a time, and a run may be larger than memory.</summary>
    /// <returns>How many there are in each.</returns>
    private async Task<List<(string Table, int Count)>> Copy(NpgsqlConnection connection, Parcel parcel, TableWay way, CancellationToken cancel)
    {
        await using var scope = scopes.CreateAsyncScope();
        var counts = new List<(string Table, int Count)>();
        LayoutTable? table = null;
        NpgsqlBinaryImporter? copy = null;
        try
        {
            var refused = await scope.ServiceProvider.GetRequiredService<PostingRuns>().Again(parcel.Run, Begin, Add, cancel);
            if (refused is not null)
                throw new DeliveryFaultException(refused.Sentence, nothingReached: true);
            await End();
            return counts;
        }
        finally
        {
            if (copy is not null)
                await copy.DisposeAsync();
        }

        async Task Begin(LayoutTable next)
        {
            await End();
            table = next;
            var columns = next.Columns.Select(column => (Name: Quoted(column.Heading), TypeOf(column.Value.Type).Sql)).ToList();
            await Execute(
                connection,
                $"CREATE TABLE IF NOT EXISTS {Named(way, next.Name)} ({RunColumn} integer NOT NULL REFERENCES {Named(way, Runs)} (run){string.Concat(columns.Select(column => $", {column.Name} {column.Sql}"))})",
                cancel);
            copy = await connection.BeginBinaryImportAsync(
                $"COPY {Named(way, next.Name)} ({RunColumn}{string.Concat(columns.Select(column => $", {column.Name}"))}) FROM STDIN (FORMAT BINARY)", cancel);
            counts.Add((next.Name, 0));
        }

        async Task Add(LaidOutInvoice invoice)
        {
            foreach (var record in invoice.Records.Where(record => record.Table.Name == table!.Name))
            {
                await copy!.StartRowAsync(cancel);
                await copy.WriteAsync(parcel.Run.Number, NpgsqlDbType.Integer, cancel);
                for (var at = 0; at < record.Values.Length; at++)
                {
                    if (record.Values[at] is { } value)
                        await copy.WriteAsync(value, TypeOf(table!.Columns[at].Value.Type).Kind, cancel);
                    else
                        await copy.WriteNullAsync(cancel);
                }
                counts[^1] = (counts[^1].Table, counts[^1].Count + 1);
            }
        }

        async Task End()
        {
            if (copy is null)
                return;
            await copy.CompleteAsync(cancel);
            await copy.DisposeAsync();
            copy = null;
        }
    }

    private static (string Sql, NpgsqlDbType Kind) TypeOf(ExpressionType type) => type switch
    {
        ExpressionType.Number => ("numeric", NpgsqlDbType.Numeric),
        ExpressionType.Date => ("date", NpgsqlDbType.Date),
        ExpressionType.YesNo => ("boolean", NpgsqlDbType.Boolean),
        _ => ("text", NpgsqlDbType.Text),
    };

    private async Task<string> With(TableWay way, Func<NpgsqlConnection, Task<string>> act, CancellationToken cancel)
    {
        try
        {
            await using var connection = new NpgsqlConnection(ConnectionOf(way));
            await connection.OpenAsync(cancel);
            return await act(connection);
        }
        catch (PostgresException error)
        {
            // Whatever it refuses, the transaction is taken back.
            throw new DeliveryFaultException(
                error.SqlState switch
                {
                    PostgresErrorCodes.InvalidPassword or PostgresErrorCodes.InvalidAuthorizationSpecification => $"{way.Host} does not take {way.User}'s password.",
                    PostgresErrorCodes.InvalidCatalogName => $"There is no database {way.Database} at {way.Host}.",
                    _ => $"{way.Place} refused it: {error.MessageText}.",
                },
                nothingReached: true, inner: error);
        }
        catch (Exception error) when (error is NpgsqlException or SocketException or IOException or TimeoutException)
        {
            throw new DeliveryFaultException($"{way.Host}:{way.Port} could not be reached or broke off: {error.Message}.", inner: error);
        }
    }

    private string ConnectionOf(TableWay way) => new NpgsqlConnectionStringBuilder
    {
        Host = way.Host,
        Port = way.Port,
        Database = way.Database,
        Username = way.User,
        Password = way.Password.Length == 0 ? null : secrets.Needed(way.Password),
        ApplicationName = "Daxlin",
        // A line for each delivery: they are few, and a server that was restarted meanwhile has cut those that were kept.
        Pooling = false,
    }.ConnectionString;

    private static async Task Execute(NpgsqlConnection connection, string sql, CancellationToken cancel, params (string Name, object Value)[] values)
    {
        await using var command = new NpgsqlCommand(sql, connection);
        foreach (var (name, value) in values)
            command.Parameters.AddWithValue(name, value);
        await command.ExecuteNonQueryAsync(cancel);
    }

    private static string Named(TableWay way, string table) => $"{Quoted(way.Schema)}.{Quoted(table)}";

    private static string Quoted(string name) => $"\"{name.Replace("\"", "\"\"", StringComparison.Ordinal)}\"";
}
