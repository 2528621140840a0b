using System.Collections.Concurrent;
using System.Data.Common;
using Microsoft.Data.Sqlite;
using Npgsql;

namespace Daxlin.Testing;

/// <summary>The databases that services under test store in: files of their folders; or, where DAXLIN_TEST_STORE is “postgresql”, those of a server that the tests start.</summary>
public static class StoreUnderTest
{
    private static readonly Lazy<Task<PostgresServer>> Server = new(StartServer);

    /// <summary>By the folder of the service that stores in it.</summary>
    private static readonly ConcurrentDictionary<string, Lazy<Task<string>>> Databases = new(StringComparer.Ordinal);

    public static bool IsServer { get; } = Environment.GetEnvironmentVariable("DAXLIN_TEST_STORE") == "postgresql";

    /// <summary>What a service is told, to store in the database that belongs to its folder.</summary>
    public static async Task<string[]> Arguments(string data) => IsServer ? ["--store", (await Server.Value).Reached(await NameOf(data, null)) + ";Connection Idle Lifetime=2;Connection Pruning Interval=1"] : [];

    /// <summary>Changes rows as someone would who can write to the database, behind the service's back.</summary>
    /// <returns>How many rows.</returns>
    public static async Task<int> Change(string data, string statement)
    {
        if (!IsServer)
            return await ChangeFile(data, statement);
        await using var connection = new NpgsqlConnection((await Server.Value).Reached(await NameOf(data, null)) + ";Pooling=False");
        return await Change(connection, statement);
    }

    /// <summary>The same of a service that stores in its folder.</summary>
    public static async Task<int> ChangeFile(string data, string statement)
    {
        await using var connection = new SqliteConnection($"Data Source={Path.Combine(data, "daxlin.db")};Pooling=False");
        return await Change(connection, statement);
    }

    private static async Task<int> Change(DbConnection connection, string statement)
    {
        await connection.OpenAsync();
        await using var command = connection.CreateCommand();
#pragma warning disable CA2100 // Statements of tests.
        command.CommandText = statement;
#pragma warning restore CA2100
        return await command.ExecuteNonQueryAsync();
    }

    /// <summary>Gives a folder a database that is a copy of another's.</summary>
    public static async Task Copy(string from, string to)
    {
        if (IsServer)
            await NameOf(to, await NameOf(from, null));
    }

    private static Task<string> NameOf(string data, string? like) => Databases.GetOrAdd(data, _ => new(() => Make(like))).Value;

    private static async Task<string> Make(string? like)
    {
        var name = $"test-{Guid.NewGuid():N}";
        await (await Server.Value).Make(name, like);
        return name;
    }

    private static async Task<PostgresServer> StartServer()
    {
        var server = await PostgresServer.Start();
        AppDomain.CurrentDomain.ProcessExit += (_, _) => server.EndWithProcess();
        return server;
    }
}
