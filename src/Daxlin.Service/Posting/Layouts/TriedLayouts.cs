using System.Collections.Immutable;
using System.Text.Json;
using Daxlin.Core.Json;
using Daxlin.Core.Posting.Layouts;
using Daxlin.Core.Templates;
using Daxlin.Service.Posting.Coding;
using Daxlin.Service.Posting.Lists;
using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;
using Daxlin.Service.NamedDocuments;

namespace Daxlin.Service.Posting.Layouts;

/// <summary>Shows what a layout makes of some invoices, for who is writing it. Stores nothing.</summary>
internal sealed class TriedLayouts(DaxlinDb db, ListShelf lists, CodingShelf coding, TimeProvider clock)
{
    /// <summary>On so many invoices it is tried where nobody says on which.</summary>
    private const int Usual = 10;

    public const int Most = 100;
    private const int MostRows = 100;

    public async Task<TriedLayout> Try(string document, ImmutableArray<int>? invoices, CancellationToken cancel)
    {
        var known = await lists.Now(cancel);
        PostingLayout layout;
        try
        {
            layout = LayoutReader.Read(document, known.Lists);
        }
        catch (JsonFaultException error)
        {
            return new TriedLayout("", DocumentFaultRecord.Of(error.Faults), [], [], [], [], []);
        }
        var ids = invoices ?? await UsualInvoices(cancel);
        var run = new RunFacts((await db.PostingRuns.MaxAsync(row => (int?)row.Number, cancel) ?? 0) + 1, DateOnly.FromDateTime(clock.GetUtcNow().UtcDateTime));
        var tried = ImmutableArray.CreateBuilder<TriedInvoice>();
        var rows = layout.Tables.ToDictionary(table => table.Name, _ => new List<ImmutableArray<string>>());
        var plan = new PostingPlan(layout, 0, known, run) { MustBeApproved = false };
        if (layout.HasJournal)
            plan = await coding.WithJournal(plan, null, known.Lists, cancel);
        var work = await PostingWriter.Write(
            plan, await Captured(ids, cancel), db, cancel,
            laidOut =>
            {
                var invoice = laidOut.Invoice;
                tried.Add(new TriedInvoice(invoice.Id, invoice.Vendor, invoice.Fields.GetValueOrDefault(TradeNames.InvoiceNumber, ""), laidOut.IsTaken));
                foreach (var record in laidOut.Records)
                    rows[record.Table.Name].Add([.. record.Values.Select((value, at) => CellText.Of(record.Table.Columns[at], layout.File, value))]);
            });
        return new TriedLayout(
            layout.Name, [], tried.ToImmutable(),
            [
                .. layout.Tables.Select(table => new TriedTable(
                    table.Name, table.Records.Word(), [.. table.Columns.Select(column => new TriedColumn(column.Heading, JsonNamingPolicy.CamelCase.ConvertName(column.Value.Type.ToString()), column.Proves.Word()))],
                    [.. rows[table.Name].Take(MostRows)], rows[table.Name].Count)),
            ],
            [.. work.Files.Select(RehearsedFile.Of)], [.. work.Sums.Select(ProvedSumRecord.From)], [.. work.Faults.Select(fault => fault.ToString())]);
    }

    private async Task<ImmutableArray<int>> UsualInvoices(CancellationToken cancel)
    {
        var decided = await db.Invoices.Where(invoice => invoice.State == InvoiceState.Approved || invoice.State == InvoiceState.Posted)
            .OrderByDescending(invoice => invoice.Id).Take(Usual).Select(invoice => invoice.Id).ToListAsync(cancel);
        if (decided.Count == 0)
        {
            decided = await db.Invoices.Where(invoice => invoice.State == InvoiceState.Clear || invoice.State == InvoiceState.Held)
                .OrderByDescending(invoice => invoice.Id).Take(Usual).Select(invoice => invoice.Id).ToListAsync(cancel);
        }
        return [.. decided.Order()];
    }

    private Task<List<int>> Captured(ImmutableArray<int> ids, CancellationToken cancel)
    {
        var wanted = ids.Take(Most).ToList();
        return db.Invoices.Where(invoice => wanted.Contains(invoice.Id) && invoice.State != InvoiceState.Unplaced).OrderBy(invoice => invoice.Id).Select(invoice => invoice.Id).ToListAsync(cancel);
    }
}
