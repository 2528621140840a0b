using System.Collections.Immutable;
using System.Text.Json;
using Daxlin.Core.Drift;
using Daxlin.Service.Storage;
using Daxlin.Service.Work;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Templates;

/// <summary>Looks for signs that a vendor's layout has changed under its template.</summary>
internal static class TemplateDrift
{
    /// <summary>So many of the newest invoices are looked at.</summary>
    private const int Newest = 40;

    /// <summary>The signs on the invoices that the newest version has captured, and on those that it should have recognised.</summary>
    public static async Task<ImmutableArray<DriftRecord>> Of(DaxlinDb db, string name, CancellationToken cancel)
    {
        // A new version finds things elsewhere because it says so; only invoices of one version can be compared.
        var version = await db.Invoices.Where(invoice => invoice.Template == name).MaxAsync(invoice => (int?)invoice.TemplateVersion, cancel);
        if (version is null)
            return [];
        var rows = await db.Invoices
            .Where(invoice => invoice.Template == name && invoice.TemplateVersion == version && invoice.Traits != "" && invoice.State != InvoiceState.Returned)
            .OrderByDescending(invoice => invoice.IntakeId).ThenByDescending(invoice => invoice.FirstPage).Take(Newest)
            .Select(invoice => new { invoice.Id, invoice.InvoiceNumber, invoice.Intake.FileName, invoice.Traits, invoice.Vendor }).ToListAsync(cancel);
        if (rows.Count == 0)
            return [];
        rows.Reverse();
        var notices = DriftNotices.Of([.. rows.Select(row => JsonSerializer.Deserialize<InvoiceTraits>(row.Traits, DocumentOutcome.Json)!)])
            .Select(notice => new DriftRecord(name, notice.About, notice.Says, rows[notice.Since].Id, rows[notice.Since].FileName)).ToList();
        // The vendor's name stands on them, and yet a cue is gone.
        var vendor = rows[^1].Vendor;
        var lost = await db.Invoices.Where(invoice => invoice.State == InvoiceState.Unplaced && invoice.LooksLike == vendor)
            .OrderBy(invoice => invoice.IntakeId).Select(invoice => new { invoice.Id, invoice.Intake.FileName }).ToListAsync(cancel);
        if (lost.Count > 0)
        {
            notices.Insert(0, new DriftRecord(
                name, "", lost.Count == 1 ? $"An invoice that looks like one of {vendor} is not recognised." : $"{lost.Count} invoices that look like those of {vendor} are not recognised.",
                lost[0].Id, lost[0].FileName));
        }
        return [.. notices];
    }
}
