using System.Globalization;
using System.Text.Json.Nodes;
using Daxlin.Testing;

namespace Daxlin.Service.Tests.Receivers;

/// <summary>PostgreSQL as a ledger's database.</summary>
internal sealed class DatabaseReceiver : ITestReceiver
{
    private readonly PostgresServer server;

    private DatabaseReceiver(PostgresServer server) => this.server = server;

    public int Port => server.Port;

    public static async Task<DatabaseReceiver> Start() => new(await PostgresServer.Start());

    public (JsonObject Way, (string Name, string Value)[] Secrets) Described(int port) => (new()
    {
        ["postgresql"] = new JsonObject { ["host"] = "127.0.0.1", ["port"] = port, ["database"] = PostgresServer.FirstDatabase, ["user"] = PostgresServer.User, ["password"] = "ledger-tables" },
    }, [("ledger-tables", PostgresServer.Password)]);

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

    public Task<object?> Ask(string sql) => server.Ask(sql);

    public ValueTask DisposeAsync() => server.DisposeAsync();
}
