using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Templates;

/// <summary>Templates as lists show them: the newest version of each, with what came of it.</summary>
internal static class TemplateList
{
    public static IQueryable<ListedTemplate> All(DaxlinDb db) => TemplateVersions.NewestOrRetired(db).OrderBy(row => row.Name)
        .Select(row => new ListedTemplate { Name = row.Name, Vendor = row.Vendor, Currency = row.Currency, Version = row.Version, SavedAt = row.SavedAt, SavedBy = row.SavedBy, Note = row.Note, IsRetired = row.IsRetired });

    public static async Task<List<TemplateSummary>> SummariesOf(List<ListedTemplate> rows, DaxlinDb db, DriftWatch drift, CancellationToken cancel)
    {
        var names = rows.ConvertAll(row => row.Name);
        var counts = await db.Invoices.Where(invoice => names.Contains(invoice.Template)).GroupBy(invoice => invoice.Template)
            .Select(group => new { group.Key, All = group.Count(), Untouched = group.Count(invoice => invoice.Findings == 0), Held = group.Count(invoice => invoice.State == InvoiceState.Held) })
            .ToDictionaryAsync(group => group.Key, cancel);
        var signs = (await drift.Of(db, [.. rows.Where(row => !row.IsRetired).Select(row => row.Name)], cancel)).ToLookup(sign => sign.Template);
        return rows.ConvertAll(row =>
        {
            var count = counts.GetValueOrDefault(row.Name);
            return new TemplateSummary(
                row.Name, row.Vendor, row.Currency, row.Version, row.SavedAt, row.SavedBy, row.Note, row.IsRetired, count?.All ?? 0, count?.Untouched ?? 0, count?.Held ?? 0, [.. signs[row.Name]]);
        });
    }
}
