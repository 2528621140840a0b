using Daxlin.Core.Templates.Json;
using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Templates;

/// <summary>What is kept beside a template's document so that lists need not read it.</summary>
internal static class TemplateVersions
{
    /// <summary>Fills in the currencies of versions that an earlier release saved without.</summary>
    public static async Task FillCurrencies(DaxlinDb db)
    {
        var open = await db.Templates.Where(row => row.Currency == "").ToListAsync();
        foreach (var row in open)
            row.Currency = TemplateReader.Check(row.Document).Template?.Reads.Currency.Code ?? "?";
        await db.SaveChangesAsync();
    }
}
