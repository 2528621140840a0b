using Daxlin.Core.History;
using Daxlin.Service.History;
using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.NamedDocuments;

/// <summary>Documents of one kind that were saved: each change is a version, and none is ever changed or taken away.</summary>
internal abstract class DocumentShelf<TVersion>(DaxlinDb db, TimeProvider clock)
    where TVersion : NamedDocument, new()
{
    public DaxlinDb Db => db;

    protected DateTime Now => clock.GetUtcNow().UtcDateTime;

    /// <summary>The newest version of each document, of retired ones, too.</summary>
    public static IQueryable<TVersion> Newest(DaxlinDb db)
    {
        var all = db.Set<TVersion>();
        return all.Where(row => row.Version == all.Where(other => other.Name == row.Name).Max(other => other.Version));
    }

    /// <summary>What a document is, as a sentence names it: layout.</summary>
    public abstract string What { get; }

    /// <summary>The part of the history in which a document's changes stand.</summary>
    protected abstract string StreamOf(string name);

    /// <summary>The history's word for a change.</summary>
    protected abstract string Act { get; }

    /// <summary>Is told that a document was changed.</summary>
    protected abstract Task Changed(string name, CancellationToken cancel);

    /// <param name="version">The newest if it is null.</param>
    public Task<TVersion?> Row(string name, int? version, CancellationToken cancel) => version is { } number
        ? db.Set<TVersion>().SingleOrDefaultAsync(row => row.Name == name && row.Version == number, cancel)
        : Newest(db).SingleOrDefaultAsync(row => row.Name == name, cancel);

    public async Task<DocumentSaved> Save(TVersion? newest, string name, string document, string note, string who, CancellationToken cancel) =>
        newest is { IsRetired: false } && newest.Document == document
            ? new DocumentSaved(newest.Name, newest.Version, false) : await Add(newest, name, document, note, isRetired: false, who, cancel);

    public Task<DocumentSaved> SetRetired(TVersion newest, bool isRetired, string note, string who, CancellationToken cancel) =>
        Add(newest, newest.Name, newest.Document, note, isRetired, who, cancel);

    private async Task<DocumentSaved> Add(TVersion? newest, string name, string document, string note, bool isRetired, string who, CancellationToken cancel)
    {
        var row = new TVersion
        {
            Name = name,
            Version = (newest?.Version ?? 0) + 1,
            Document = document,
            SavedAt = Now,
            SavedBy = who,
            Note = note,
            IsRetired = isRetired,
        };
        db.Set<TVersion>().Add(row);
        await HistoryLog.Record(
            db,
            new Deed(StreamOf(name), row.SavedAt, who, Act, isRetired ? $"retired, as version {row.Version}" : $"saved version {row.Version}")
            {
                After = name,
                Reason = note,
                Content = HistoryChain.ContentOf(document),
            },
            cancel);
        await db.SaveChangesAsync(cancel);
        await Changed(name, cancel);
        return new DocumentSaved(row.Name, row.Version, true);
    }
}
