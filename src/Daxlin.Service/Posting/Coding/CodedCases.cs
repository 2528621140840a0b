using System.Collections.Immutable;
using System.Text.Json;
using Daxlin.Core.Posting;
using Daxlin.Core.Posting.Coding;
using Daxlin.Core.Templates;
using Daxlin.Service.Invoices;
using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Posting.Coding;

/// <summary>Remembers how lines were coded when they were approved, and proposes the same for lines like them.</summary>
internal static class CodedCases
{
    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web);

    /// <summary>So many of the newest cases count: what was done otherwise years ago is not asked for ever.</summary>
    private const int Newest = 50;

    /// <summary>A line that was left to the rules, which is a case like others: one exception among a hundred is told as one of a hundred.</summary>
    private const string LeftToRules = "[]";

    /// <summary>Remembers what was said of the lines of an invoice that is being approved. Who asks stores it.</summary>
    public static void Remember(DaxlinDb db, Invoice invoice)
    {
        if (invoice.VendorId is not { } vendor || !CodedInvoices.HasCodes(invoice.Record))
            return;
        var record = InvoiceRecords.FromJson(invoice.Record);
        foreach (var coded in record.Coding)
        {
            if (KeyOf(record, coded.Line) is { Length: > 0 } key)
                db.CodedCases.Add(new CodedCase { VendorId = vendor, InvoiceId = invoice.Id, Like = key, Shares = SaidOf(record, coded.Line) });
        }
    }

    /// <summary>An invoice that is open again may be coded otherwise.</summary>
    public static Task Forget(DaxlinDb db, int[] invoices, CancellationToken cancel) =>
        db.CodedCases.Where(one => invoices.Contains(one.InvoiceId)).ExecuteDeleteAsync(cancel);

    /// <summary>For lines of which persons said something before that does not hold now: what was said of most lines like them.</summary>
    public static async Task<ImmutableArray<CodeProposalRecord>> Propose(DaxlinDb db, Invoice invoice, CancellationToken cancel)
    {
        if (invoice.VendorId is not { } vendor)
            return [];
        var record = InvoiceRecords.FromJson(invoice.Record);
        var proposals = ImmutableArray.CreateBuilder<CodeProposalRecord>();
        var known = new Dictionary<string, List<string>>();
        foreach (var line in record.Lines.Select(line => line.Number).DefaultIfEmpty(0))
        {
            if (KeyOf(record, line) is not { Length: > 0 } key)
                continue;
            if (!known.TryGetValue(key, out var cases))
            {
                known[key] = cases = await db.CodedCases.Where(one => one.VendorId == vendor && one.Like == key && one.InvoiceId != invoice.Id)
                    .OrderByDescending(one => one.Id).Take(Newest).Select(one => one.Shares).ToListAsync(cancel);
            }
            var most = cases.Where(said => said != LeftToRules).GroupBy(said => said).OrderByDescending(group => group.Count()).FirstOrDefault();
            if (most is null)
                continue;
            var shares = JsonSerializer.Deserialize<ImmutableArray<SaidShareRecord>>(most.Key, Json);
            var now = record.Coding.FirstOrDefault(coded => coded.Line == line)?.Parts ?? [];
            // Where the rules say something else, few exceptions are no reason to ask each time.
            if (IsAs(now, shares) || (most.Count() * 2 < cases.Count && !FillsGap(now, shares)))
                continue;
            proposals.Add(new CodeProposalRecord(line, shares, most.Count(), cases.Count, SentenceOf(shares, most.Count(), cases.Count)));
        }
        return proposals.DrainToImmutable();
    }

    private static string SentenceOf(ImmutableArray<SaidShareRecord> shares, int agree, int of)
    {
        var codes = string.Join("; ", shares.Select(share =>
            (shares.Length > 1 ? share.Part + ": " : "") + string.Join(", ", CodeNames.All.Where(share.Codes.ContainsKey).Select(name => $"{TradeNames.Spoken(name)} {share.Codes[name]}"))));
        return $"{codes} on {agree} of {of} {(of == 1 ? "line" : "lines")} like it";
    }

    private static string KeyOf(InvoiceRecord record, int line)
    {
        // An invoice without lines is like others of its vendor.
        if (line == 0)
            return "whole";
        var row = record.Lines.FirstOrDefault(one => one.Number == line);
        return row is null ? "" : LikeLines.KeyOf(row.Cells.ToDictionary(cell => cell.Key, cell => cell.Value.Value));
    }

    /// <summary>Says that a line has the codes already, whoever says them.</summary>
    private static bool IsAs(ImmutableArray<CodedPartRecord> now, ImmutableArray<SaidShareRecord> shares) =>
        now.Length == shares.Length
        && now.Zip(shares).All(pair => (shares.Length == 1 || pair.First.Part == pair.Second.Part) && pair.Second.Codes.All(code => pair.First.Codes.GetValueOrDefault(code.Key)?.Value == code.Value));

    private static bool FillsGap(ImmutableArray<CodedPartRecord> now, ImmutableArray<SaidShareRecord> shares) =>
        shares.SelectMany(share => share.Codes.Keys).Any(name => !now.Any(part => part.Codes.ContainsKey(name)));

    /// <summary>What a person said of a line: lines of which the same was said are the same letters.</summary>
    private static string SaidOf(InvoiceRecord record, int line) =>
        record.CodedByHand.FirstOrDefault(said => said.Line == line) is { } own
            ? JsonSerializer.Serialize(own.Shares.Select(share => share with { Codes = share.Codes.ToImmutableSortedDictionary(StringComparer.Ordinal) }), Json) : LeftToRules;
}
