using System.Collections.Immutable;
using Daxlin.Core.Checks;
using Daxlin.Core.Templates;
using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Invoices;

/// <summary>Holds invoices that came before, of one vendor under one number.</summary>
/// <remarks>
/// First come is first: the original is the one whose document was taken in first, whichever was captured first, so a
/// capture done again never makes it the double of its own copy. One that was set aside holds nothing. One that a person
/// has decided on stays as decided.
/// </remarks>
internal static class Doubles
{
    /// <summary>Finds anew which invoices of some keys are held as doubles. To be called whenever one of them came, went or changed.</summary>
    /// <param name="db">Its open changes are stored, before it looks and after.</param>
    /// <param name="keys">The <see cref="Invoice.SeenKey"/> of each, before and after; an empty one is that of no other.</param>
    public static async Task Refresh(DaxlinDb db, IEnumerable<string> keys, CancellationToken cancel)
    {
        await db.SaveChangesAsync(cancel);
        foreach (var key in keys.Where(key => key.Length > 0).Distinct().ToList())
        {
            var rows = await db.Invoices.Include(row => row.Intake)
                .Where(row => row.SeenKey == key && row.State != InvoiceState.Returned)
                .OrderBy(row => row.IntakeId).ThenBy(row => row.FirstPage)
                .ToListAsync(cancel);
            foreach (var row in rows.Where(row => row.State is InvoiceState.Held or InvoiceState.Clear))
            {
                var first = rows.Find(other => other != row && (other.State is InvoiceState.Approved or InvoiceState.Posted || IsBefore(other, row)));
                var batch = first is null ? "" : await db.Batches.Where(one => one.Id == first.BatchId).Select(one => one.Name).SingleAsync(cancel);
                SetFinding(row, first is null ? null : FindingOf(row, first, batch));
            }
        }
        await db.SaveChangesAsync(cancel);
    }

    private static bool IsBefore(Invoice other, Invoice row) =>
        other.IntakeId < row.IntakeId || (other.IntakeId == row.IntakeId && other.FirstPage < row.FirstPage);

    private static Finding FindingOf(Invoice row, Invoice first, string batch)
    {
        var place = $"invoice {first.Id} in the batch “{batch}” ({first.State.ToString().ToLowerInvariant()})";
        return row.Intake.Sha256 == first.Intake.Sha256
            ? Finding.Hold(SeenBefore.Code, $"This is the same file as {first.Intake.FileName}, {place}.", TradeNames.InvoiceNumber)
            : SeenBefore.ToFinding(row.Vendor, row.InvoiceNumber, $"it is {place}");
    }

    private static void SetFinding(Invoice row, Finding? finding)
    {
        // Most invoices come once, and a long record takes milliseconds to read.
        if (finding is null && !row.Record.Contains($"\"{SeenBefore.Code}\"", StringComparison.Ordinal))
            return;
        var record = InvoiceRecords.FromJson(row.Record);
        var others = record.Findings.RemoveAll(one => one.Code == SeenBefore.Code);
        var findings = finding is null ? others : others.Insert(0, InvoiceRecords.Of(finding, InvoiceRecords.FromStore));
        if (findings.SequenceEqual(record.Findings, FindingComparer))
            return;
        record = record with { Findings = findings };
        row.Record = InvoiceRecords.ToJson(record);
        (row.State, row.Findings, row.FirstFinding) = InvoiceRecords.HeldBy(record);
    }

    private static readonly EqualityComparer<FindingRecord> FindingComparer =
        EqualityComparer<FindingRecord>.Create((a, b) => a?.Code == b?.Code && a?.Message == b?.Message, one => one.Message.GetHashCode(StringComparison.Ordinal));
}
