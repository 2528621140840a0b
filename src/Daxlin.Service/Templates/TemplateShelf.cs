using System.Text.Json;
using Daxlin.Service.Storage;
using Daxlin.Service.Work;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Templates;

/// <summary>Puts the newest version of every template into a file, for the reading processes.</summary>
/// <remarks>
/// The file is named by the last version saved, and each capture asks the database which that is. So no capture that begins
/// after a save can use what was there before it, however saves and captures overlap.
/// </remarks>
public sealed class TemplateShelf(IDbContextFactory<DaxlinDb> databases, DataFolder folder) : IDisposable
{
    private readonly SemaphoreSlim turn = new(1, 1);
    private Shelf? newest;

    /// <summary>The file with all templates as they are now. To be disposed of when it is no longer read.</summary>
    public async Task<ShelfInUse> Newest(CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        await turn.WaitAsync(cancel);
        try
        {
            var last = await db.Templates.MaxAsync(row => (int?)row.Id, cancel) ?? 0;
            if (newest?.LastVersion != last)
            {
                var path = await Write(last, db, cancel);
                newest?.Leave();
                newest = new Shelf(last, path);
            }
            return newest.Use();
        }
        finally
        {
            turn.Release();
        }
    }

    private async Task<string> Write(int last, DaxlinDb db, CancellationToken cancel)
    {
        var path = Path.Combine(folder.Incoming, $"templates-{last}-{Guid.NewGuid():N}");
        await using var file = File.Create(path);
        var documents = db.Templates
            .Where(row => row.Id <= last && !row.IsRetired && row.Version == db.Templates.Where(other => other.Name == row.Name && other.Id <= last).Max(other => other.Version))
            .OrderBy(row => row.Name)
            .Select(row => new ShelvedTemplate(row.Name, row.Version, row.Document))
            .AsAsyncEnumerable();
        await JsonSerializer.SerializeAsync(file, documents, cancellationToken: cancel);
        return path;
    }

    public void Dispose() => turn.Dispose();

    /// <summary>A file that goes once the shelf has a newer one and nobody reads it any more.</summary>
    private sealed class Shelf(int lastVersion, string path)
    {
        private int users = 1;

        public int LastVersion { get; } = lastVersion;

        public ShelfInUse Use()
        {
            Interlocked.Increment(ref users);
            return new ShelfInUse(path, Leave);
        }

        public void Leave()
        {
            if (Interlocked.Decrement(ref users) == 0)
                File.Delete(path);
        }
    }
}

/// <param name="Path">The file of all templates.</param>
public sealed record ShelfInUse(string Path, Action Leave) : IDisposable
{
    public void Dispose() => Leave();
}
