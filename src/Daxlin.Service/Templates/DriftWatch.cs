using System.Collections.Concurrent;
using System.Collections.Immutable;
using System.Text.Json;
using Daxlin.Core.Drift;
using Daxlin.Service.Storage;
using Daxlin.Service.Work;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Templates;

/// <summary>Looks for signs that vendors' layouts have changed under their templates.</summary>
/// <remarks>
/// What was found stays true until a template's invoices change, and is kept so long: of a thousand templates on a page only
/// those are looked at that have captured something since.
/// </remarks>
public sealed class DriftWatch
{
    /// <summary>So many of a template's newest invoices are looked at.</summary>
    private const int Newest = 40;

    private readonly ConcurrentDictionary<string, (Seen Seen, ImmutableArray<DriftRecord> Signs)> known = [];

    /// <summary>The signs on the invoices of some templates, template by template, and on those that they should have recognised.</summary>
    public async Task<ImmutableArray<DriftRecord>> Of(DaxlinDb db, IReadOnlyCollection<string> names, CancellationToken cancel)
    {
        // A new version finds things elsewhere because it says so; only invoices of one version can be compared.
        var templates = await db.Invoices.Where(invoice => names.Contains(invoice.Template) && invoice.State != InvoiceState.Returned).GroupBy(invoice => invoice.Template)
            .Select(group => new { Name = group.Key, Vendor = group.Max(invoice => invoice.Vendor)!, Version = group.Max(invoice => invoice.TemplateVersion), Last = group.Max(invoice => invoice.Id), Count = group.Count() })
            .OrderBy(group => group.Name).ToListAsync(cancel);
        var vendors = templates.Select(template => template.Vendor).Distinct().ToList();
        // The vendor's name stands on them, and yet a cue is gone.
        var lost = await db.Invoices.Where(invoice => invoice.State == InvoiceState.Unplaced && vendors.Contains(invoice.LooksLike)).GroupBy(invoice => invoice.LooksLike)
            .Select(group => new { Vendor = group.Key, Count = group.Count(), First = group.Min(invoice => invoice.Id) }).ToDictionaryAsync(group => group.Vendor, cancel);
        var signs = ImmutableArray.CreateBuilder<DriftRecord>();
        foreach (var template in templates)
        {
            var missed = lost.GetValueOrDefault(template.Vendor);
            var seen = new Seen(template.Version, template.Last, template.Count, missed?.Count ?? 0, missed?.First ?? 0);
            if (!known.TryGetValue(template.Name, out var before) || before.Seen != seen)
                known[template.Name] = before = (seen, await Look(db, template.Name, template.Vendor, seen, cancel));
            signs.AddRange(before.Signs);
        }
        return signs.ToImmutable();
    }

    private static async Task<ImmutableArray<DriftRecord>> Look(DaxlinDb db, string name, string vendor, Seen seen, CancellationToken cancel)
    {
        var rows = await db.Invoices
            .Where(invoice => invoice.Template == name && invoice.TemplateVersion == seen.Version && invoice.Traits != "" && invoice.State != InvoiceState.Returned)
            .OrderByDescending(invoice => invoice.IntakeId).ThenByDescending(invoice => invoice.FirstPage).Take(Newest)
            .Select(invoice => new { invoice.Id, invoice.Intake.FileName, invoice.Traits }).ToListAsync(cancel);
        rows.Reverse();
        var signs = DriftNotices.Of([.. rows.Select(row => JsonSerializer.Deserialize<InvoiceTraits>(row.Traits, DocumentOutcome.Json)!)])
            .Select(notice => new DriftRecord(name, notice.About, notice.Says, rows[notice.Since].Id, rows[notice.Since].FileName)).ToList();
        if (seen.Lost > 0)
        {
            var file = await db.Invoices.Where(invoice => invoice.Id == seen.FirstLost).Select(invoice => invoice.Intake.FileName).FirstOrDefaultAsync(cancel) ?? "";
            signs.Insert(0, new DriftRecord(
                name, "", seen.Lost == 1 ? $"An invoice that looks like one of {vendor} is not recognised." : $"{seen.Lost} invoices that look like those of {vendor} are not recognised.",
                seen.FirstLost, file));
        }
        return [.. signs];
    }

    /// <summary>By what it is told that a template's invoices are those that were looked at.</summary>
    private readonly record struct Seen(int Version, int Last, int Count, int Lost, int FirstLost);
}
