using System.Globalization;
using Daxlin.Testing;
using Microsoft.Data.Sqlite;

namespace Daxlin.ServiceBench;

/// <summary>A service whose store holds as many invoices as wanted, a third of them in one batch.</summary>
internal static class StoredInvoices
{
    private const int Batches = 300;
    private const int Vendors = 500;
    private const int EntriesOfInvoice = 3;
    private static readonly DateTime FirstDay = new(2026, 1, 1, 0, 0, 0, DateTimeKind.Utc);

    public static async Task<ServiceUnderTest> Start(int count)
    {
        var empty = await ServiceUnderTest.Start(apart: true);
        await empty.SaveTemplates(Repository.Samples);
        await empty.Terminate();
        await using (var connection = new SqliteConnection($"Data Source={Path.Combine(empty.Data, "daxlin.db")};Pooling=False"))
        {
            await connection.OpenAsync();
            await using var transaction = await connection.BeginTransactionAsync();
            for (var batch = 1; batch <= Batches; batch++)
                await Do(connection, $"INSERT INTO Batches (Id, Name, CreatedAt) VALUES ({batch}, 'Batch {batch}', '2026-11-26 00:00:00')");
            for (var run = 1; run <= 1000; run++)
            {
                await Do(connection, $"INSERT INTO PostingRuns (Number, At, \"By\", Invoices, Rows, Sums) VALUES ({run}, '2026-11-26 00:00:00', 'bench', 1, 1, '{{}}')");
                await Do(connection, $"INSERT INTO PostedFiles (RunNumber, Name, MediaType, Records, Content, Sha256) VALUES ({run}, 'run-{run}.csv', 'text/csv', 1, '{new string('x', 2000)}', '{run:x64}')");
            }
            for (var id = 1; id <= count; id++)
            {
                var batch = id % 3 == 0 ? 1 : 2 + id % (Batches - 1);
                var state = new[] { "Held", "Clear", "Approved", "Posted" }[id % 4];
                var (vendor, cents, day) = (id % Vendors, id * 7919L % 1_000_000, FirstDay.AddDays(id % 330));
                await Do(connection, string.Create(CultureInfo.InvariantCulture, $"INSERT INTO Intakes (Id, BatchId, Sha256, FileName, Size, ReceivedAt, State, Attempts, Pages, InvoiceNumber, ReasonCode, Reason) VALUES ({id}, {batch}, '{id:x64}', 'file-{id * 7919L % 1_000_003}.pdf', 1, '{day:yyyy-MM-dd} 00:00:00', 'Done', 0, 1, {id}, '', '')"));
                await Do(connection, string.Create(CultureInfo.InvariantCulture, $"INSERT INTO Invoices (Id, BatchId, IntakeId, FirstPage, LastPage, State, Template, TemplateVersion, Vendor, InvoiceNumber, InvoiceDate, DueDate, Currency, Total, TotalSize, SeenKey, IsCreditNote, Lines, Findings, FirstFinding, HeldBy, CapturedAt, Revision) VALUES ({id}, {batch}, {id}, 1, 1, '{state}', 't', 1, 'Vendor {vendor:000}', 'N-{id}', '{day:yyyy-MM-dd}', '{day.AddDays(30):yyyy-MM-dd}', '{(vendor % 3 == 0 ? "GBP" : "EUR")}', '{cents / 100m:0.00}', {cents * 100}, 'VENDOR{vendor:000}|N{id}', 0, 1, {(state == "Held" ? 1 : 0)}, '{(state == "Held" ? $"Line 1: 2 × {id} EUR comes to {2 * id} EUR" : "")}', '{(state == "Held" ? id % 5 == 0 ? "total" : "line-amount" : "")}', '2026-11-26 00:00:00', 1)"));
                await Do(connection, $"INSERT INTO InvoiceRecords (Id, Record) VALUES ({id}, '{new string('x', 3000)}')");
                for (var number = 1; number <= EntriesOfInvoice; number++)
                    await Do(connection, string.Create(CultureInfo.InvariantCulture, $"INSERT INTO History (Stream, Number, At, \"By\", Act, What, Before, After, Reason, Letter, Content, Hash) VALUES ('invoice/{id}', {number}, '{day:yyyy-MM-dd} 00:00:00', 'bench', 'corrected', 'corrected total', '', '', '', '', '', '{id:x64}')"));
            }
            await transaction.CommitAsync();
        }
        // A folder with a database may lack documents, not the other way round.
        return await ServiceUnderTest.Start(empty.Data, apart: true);
    }

    private static async Task Do(SqliteConnection connection, string statement)
    {
        await using var command = connection.CreateCommand();
#pragma warning disable CA2100 // Numbers of this file only.
        command.CommandText = statement;
#pragma warning restore CA2100
        await command.ExecuteNonQueryAsync();
    }
}
