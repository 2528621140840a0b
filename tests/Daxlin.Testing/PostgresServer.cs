using System.Diagnostics;
using System.Globalization;
using Npgsql;

namespace Daxlin.Testing;

/// <summary>A server of PostgreSQL on loopback, in a folder of passing use.</summary>
public sealed class PostgresServer : IAsyncDisposable
{
    public const string User = "ledger";
    public const string Password = "kittiwake";

    /// <summary>The database that every server has.</summary>
    public const string FirstDatabase = "postgres";

    private readonly string folder;
    private Process server;

    private PostgresServer(int port, string folder, Process server) => (Port, this.folder, this.server) = (port, folder, server);

    public int Port { get; }

    public static async Task<PostgresServer> Start()
    {
        var (folder, port) = (Directory.CreateTempSubdirectory("daxlin-pg-").FullName, Programs.FreePort());
        await File.WriteAllTextAsync(Path.Combine(folder, "password"), Password);
        if (Prefix.Length > 0)
            await Programs.Run("chown", "-R", "postgres", folder);
        string[] init = [.. Prefix, $"{Binaries}/initdb", "-D", $"{folder}/data", "-U", User, "-A", "scram-sha-256", "--pwfile", $"{folder}/password", "--no-sync"];
        await Programs.Run(init[0], init[1..]);
        var made = new PostgresServer(port, folder, Serve(folder, port));
        await made.UntilReady();
        return made;
    }

    /// <summary>Ends the server without letting it put anything in order: what it had confirmed it finds in its log when it starts again.</summary>
    public async Task Stop()
    {
        if (server.HasExited)
            return;
        // SIGQUIT is its immediate shutdown. Killed outright, it would leave processes that keep the next one from the data.
        await Programs.Run("kill", "-QUIT", File.ReadLines($"{folder}/data/postmaster.pid").First());
        await server.WaitForExitAsync();
    }

    /// <summary>The same, if it still runs, and starts it anew on the same data.</summary>
    public async Task Restart()
    {
        await Stop();
        server.Dispose();
        server = Serve(folder, Port);
        await UntilReady();
    }

    /// <summary>Makes a database.</summary>
    /// <param name="like">The database that it is a copy of; null for an empty one.</param>
    /// <returns>How it is reached.</returns>
    public async Task<string> Make(string name, string? like = null)
    {
        if (like is not null)
            await Ask($"SELECT count(pg_terminate_backend(pid)) FROM pg_stat_activity WHERE datname = '{like}'");
        await Ask($"CREATE DATABASE \"{name}\"{(like is null ? "" : $" TEMPLATE \"{like}\"")}");
        return Reached(name);
    }

    public string Reached(string database) => $"Host=127.0.0.1;Port={Port};Username={User};Password={Password};Database={database}";

    public async Task<object?> Ask(string sql, string database = FirstDatabase)
    {
        await using var connection = new NpgsqlConnection(Reached(database) + ";Pooling=false");
        await connection.OpenAsync();
        await using var command = new NpgsqlCommand(sql, connection);
        return await command.ExecuteScalarAsync();
    }

    private static string Binaries => Directory.GetDirectories("/usr/lib/postgresql").Order(StringComparer.Ordinal).Last() + "/bin";

    /// <summary>It does not run as root; Debian's package has made a user for it.</summary>
    private static string[] Prefix => Environment.UserName == "root" ? ["runuser", "-u", "postgres", "--"] : [];

    private static Process Serve(string folder, int port)
    {
        string[] serve = [.. Prefix, $"{Binaries}/postgres", "-D", $"{folder}/data", "-p", port.ToString(CultureInfo.InvariantCulture), "-c", "listen_addresses=127.0.0.1", "-c", $"unix_socket_directories={folder}", "-c", "fsync=off", "-c", "max_connections=500"];
        var server = Process.Start(new ProcessStartInfo(serve[0], serve[1..]) { RedirectStandardError = true })!;
        _ = server.StandardError.ReadToEndAsync();
        return server;
    }

    private async Task UntilReady()
    {
        await Programs.UntilListening(Port);
        for (var patience = Stopwatch.StartNew(); ;)
        {
            try
            {
                await Ask("SELECT 1");
                return;
            }
            catch (PostgresException error) when (error.SqlState == PostgresErrorCodes.CannotConnectNow && patience.Elapsed < TimeSpan.FromSeconds(60))
            {
                await Task.Yield();
            }
        }
    }

    /// <summary>For the end of this process, when nothing can be waited for any more: its own processes notice, and end.</summary>
    public void EndWithProcess()
    {
        server.Kill(entireProcessTree: true);
        Directory.Delete(folder, recursive: true);
    }

    public async ValueTask DisposeAsync()
    {
        await Stop();
        server.Dispose();
        Directory.Delete(folder, recursive: true);
    }
}
