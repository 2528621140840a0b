using System.Collections.Immutable;
using System.Text.Json;
using Daxlin.Core.Capture;
using Daxlin.Core.Corrections;
using Daxlin.Core.Templates;
using Daxlin.Reading;
using Daxlin.Service.Desk;
using Daxlin.Service.Invoices;
using Daxlin.Service.Storage;
using Daxlin.Service.Work;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Templates;

/// <summary>What persons corrected again and again on invoices that the newest version of a template captured, with the change that would mend it.</summary>
public sealed class TaughtTemplates(DaxlinDb db, DocumentStore documents, ReadingProcesses processes)
{
    /// <summary>So many of the newest corrected invoices are looked at, and so many of each group are read for a change.</summary>
    private const int MostInvoices = 200;
    private const int MostRead = 8;

    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web);

    internal async Task<ImmutableArray<RepeatedCorrectionRecord>> Of(TemplateVersion newest, CancellationToken cancel)
    {
        var rows = await db.Invoices.AsNoTracking().Include(row => row.Intake)
            .Where(row => row.Template == newest.Name && row.TemplateVersion == newest.Version && row.IsTouched)
            .OrderByDescending(row => row.Id).Take(MostInvoices).ToDictionaryAsync(row => row.Id, cancel);
        var records = ImmutableArray.CreateBuilder<RepeatedCorrectionRecord>();
        foreach (var repeated in RepeatedCorrection.In(rows.Values.Select(SaidOf)))
        {
            var change = await Change(repeated with { Of = [.. repeated.Of.TakeLast(MostRead)] }, newest.Document, rows, cancel);
            records.Add(new RepeatedCorrectionRecord(
                JsonNamingPolicy.CamelCase.ConvertName(repeated.What.ToString()), repeated.Name, repeated.Says, [.. repeated.Of.Select(once => once.Invoice)], change?.Says ?? "", change?.Document));
        }
        return records.ToImmutable();
    }

    private static SaidOfInvoice SaidOf(Invoice row)
    {
        var record = InvoiceRecords.FromJson(row.Record);
        return new SaidOfInvoice(
            row.Id,
            [
                .. Named(record).Where(one => !record.Entered.ContainsKey(one.Name)).Select(one => new SaidValue(one.Name, one.Value, one.Value, null)),
                .. record.Entered.Select(one => new SaidValue(one.Key, one.Value.Value, one.Value.Captured, one.Value.Place is { } place ? CapturedRecords.Of(place) : null)),
            ],
            [
                .. from one in record.Struck
                   let first = one.Row.Cells.Values.FirstOrDefault(cell => cell.Box is not null)
                   where first is not null
                   select (one.Row.Block, new PlaceOnPage(first.Page, CapturedRecords.Of(first.Box!))),
            ],
            [.. record.Accepted.Where(one => one.Code == "amount-untied").SelectMany(one => one.About)]);
    }

    private static IEnumerable<(string Name, string Value)> Named(InvoiceRecord record) =>
        record.Fields.Select(field => (field.Key, field.Value.Value))
            .Concat(new[] { (BlockRule.Lines, record.Lines), (BlockRule.Taxes, record.Taxes) }.SelectMany(list => list.Item2.Select(row => (List: list.Item1, Row: row)))
                .Concat(record.Others.Select(row => (List: row.Block, Row: row)))
                .SelectMany(one => one.Row.Cells.Select(cell => (ValueNames.Of(one.List, one.Row.Number, cell.Key), cell.Value.Value))));

    /// <summary>Null if none is known, or the documents cannot be read any more.</summary>
    private async Task<TaughtChangeRecord?> Change(RepeatedCorrection repeated, string document, Dictionary<int, Invoice> rows, CancellationToken cancel)
    {
        var own = repeated.Of.Select(once => rows[once.Invoice]).ToList();
        var task = new DeskTask(document, null, [.. own.Select(row => DeskDocument.Of(documents, row.Intake.Sha256, row.Intake.FileName))], [])
        {
            Repeated = new RepeatedTask(repeated, [.. own.Select(row => (row.FirstPage, row.LastPage)).Select(pages => new PageSpan(pages.FirstPage, pages.LastPage))]),
        };
        TaughtChangeRecord? change = null;
        try
        {
            await processes.Desk(task, async stream => change = await JsonSerializer.DeserializeAsync<TaughtChangeRecord?>(stream, Json, cancel), cancel);
        }
        catch (Exception error) when (error is UnreadableException or ReaderDiedException)
        {
            // What was corrected is told without a change.
        }
        return change;
    }
}
