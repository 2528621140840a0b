using System.Collections.Immutable;
using System.Text.Json;
using Daxlin.Core.Corrections;
using Daxlin.Reading;
using Daxlin.Service.Documents;
using Daxlin.Service.Invoices;
using Daxlin.Service.Storage;
using Daxlin.Service.Work;

namespace Daxlin.Service.Review;

/// <summary>Looks for the smallest changes that make a stored invoice add up, on its figures and on its printed words.</summary>
public sealed class ProposedCorrections(DaxlinDb db, ReadingProcesses processes)
{
    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web);

    /// <returns>The likeliest first; empty if nothing is wrong, nothing was captured, or no single change mends it.</returns>
    internal async Task<ImmutableArray<ProposalRecord>> For(Invoice row, CancellationToken cancel)
    {
        if (row.State != InvoiceState.Held || await CorrectedInvoices.Of(row, db, cancel) is not { } invoice)
            return [];
        var found = Proposals.Of(invoice.Corrected, await Lines(row, cancel));
        return
        [
            .. found.Select(one => new ProposalRecord(
                one.Value is not null ? "enter" : one.Cells.IsEmpty ? "strike" : "add", one.Of, one.Value, one.Was, one.Slip, one.Place is { } place ? new PlaceRecord(place.Page, InvoiceRecords.Of(place.Box)) : null,
                one.SettlesAll, found.Length == 1 && !one.IsReading, one.Says, one.Cells)),
        ];
    }

    /// <summary>What is printed on the invoice's pages; nothing if its bytes are lost, then the figures alone must tell.</summary>
    private async Task<ImmutableArray<PrintedLine>> Lines(Invoice row, CancellationToken cancel)
    {
        ImmutableArray<PageRecord> pages = [];
        try
        {
            await processes.Words(
                row.Intake.Sha256, async words => pages = await JsonSerializer.DeserializeAsync<ImmutableArray<PageRecord>>(words, Json, cancel), cancel);
        }
        catch (Exception error) when (error is UnreadableException or ReaderDiedException)
        {
            return [];
        }
        return
        [
            .. from page in pages
               where page.Number >= row.FirstPage && page.Number <= row.LastPage
               from line in page.Words.Where(word => word.Line >= 0).GroupBy(word => word.Line)
               select new PrintedLine(page.Number, [.. line.Select(word => (word.Text, CapturedRecords.Of(word.Box)))]),
        ];
    }
}
