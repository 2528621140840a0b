using System.Collections.Immutable;
using System.Runtime.CompilerServices;
using Daxlin.Core.History;
using Daxlin.Core.Posting;
using Daxlin.Core.Posting.Coding;
using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Posting;

/// <summary>Reads invoices from the store as they are posted, some at a time: a run may have thousands, each with all its traces.</summary>
internal static class ApprovedInvoices
{
    private const int AtATime = 25;

    /// <param name="ids">In the order in which they are posted.</param>
    /// <param name="origins">What was known of them before, by their numbers; of others, what is known now.</param>
    public static async IAsyncEnumerable<ApprovedRow> Read(
        DaxlinDb db, IReadOnlyList<int> ids, IReadOnlyDictionary<int, ApprovedOrigin> origins, [EnumeratorCancellation] CancellationToken cancel)
    {
        // While some are looked at, those that follow are made of their records, which takes longest; the store is asked by nobody meanwhile.
        Task<ApprovedRow[]> made = Task.FromResult<ApprovedRow[]>([]);
        var (records, before) = (new RecordBuffer(), new RecordBuffer());
        foreach (var some in ids.Chunk(AtATime))
        {
            // Of the buffers one is read from while the other is filled.
            (records, before) = (before, records);
            await records.Fill(db, some, cancel);
            var (stored, buffer) = (await StoredOf(db, some, cancel), records);
            var following = Task.Run(() => Make(stored, buffer, origins), cancel);
            foreach (var row in await made)
                yield return row;
            made = following;
        }
        foreach (var row in await made)
            yield return row;
    }

    private static async Task<(StoredInvoice Row, Approval? Approval)[]> StoredOf(DaxlinDb db, int[] ids, CancellationToken cancel)
    {
        var rows = await db.Invoices.Where(invoice => ids.Contains(invoice.Id))
            .Select(invoice => new StoredInvoice(
                invoice.Id, invoice.Vendor, invoice.IsCreditNote, invoice.Currency, invoice.Intake.FileName, invoice.Intake.Sha256, invoice.Intake.ReceivedAt, invoice.ApprovedSha256,
                db.Batches.First(batch => batch.Id == invoice.BatchId).Name,
                db.Vendors.Where(vendor => vendor.Id == invoice.VendorId).Select(vendor => vendor.LedgerAccount).FirstOrDefault() ?? "",
                db.Vendors.Where(vendor => vendor.Id == invoice.VendorId).Select(vendor => vendor.TaxCode).FirstOrDefault() ?? ""))
            .ToDictionaryAsync(invoice => invoice.Id, cancel);
        var approvals = await Approvals.Of(db, ids, DateTime.MaxValue, cancel);
        return [.. ids.Select(id => (rows[id], approvals.GetValueOrDefault(id)))];
    }

    private static ApprovedRow[] Make((StoredInvoice Row, Approval? Approval)[] stored, RecordBuffer records, IReadOnlyDictionary<int, ApprovedOrigin> origins)
    {
        var made = new ApprovedRow[stored.Length];
        Parallel.For(0, stored.Length, () => new ApprovedRecordReader(), (at, _, reader) =>
        {
            var (row, approval) = stored[at];
            var record = records[row.Id];
            var content = HistoryChain.ContentOf(record);
            var invoice = Numbered(reader.Read(row.Id, row.Vendor, row.IsCreditNote, row.Currency, (row.FileName, row.Sha256), record)) with
            {
                Origin = origins.TryGetValue(row.Id, out var known) ? known : OriginOf(row, approval),
            };
            made[at] = new ApprovedRow(invoice, content, row.ApprovedSha256 == content);
            return reader;
        }, _ => { });
        return made;
    }

    private static ApprovedOrigin OriginOf(StoredInvoice row, Approval? approval) => new(
        row.Batch, approval?.By ?? "", approval is null ? null : DateOnly.FromDateTime(approval.At), DateOnly.FromDateTime(row.ReceivedAt), row.VendorAccount, row.VendorTaxCode);

    /// <summary>A ledger counts the rows that there are, whichever numbers corrections left.</summary>
    private static ApprovedInvoice Numbered(ApprovedInvoice invoice)
    {
        var numbers = invoice.Lines.Select((line, at) => (line.Number, At: at + 1)).ToDictionary(line => line.Number, line => line.At);
        return invoice with
        {
            Lines = [.. invoice.Lines.Select((line, at) => line with { Number = at + 1 })],
            Coding = [.. invoice.Coding.Where(line => line.Line == 0 || numbers.ContainsKey(line.Line)).Select(line => line with { Line = line.Line == 0 ? 0 : numbers[line.Line] })],
        };
    }

    /// <summary>The columns that are posted; an invoice's row has more, and long ones.</summary>
    private sealed record StoredInvoice(
        int Id, string Vendor, bool IsCreditNote, string Currency, string FileName, string Sha256, DateTime ReceivedAt, string ApprovedSha256, string Batch, string VendorAccount,
        string VendorTaxCode);
}

/// <summary>An invoice as it is posted.</summary>
/// <param name="ContentSha256">Of the values that are posted.</param>
/// <param name="IsAsApproved">Says that they are those that were approved.</param>
internal sealed record ApprovedRow(ApprovedInvoice Invoice, string ContentSha256, bool IsAsApproved);
