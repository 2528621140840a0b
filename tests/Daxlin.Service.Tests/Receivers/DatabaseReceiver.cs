using System.Diagnostics;
using System.Globalization;
using System.Text.Json.Nodes;
using Npgsql;

namespace Daxlin.Service.Tests.Receivers;

/// <summary>PostgreSQL with a database of its own, in a folder of passing use.</summary>
internal sealed class DatabaseReceiver : ITestReceiver
{
    private const string Password = "kittiwake";

    private readonly string folder;
    private readonly Process server;

    private DatabaseReceiver(int port, string folder, Process server) => (Port, this.folder, this.server) = (port, folder, server);

    public int Port { get; }

    public static async Task<DatabaseReceiver> Start()
    {
        var (folder, port) = (Directory.CreateTempSubdirectory("daxlin-pg-").FullName, Programs.FreePort());
        var programs = Directory.GetDirectories("/usr/lib/postgresql").Order(StringComparer.Ordinal).Last() + "/bin";
        await File.WriteAllTextAsync(Path.Combine(folder, "password"), Password);
        // It does not run as root; Debian's package has made a user for it.
        string[] prefix = Environment.UserName == "root" ? ["runuser", "-u", "postgres", "--"] : [];
        if (prefix.Length > 0)
            await Programs.Run("chown", "-R", "postgres", folder);
        string[] init = [.. prefix, $"{programs}/initdb", "-D", $"{folder}/data", "-U", "ledger", "-A", "scram-sha-256", "--pwfile", $"{folder}/password"];
        await Programs.Run(init[0], init[1..]);
        string[] serve = [.. prefix, $"{programs}/postgres", "-D", $"{folder}/data", "-p", port.ToString(CultureInfo.InvariantCulture), "-c", "listen_addresses=127.0.0.1", "-c", $"unix_socket_directories={folder}", "-c", "fsync=off"];
        var server = Process.Start(new ProcessStartInfo(serve[0], serve[1..]) { RedirectStandardError = true })!;
        _ = server.StandardError.ReadToEndAsync();
        await Programs.UntilListening(port);
        var made = new DatabaseReceiver(port, folder, server);
        for (var patience = Stopwatch.StartNew(); ;)
        {
            try
            {
                await made.Ask("SELECT 1");
                return made;
            }
            catch (PostgresException error) when (error.SqlState == PostgresErrorCodes.CannotConnectNow && patience.Elapsed < TimeSpan.FromSeconds(60))
            {
                await Task.Yield();
            }
        }
    }

    public (JsonObject Way, (string Name, string Value)[] Secrets) Described(int port) => (new()
    {
        ["postgresql"] = new JsonObject { ["host"] = "127.0.0.1", ["port"] = port, ["database"] = "postgres", ["user"] = "ledger", ["password"] = "ledger-tables" },
    }, [("ledger-tables", Password)]);

    public async Task<int> TimesOf(JsonNode run)
    {
        if (await Ask("SELECT to_regclass('daxlin.daxlin_runs')::text") is DBNull)
            return 0;
        var number = run["number"]!.GetValue<int>();
        var records = Convert.ToInt32(await Ask($"SELECT count(*) FROM daxlin.\"Headers\" WHERE daxlin_run = {number}"), CultureInfo.InvariantCulture);
        var runs = Convert.ToInt32(await Ask($"SELECT count(*) FROM daxlin.daxlin_runs WHERE run = {number}"), CultureInfo.InvariantCulture);
        Xunit.Assert.Equal(runs * run["invoices"]!.GetValue<int>(), records);
        return runs;
    }

    public async Task<object?> Ask(string sql)
    {
        await using var connection = new NpgsqlConnection($"Host=127.0.0.1;Port={Port};Username=ledger;Password={Password};Database=postgres;Pooling=false");
        await connection.OpenAsync();
        await using var command = new NpgsqlCommand(sql, connection);
        return await command.ExecuteScalarAsync();
    }

    public async ValueTask DisposeAsync()
    {
        server.Kill(entireProcessTree: true);
        await server.WaitForExitAsync();
        server.Dispose();
        Directory.Delete(folder, recursive: true);
    }
}
