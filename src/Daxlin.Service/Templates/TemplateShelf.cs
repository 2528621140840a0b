using System.Collections.Immutable;
using Daxlin.Core.Templates;
using Daxlin.Core.Templates.Json;
using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Templates;

/// <summary>The newest version of every template, read once and kept until one is saved.</summary>
public sealed class TemplateShelf(IDbContextFactory<DaxlinDb> databases)
{
    private volatile Task<ImmutableArray<(Template Template, int Version)>>? newest;

    public Task<ImmutableArray<(Template Template, int Version)>> Newest(CancellationToken cancel) =>
        (newest is { IsFaulted: false, IsCanceled: false } kept ? kept : newest = Load()).WaitAsync(cancel);

    /// <summary>A template was saved: the next capture sees it.</summary>
    public void Forget() => newest = null;

    private async Task<ImmutableArray<(Template, int)>> Load()
    {
        await using var db = await databases.CreateDbContextAsync();
        var rows = await db.Templates
            .Where(row => row.Version == db.Templates.Where(other => other.Name == row.Name).Max(other => other.Version))
            .OrderBy(row => row.Name)
            .ToListAsync();
        return [.. rows.Select(row => (TemplateReader.Read(row.Document), row.Version))];
    }
}
