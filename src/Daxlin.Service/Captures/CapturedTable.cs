using System.Collections.Immutable;
using Daxlin.Core.Posting;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;
using Daxlin.Service.Invoices;
using Daxlin.Service.Posting;
using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Captures;

/// <summary>Every value that was captured of some invoices, a line a row, each with its invoice's state: what is held is nobody's to post.</summary>
internal static class CapturedTable
{
    /// <param name="ids">Of the invoices, in their order; what no template takes has no row.</param>
    public static async Task<TableToHand> Of(List<int> ids, DaxlinDb db, CancellationToken cancel)
    {
        var states = await db.Invoices.AsNoTracking().Where(row => ids.Contains(row.Id)).Select(row => new { row.Id, row.State, row.FirstFinding }).ToDictionaryAsync(row => row.Id, cancel);
        var columns = new PostingColumnsSoFar();
        var rows = new List<(string State, string LookAt, PostingRecord Row)>();
        var placed = ids.FindAll(one => states[one].State != InvoiceState.Unplaced);
        await foreach (var (invoice, _, _) in ApprovedInvoices.Read(db, placed, ImmutableDictionary<int, ApprovedOrigin>.Empty, cancel))
        {
            columns.Add(invoice);
            rows.AddRange(PostingColumns.RowsOf(invoice).Select(row => (InvoiceDetails.Word(states[invoice.Id].State), states[invoice.Id].FirstFinding, row)));
        }
        var names = columns.Columns;
        return new TableToHand(
            ["state", "what to look at", .. names], [.. rows.Select(one => ImmutableArray.Create([one.State, one.LookAt, .. names.Select(name => one.Row[name])]))],
            [ValueKind.Text, ValueKind.Text, .. names.Select(TradeNames.KindOf)]);
    }
}
