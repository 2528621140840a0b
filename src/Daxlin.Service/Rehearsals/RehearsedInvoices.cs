using System.Collections.Immutable;
using Daxlin.Core.Capture;
using Daxlin.Core.Checks;
using Daxlin.Core.Rehearsal;
using Daxlin.Service.Invoices;
using Daxlin.Service.Storage;
using Daxlin.Service.Work;

namespace Daxlin.Service.Rehearsals;

/// <summary>Invoices as stored, and as a draft would capture them, in the form in which they are compared.</summary>
internal static class RehearsedInvoices
{
    /// <param name="names">The draft's name, and those that its template had before.</param>
    public static RehearsedInvoice Of(Invoice row, IReadOnlyCollection<string> names)
    {
        if (row.Template.Length == 0)
            return RehearsedInvoice.Unplaced;
        var record = InvoiceRecords.FromJson(row.Record);
        // That an invoice came twice is the other invoice's doing, and no template's.
        var isHeld = record.Findings.Any(finding => finding.Severity == "hold" && finding.Code != SeenBefore.Code);
        return Of(record, row.Currency, row.State is InvoiceState.Approved or InvoiceState.Posted ? RehearsedState.Decided : isHeld ? RehearsedState.Held : RehearsedState.Clear) with
        {
            Template = names.Contains(row.Template) ? names.First() : row.Template,
        };
    }

    /// <param name="outcome">Null if the document's pages hold no such invoice any more.</param>
    public static RehearsedInvoice Of(InvoiceOutcome? outcome) => outcome is null || outcome.Template.Length == 0 ? RehearsedInvoice.Unplaced
        : Of(InvoiceRecords.FromJson(outcome.Record), outcome.Currency, outcome.State == InvoiceState.Clear ? RehearsedState.Clear : RehearsedState.Held) with { Template = outcome.Template };

    private static RehearsedInvoice Of(InvoiceRecord record, string currency, RehearsedState state) => new(
        state,
        Texts(record.Fields.Select(field => (field.Key, field.Value)), currency).SetItem("kind", record.Kind),
        [
            .. record.Lines.Select(line => Of("lines", line, currency)),
            .. record.Taxes.Select(line => Of("taxes", line, currency)),
            .. record.Others.Select(line => Of(line.Block, line, currency)),
        ]);

    private static RehearsedRow Of(string list, LineRecord line, string currency)
    {
        var under = from below in line.Under
                    from row in below.Rows.Select((cells, index) => (Cells: cells, Number: index + 1))
                    from cell in row.Cells
                    select (ValueNames.Of(below.Name, row.Number, cell.Key), cell.Value);
        return new RehearsedRow(list, line.Number, Texts(line.Cells.Select(cell => (cell.Key, cell.Value)).Concat(under), currency));
    }

    /// <summary>Values as a person reads them: money never without its currency.</summary>
    private static ImmutableSortedDictionary<string, string> Texts(IEnumerable<(string Name, ValueRecord Value)> values, string currency) =>
        values.ToImmutableSortedDictionary(one => one.Name, one => one.Value.Type == "money" ? $"{one.Value.Value} {currency}" : one.Value.Value, StringComparer.Ordinal);
}
