using System.Diagnostics;
using System.Globalization;
using System.Text;
using System.Text.Json.Nodes;
using Daxlin.Testing;
using Microsoft.Data.Sqlite;
using Microsoft.VisualBasic.FileIO;
using Spectre.Console;

namespace Daxlin.ServiceBench;

/// <summary>
/// Posting runs over thousands of approved invoices with the demo's rows and traces, by layouts of each form, and their way back,
/// beside the bare work of cutting the same CSV file into cells.
/// </summary>
internal static class PostingBench
{
    private const string Columns = """
        "vendor", "invoiceNumber", "invoiceDate", "line", "itemCode", { "heading": "text", "value": "description", "width": 60, "cut": true }, "quantity", "unitPrice",
        { "heading": "amount", "value": "amount", "decimals": 2, "proves": "lines" }, "currency", { "heading": "half", "value": "amount * 0.5 rounded if description contains 'diesel' else amount" }
        """;

    public static async Task Run(int invoices, string[]? only = null)
    {
        var table = new Table { Border = TableBorder.Simple };
        table.AddColumns("", "seconds", "records", "MB", "most memory, MB");
        byte[] csv = [];
        foreach (var format in only ?? ["csv", "xlsx", "ndjson", "every value"])
        {
            // Each in a service of its own, so that its memory is its own.
            await using var service = await WithInvoices(invoices);
            var request = new JsonObject { ["allBatches"] = true };
            if (format != "every value")
            {
                using var saved = await service.Http.PostAsync(
                    new Uri("posting-layouts", UriKind.Relative),
                    new StringContent($$"""{ "name": "bench", "tables": [{ "records": "lines", "columns": [{{Columns}}] }], "file": { "format": "{{format}}" } }""", Encoding.UTF8, "application/json"));
                saved.EnsureSuccessStatusCode();
                request["layout"] = "bench";
            }
            var (rehearsed, _) = await Timed(() => service.Post("posting-runs/rehearsal", request.DeepClone()), 200);
            var (seconds, run) = await Timed(() => service.Post("posting-runs", request));
            if ((int)run["invoices"]! < invoices)
                throw new InvalidOperationException(run.ToJsonString());
            var most = service.HighestMemory;
            var content = await service.Http.GetByteArrayAsync(new Uri($"posting-runs/{run["number"]}/file", UriKind.Relative));
            csv = format == "csv" ? content : csv;
            table.AddRow($"rehearse, {format}", Text(rehearsed), "", "", "");
            table.AddRow($"post, {format}", Text(seconds), Text((int)run["rows"]!), Text(content.Length / 1e6), Text(most));
            table.AddRow($"download, {format}", "", "", "", Text(service.HighestMemory));
            if (format == "csv")
            {
                (seconds, _) = await Timed(() => service.Post($"posting-runs/{run["number"]}/withdrawal", new JsonObject { ["reason"] = "Measured here" }));
                table.AddRow("take it back", Text(seconds), "", "", Text(service.HighestMemory));
            }
        }
        var watch = Stopwatch.StartNew();
        using (var parser = new TextFieldParser(new MemoryStream(csv)))
        {
            parser.SetDelimiters(",");
            while (parser.ReadFields() is not null)
            {
            }
        }
        table.AddRow("yardstick: that CSV cut into cells", Text(watch.Elapsed.TotalSeconds), "", "", "");
        AnsiConsole.Write(table);
    }

    private static async Task<(double Seconds, JsonNode Body)> Timed(Func<Task<(int Status, JsonNode Body)>> act, int wanted = 201)
    {
        var watch = Stopwatch.StartNew();
        var (status, body) = await act();
        return status == wanted ? (watch.Elapsed.TotalSeconds, body) : throw new InvalidOperationException(body.ToJsonString());
    }

    /// <summary>The demo's approved invoices, each as often as it takes.</summary>
    private static async Task<ServiceUnderTest> WithInvoices(int wanted)
    {
        var service = await ServiceUnderTest.Start(apart: true);
        await service.SaveTemplates(Repository.Samples);
        var batch = await service.OpenBatch("Bench");
        await service.Upload(batch, Directory.GetFiles(Repository.Samples, "*.pdf", System.IO.SearchOption.AllDirectories).Select(file => (Path.GetFileName(file), File.ReadAllBytes(file))));
        await service.UntilDone(batch);
        foreach (var invoice in (await service.Invoices(batch)).Where(one => (string?)one["state"] == "clear"))
            await service.Decide(invoice["id"], "approval");
        var approved = (await service.Invoices(batch)).Count(one => (string?)one["state"] == "approved");
        await service.Terminate();
        await using (var connection = new SqliteConnection($"Data Source={Path.Combine(service.Data, "daxlin.db")};Pooling=False"))
        {
            await connection.OpenAsync();
            await using var command = connection.CreateCommand();
            command.CommandText = "SELECT group_concat('\"' || name || '\"') FROM pragma_table_info('Invoices') WHERE name <> 'Id'";
            var columns = (string)(await command.ExecuteScalarAsync())!;
#pragma warning disable CA2100 // Names of the database's own columns, and a number.
            command.CommandText = string.Create(
                CultureInfo.InvariantCulture,
                $"WITH RECURSIVE copies(n) AS (SELECT 1 UNION ALL SELECT n + 1 FROM copies WHERE n < {(wanted + approved - 1) / approved - 1}) INSERT INTO Invoices ({columns}) SELECT {columns} FROM Invoices, copies WHERE State = 'Approved'");
#pragma warning restore CA2100
            await command.ExecuteNonQueryAsync();
            command.CommandText = """
                INSERT INTO InvoiceRecords (Id, Record) SELECT copy.Id, kept.Record FROM Invoices AS copy
                JOIN (SELECT MIN(Id) AS Id, IntakeId, FirstPage FROM Invoices GROUP BY IntakeId, FirstPage) AS first ON first.IntakeId = copy.IntakeId AND first.FirstPage = copy.FirstPage
                JOIN InvoiceRecords AS kept ON kept.Id = first.Id WHERE copy.Id <> first.Id
                """;
            await command.ExecuteNonQueryAsync();
        }
        var grown = await ServiceUnderTest.Start(service.Data, apart: true);
        // A start looks through what was approved; that is not what is measured here.
        await grown.Get("history/verify");
        return grown;
    }

    private static string Text(double number) => number.ToString("N1", CultureInfo.InvariantCulture);

    private static string Text(int number) => number.ToString("N0", CultureInfo.InvariantCulture);
}
