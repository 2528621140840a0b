using Daxlin.Core.History;
using Daxlin.Service.History;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.NamedDocuments;

/// <summary>Documents by which something is done without being asked for, until somebody pauses it.</summary>
/// <typeparam name="TVersion">A version of one.</typeparam>
/// <typeparam name="TState">How each is at the moment.</typeparam>
internal abstract class PausableShelf<TVersion, TState>(DaxlinDb db, TimeProvider clock) : DocumentShelf<TVersion>(db, clock)
    where TVersion : NamedDocument, new()
    where TState : PausableState, new()
{
    /// <summary>The history's words for a pause and its end.</summary>
    protected abstract (string Paused, string Resumed) Pauses { get; }

    /// <summary>Is told that a document was changed, paused or let go on, within that change.</summary>
    protected abstract void Turned(TState state);

    protected sealed override async Task Changed(string name, CancellationToken cancel)
    {
        Turned(await StateOf(name, cancel));
        await Db.SaveChangesAsync(cancel);
    }

    /// <summary>How one is; made at its first version.</summary>
    public async Task<TState> StateOf(string name, CancellationToken cancel)
    {
        if (await Db.Set<TState>().SingleOrDefaultAsync(row => row.Name == name, cancel) is { } kept)
            return kept;
        var state = new TState { Name = name };
        Db.Set<TState>().Add(state);
        return state;
    }

    /// <summary>Stops what is done by itself, or lets it go on.</summary>
    /// <remarks>Both may be said twice, and whoever presses is told how it is: nothing that was seen is decided on.</remarks>
    public async Task<Results<NoContent, ProblemHttpResult>> SetPaused(string name, bool isPaused, DocumentNote said, Actor actor, WriteTurn turn, CancellationToken cancel)
    {
        if (Note.Of(said.Note) is not { } words)
            return Note.TooLong;
        await using var change = await turn.Take(Db, cancel);
        if (await Row(name, null, cancel) is null)
            return Problem.NotThere($"{What} “{name}”");
        var state = await StateOf(name, cancel);
        if (state.IsPaused != isPaused)
        {
            state.IsPaused = isPaused;
            Turned(state);
            await HistoryLog.Record(Db, DeedOf(StreamOf(name), Now, actor.Name, isPaused, isPaused ? Pauses.Paused : Pauses.Resumed, words), cancel);
            await Db.SaveChangesAsync(cancel);
        }
        await change.Commit(cancel);
        return TypedResults.NoContent();
    }

    /// <summary>Pauses what a backup had at work: the service that it was made of may have gone on.</summary>
    /// <param name="act">The history's word for a pause.</param>
    /// <returns>The states of those that are paused by it.</returns>
    protected static async Task<List<TState>> PauseRestored(DaxlinDb db, Func<string, string> streamOf, string act, DateTime at, CancellationToken cancel)
    {
        var atWork = await AtWork(db).OrderBy(state => state.Name).ToListAsync(cancel);
        foreach (var state in atWork)
        {
            state.IsPaused = true;
            await HistoryLog.Record(db, DeedOf(streamOf(state.Name), at, Deed.Daxlin, true, act, "It was restored from a backup."), cancel);
        }
        return atWork;
    }

    /// <summary>Those that are at work and of which nothing came the last time.</summary>
    protected static Task<List<TState>> Troubled(DaxlinDb db, CancellationToken cancel) =>
        AtWork(db).AsNoTracking().Where(state => state.Trouble != "").OrderBy(state => state.Name).ToListAsync(cancel);

    /// <summary>The word for how one is that rests or has a trouble; null for one that is at work.</summary>
    protected static string? WordOf(bool isRetired, TState? state) => isRetired ? "retired" : state is { IsPaused: true } ? "paused" : state is { Trouble.Length: > 0 } ? "trouble" : null;

    private static IQueryable<TState> AtWork(DaxlinDb db)
    {
        var retired = Newest(db).Where(row => row.IsRetired).Select(row => row.Name);
        return db.Set<TState>().Where(state => !state.IsPaused && !retired.Contains(state.Name));
    }

    private static Deed DeedOf(string stream, DateTime at, string who, bool isPaused, string act, string reason) => new(stream, at, who, act, isPaused ? "paused" : "went on") { Reason = reason };
}
