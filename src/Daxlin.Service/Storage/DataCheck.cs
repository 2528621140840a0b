using System.Text.Json;
using Microsoft.Data.Sqlite;

namespace Daxlin.Service.Storage;

/// <summary>Looks through a data folder for what is missing or altered. It changes nothing, and a service may run meanwhile.</summary>
internal static class DataCheck
{
    public const string Argument = "check-data";

    /// <param name="arguments"><c>--data DIR</c>.</param>
    public static async Task<int> Run(string[] arguments)
    {
        try
        {
            var result = await Look(ServiceSettings.Parse(arguments).Data, CancellationToken.None);
            Console.WriteLine(JsonSerializer.Serialize(result, JsonSerializerOptions.Web));
            return 0;
        }
        catch (SettingsException error)
        {
            await Console.Error.WriteLineAsync(error.Message);
            return 2;
        }
    }

    private static async Task<DataChecked> Look(string data, CancellationToken cancel)
    {
        var root = Path.GetFullPath(data);
        var database = Path.Combine(root, "daxlin.db");
        if (!File.Exists(database))
            return new DataChecked(root, 0, [new DataFault("daxlin.db", "database-missing", $"There is no database in {root}.")]);
        var faults = new List<DataFault>();
        var documents = 0;
        try
        {
            await using var connection = new SqliteConnection(new SqliteConnectionStringBuilder { DataSource = database, Mode = SqliteOpenMode.ReadOnly, Pooling = false }.ToString());
            await connection.OpenAsync(cancel);
            foreach (var said in await Column(connection, "PRAGMA integrity_check", cancel))
            {
                if (said != "ok")
                    faults.Add(new DataFault("daxlin.db", "database-damaged", $"The database is damaged: {said}."));
            }
            var store = new DocumentStore(new DataFolder(root, isLookedAtOnly: true));
            foreach (var sha256 in await Column(connection, "SELECT DISTINCT \"Sha256\" FROM \"Intakes\" ORDER BY 1", cancel))
            {
                documents++;
                if (await store.FaultOf(sha256, cancel) is var (code, sentence))
                    faults.Add(new DataFault($"documents/{sha256[..2]}/{sha256}", code, sentence));
            }
        }
        catch (SqliteException error)
        {
            faults.Add(new DataFault("daxlin.db", "database-damaged", StorageFaults.Of(error)?.Sentence ?? "The database cannot be read."));
        }
        return new DataChecked(root, documents, faults);
    }

    private static async Task<List<string>> Column(SqliteConnection connection, string query, CancellationToken cancel)
    {
        await using var command = connection.CreateCommand();
#pragma warning disable CA2100 // The queries are constants of this file.
        command.CommandText = query;
#pragma warning restore CA2100
        await using var reader = await command.ExecuteReaderAsync(cancel);
        var values = new List<string>();
        while (await reader.ReadAsync(cancel))
            values.Add(reader.GetString(0));
        return values;
    }
}

/// <param name="Data">The folder.</param>
/// <param name="Documents">How many documents the database knows.</param>
internal sealed record DataChecked(string Data, int Documents, IReadOnlyList<DataFault> Faults);

/// <param name="File">Which file of the folder is concerned.</param>
internal sealed record DataFault(string File, string Code, string Sentence);
