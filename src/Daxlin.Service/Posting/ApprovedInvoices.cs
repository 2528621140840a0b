using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.History;
using Daxlin.Core.Posting;
using Daxlin.Core.Templates;
using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Posting;

/// <summary>Reads invoices from the store as they are posted, some at a time: a run may have thousands, each with all its traces.</summary>
internal static class ApprovedInvoices
{
    private const int AtATime = 200;

    /// <param name="ids">In the order in which they are posted.</param>
    /// <param name="origins">What was known of them before, by their numbers; of others, what is known now.</param>
    public static async IAsyncEnumerable<ApprovedRow> Read(DaxlinDb db, IReadOnlyList<int> ids, IReadOnlyDictionary<int, ApprovedOrigin> origins, [System.Runtime.CompilerServices.EnumeratorCancellation] CancellationToken cancel)
    {
        foreach (var some in ids.Chunk(AtATime))
        {
            var rows = await db.Invoices.Where(invoice => some.Contains(invoice.Id))
                .Select(invoice => new StoredInvoice(
                    invoice.Id, invoice.Vendor, invoice.IsCreditNote, invoice.Currency, invoice.Intake.FileName, invoice.Intake.Sha256, invoice.Intake.ReceivedAt, invoice.Record, invoice.ApprovedSha256,
                    db.Batches.First(batch => batch.Id == invoice.BatchId).Name,
                    db.Vendors.Where(vendor => vendor.Id == invoice.VendorId).Select(vendor => vendor.LedgerAccount).FirstOrDefault() ?? "",
                    db.Vendors.Where(vendor => vendor.Id == invoice.VendorId).Select(vendor => vendor.TaxCode).FirstOrDefault() ?? ""))
                .ToDictionaryAsync(invoice => invoice.Id, cancel);
            var approvals = await Approvals.Of(db, some, DateTime.MaxValue, cancel);
            foreach (var id in some)
            {
                var row = rows[id];
                var content = HistoryChain.ContentOf(row.Record);
                yield return new ApprovedRow(
                    Of(row) with
                    {
                        Origin = origins.TryGetValue(id, out var known) ? known : OriginOf(row, approvals.GetValueOrDefault(id)),
                    },
                    content, row.ApprovedSha256 == content);
            }
        }
    }

    private static ApprovedOrigin OriginOf(StoredInvoice row, Approval? approval) => new(
        row.Batch, approval?.By ?? "", approval is null ? null : DateOnly.FromDateTime(approval.At), DateOnly.FromDateTime(row.ReceivedAt), row.VendorAccount, row.VendorTaxCode);

    private static ApprovedInvoice Of(StoredInvoice invoice)
    {
        var record = PostedValues.Of(invoice.Record);
        return new ApprovedInvoice(
            invoice.Id, invoice.Vendor, invoice.IsCreditNote, invoice.Currency, invoice.FileName, invoice.Sha256, record.Fields.ToDictionary(field => field.Key, field => field.Value.Value),
            [.. record.Taxes.Where(row => row.Cells.ContainsKey(TradeNames.Amount)).Select(row => new ApprovedTax(row[TradeNames.Rate], row[TradeNames.Base], AmountOf(row[TradeNames.Amount])))],
            // A ledger counts the rows that there are, whichever numbers corrections left.
            [.. record.Lines.Select((line, at) => new ApprovedLine(
                line.Block, at + 1, line.FirstPage, line.Cells.ToDictionary(cell => cell.Key, cell => cell.Value.Value),
                [.. line.Under.Select(list => new ApprovedList(
                    list.Name, Enum.Parse<FlatForm>(list.Flat, ignoreCase: true),
                    [.. list.Rows.Select(row => row.ToImmutableSortedDictionary(cell => cell.Key, cell => cell.Value.Value))]))]))]);
    }

    /// <summary>The columns that are posted; an invoice's row has more, and long ones.</summary>
    private sealed record StoredInvoice(
        int Id, string Vendor, bool IsCreditNote, string Currency, string FileName, string Sha256, DateTime ReceivedAt, string Record, string ApprovedSha256, string Batch, string VendorAccount,
        string VendorTaxCode);

    private static decimal AmountOf(string value) =>
        decimal.Parse(value, NumberStyles.AllowLeadingSign | NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture);
}

/// <summary>An invoice as it is posted.</summary>
/// <param name="ContentSha256">Of the values that are posted.</param>
/// <param name="IsAsApproved">Says that they are those that were approved.</param>
internal sealed record ApprovedRow(ApprovedInvoice Invoice, string ContentSha256, bool IsAsApproved);
