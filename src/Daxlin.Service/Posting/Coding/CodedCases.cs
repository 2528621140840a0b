using System.Collections.Immutable;
using System.Text.Json;
using Daxlin.Core.Posting.Coding;
using Daxlin.Service.Invoices;
using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Posting.Coding;

/// <summary>Remembers what persons said of lines' codes when they were approved, for lines like them.</summary>
internal static class CodedCases
{
    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web);

    /// <summary>So many of the newest cases count: what was done otherwise years ago is not asked for ever.</summary>
    private const int Newest = 50;

    /// <summary>A line that was left to the rules is a case like others: one exception among a hundred is told as one of a hundred.</summary>
    private const string LeftToRules = "[]";

    /// <summary>Remembers what was said of the lines of an invoice that is being approved. Who asks stores it.</summary>
    public static void Remember(DaxlinDb db, Invoice invoice)
    {
        if (invoice.VendorId is not { } vendor || !CodedInvoices.HasCodes(invoice.Record))
            return;
        var record = InvoiceRecords.FromJson(invoice.Record);
        var said = record.CodedByHand.ToDictionary(line => line.Line);
        foreach (var (line, key) in KeysOf(record))
        {
            db.CodedCases.Add(new CodedCase
            {
                VendorId = vendor,
                InvoiceId = invoice.Id,
                Like = key,
                Shares = said.TryGetValue(line, out var own) ? JsonSerializer.Serialize(own.Shares, Json) : LeftToRules,
            });
        }
    }

    /// <summary>An invoice that is open again may be coded otherwise.</summary>
    public static Task Forget(DaxlinDb db, int[] invoices, CancellationToken cancel) =>
        db.CodedCases.Where(one => invoices.Contains(one.InvoiceId)).ExecuteDeleteAsync(cancel);

    public static async Task<ImmutableArray<CodeProposalRecord>> Propose(DaxlinDb db, Invoice invoice, CancellationToken cancel)
    {
        if (invoice.VendorId is not { } vendor)
            return [];
        var record = InvoiceRecords.FromJson(invoice.Record);
        var coding = record.Coding.ToDictionary(line => line.Line, line => CodingRecords.Of(line).Parts);
        var proposals = ImmutableArray.CreateBuilder<CodeProposalRecord>();
        foreach (var like in KeysOf(record).GroupBy(line => line.Key, line => line.Line))
        {
            var cases = await db.CodedCases.Where(one => one.VendorId == vendor && one.Like == like.Key && one.InvoiceId != invoice.Id)
                .OrderByDescending(one => one.Id).Take(Newest).Select(one => one.Shares).ToListAsync(cancel);
            var before = cases.ConvertAll(shares => shares == LeftToRules ? null
                : new SaidCoding([.. JsonSerializer.Deserialize<ImmutableArray<SaidShareRecord>>(shares, Json).Select(CodingRecords.Of)]));
            foreach (var line in like)
            {
                if (CodeProposal.For(coding.GetValueOrDefault(line, []), before) is { } proposal)
                    proposals.Add(new CodeProposalRecord(line, CodingRecords.SharesOf(proposal.Coding), proposal.Agree, proposal.Of, proposal.Says));
            }
        }
        return [.. proposals.OrderBy(proposal => proposal.Line)];
    }

    /// <summary>By what each line is known to be like others; one of an invoice without lines is like others of its vendor.</summary>
    private static IEnumerable<(int Line, string Key)> KeysOf(InvoiceRecord record) => record.Lines.IsEmpty ? [(0, "whole")]
        : record.Lines.Select(row => (row.Number, LikeLines.KeyOf(row.Cells.ToDictionary(cell => cell.Key, cell => cell.Value.Value)))).Where(line => line.Item2.Length > 0);
}
