using Daxlin.Core.Templates.Json;
using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Templates;

/// <summary>Asks for versions of templates, and keeps beside their documents what lists need not read them for.</summary>
internal static class TemplateVersions
{
    /// <summary>The newest version of each template that is not retired.</summary>
    public static IQueryable<TemplateVersion> Newest(DaxlinDb db) => NewestOrRetired(db).Where(row => !row.IsRetired);

    /// <summary>The newest version of each template, of retired ones, too.</summary>
    public static IQueryable<TemplateVersion> NewestOrRetired(DaxlinDb db) =>
        db.Templates.Where(row => row.Version == db.Templates.Where(other => other.Name == row.Name).Max(other => other.Version));

    /// <summary>Fills in the currencies of versions that an earlier release saved without.</summary>
    public static async Task FillCurrencies(DaxlinDb db)
    {
        var open = await db.Templates.Where(row => row.Currency == "").ToListAsync();
        foreach (var row in open)
            row.Currency = TemplateReader.Check(row.Document).Template?.Reads.Currency.Code ?? "?";
        await db.SaveChangesAsync();
    }
}
