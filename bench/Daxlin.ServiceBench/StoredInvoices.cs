using System.Globalization;
using Daxlin.Testing;
using Microsoft.Data.Sqlite;

namespace Daxlin.ServiceBench;

/// <summary>A service whose store holds as many invoices as wanted, a third of them in one batch.</summary>
internal static class StoredInvoices
{
    private const int Batches = 300;
    private const int EntriesOfInvoice = 3;

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
            var numbers = string.Create(CultureInfo.InvariantCulture, $"WITH RECURSIVE one(id) AS (SELECT 1 UNION ALL SELECT id + 1 FROM one WHERE id < {count})");
            const string BatchOf = "(CASE WHEN id % 3 = 0 THEN 1 ELSE 2 + id % 299 END)";
            const string Day = "date('2026-01-01', '+' || (id % 330) || ' days')";
            const string Vendor = "'Vendor ' || printf('%03d', id % 500)";
            const string State = "(CASE id % 4 WHEN 0 THEN 'Held' WHEN 1 THEN 'Clear' WHEN 2 THEN 'Approved' ELSE 'Posted' END)";
            await Do(connection, $"""
                INSERT INTO Intakes (Id, BatchId, Sha256, FileName, Size, ReceivedAt, State, Attempts, Pages, InvoiceNumber, ReasonCode, Reason)
                {numbers} SELECT id, {BatchOf}, printf('%064x', id), 'file-' || (id * 7919 % 1000003) || '.pdf', 1, {Day} || ' 00:00:00', 'Done', 0, 1, id, '', '' FROM one
                """);
            await Do(connection, $"""
                INSERT INTO Invoices (Id, BatchId, IntakeId, FirstPage, LastPage, State, Template, TemplateVersion, Vendor, InvoiceNumber, InvoiceDate, DueDate, Currency, Total, TotalSize, SeenKey, IsCreditNote, Lines, Findings, FirstFinding, HeldBy, CapturedAt, Revision)
                {numbers} SELECT id, {BatchOf}, id, 1, 1, {State}, 't', 1, {Vendor}, 'N-' || id, {Day}, date({Day}, '+30 days'), CASE WHEN id % 500 % 3 = 0 THEN 'GBP' ELSE 'EUR' END,
                    printf('%d.%02d', id * 7919 % 1000000 / 100, id * 7919 % 100), id * 7919 % 1000000 * 100, 'VENDOR' || printf('%03d', id % 500) || '|N' || id, 0, 1, {State} = 'Held',
                    CASE WHEN {State} = 'Held' THEN 'Line 1: 2 × ' || id || ' EUR comes to ' || 2 * id || ' EUR' ELSE '' END,
                    CASE WHEN {State} <> 'Held' THEN '' WHEN id % 5 = 0 THEN 'total' ELSE 'line-amount' END, '2026-11-26 00:00:00', 1 FROM one
                """);
            await Do(connection, $"INSERT INTO InvoiceRecords (Id, Record) {numbers} SELECT id, '{new string('x', 3000)}' FROM one");
            for (var number = 1; number <= EntriesOfInvoice; number++)
            {
                await Do(connection, $"""
                    INSERT INTO History (Stream, Number, At, "By", Act, What, Before, After, Reason, Letter, Content, Hash)
                    {numbers} SELECT 'invoice/' || id, {number}, {Day} || ' 00:00:00', 'bench', 'corrected', 'corrected total', '', '', '', '', '', printf('%064x', id) FROM one
                    """);
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
