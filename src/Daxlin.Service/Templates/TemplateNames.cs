using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Templates;

/// <summary>The names that a template has had.</summary>
internal static class TemplateNames
{
    /// <summary>A template's name and those that it had before, the newest first: its invoices keep the name that captured them.</summary>
    public static async Task<IReadOnlyCollection<string>> Of(DaxlinDb db, string name, CancellationToken cancel)
    {
        var names = new List<string>();
        for (string? next = name; next is not null && !names.Contains(next);)
        {
            names.Add(next);
            var of = next;
            next = await db.Templates.Where(row => row.Name == of && row.Formerly != "").OrderByDescending(row => row.Version).Select(row => row.Formerly).FirstOrDefaultAsync(cancel);
        }
        return names;
    }
}
