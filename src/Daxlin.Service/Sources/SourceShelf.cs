using System.Collections.Immutable;
using Daxlin.Core.History;
using Daxlin.Core.Json;
using Daxlin.Core.Sources;
using Daxlin.Service.History;
using Daxlin.Service.NamedDocuments;
using Daxlin.Service.Secrets;
using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Sources;

/// <summary>The sources that were saved.</summary>
internal sealed class SourceShelf(DaxlinDb db, SecretStore secrets, SourceWatch watch, TimeProvider clock) : DocumentShelf<SourceVersion>(db, clock)
{
    public override string What => "source";

    protected override string Act => HistoryActs.SourceSaved;

    protected override string StreamOf(string name) => HistoryStreams.Source(name);

    protected override async Task Changed(string name, CancellationToken cancel)
    {
        await StateOf(name, cancel);
        Db.Then(watch.Wake);
    }

    /// <summary>What a document says; null for one that a later release cannot read any more.</summary>
    public static Source? Read(SourceVersion row)
    {
        try
        {
            return SourceReader.Read(row.Document);
        }
        catch (JsonFaultException)
        {
            return null;
        }
    }

    /// <summary>How a source is; made at its first version.</summary>
    public async Task<SourceState> StateOf(string name, CancellationToken cancel)
    {
        if (await Db.SourceStates.SingleOrDefaultAsync(row => row.Name == name, cancel) is { } kept)
            return kept;
        var state = new SourceState { Name = name };
        Db.SourceStates.Add(state);
        await Db.SaveChangesAsync(cancel);
        return state;
    }

    /// <summary>Stops looking at a source, or goes on; what is so already stays so.</summary>
    public async Task SetPaused(string name, bool isPaused, string note, string who, CancellationToken cancel)
    {
        var state = await StateOf(name, cancel);
        if (state.IsPaused == isPaused)
            return;
        state.IsPaused = isPaused;
        await HistoryLog.Record(
            Db, new Deed(HistoryStreams.Source(name), Now, who, isPaused ? HistoryActs.SourcePaused : HistoryActs.SourceResumed, isPaused ? "paused" : "went on") { Reason = note }, cancel);
        await Db.SaveChangesAsync(cancel);
        Db.Then(watch.Wake);
    }

    /// <summary>Names of secrets that a source needs and that are not kept yet.</summary>
    public ImmutableArray<string> MissingOf(Source? source) => secrets.MissingOf(source?.Way.Secrets ?? []);

    /// <summary>A sentence for each source that is watched and could not be looked at the last time.</summary>
    public static async Task<List<string>> Troubles(DaxlinDb db, CancellationToken cancel)
    {
        var retired = Newest(db).Where(row => row.IsRetired).Select(row => row.Name);
        var troubled = await db.SourceStates.AsNoTracking().Where(state => state.Trouble != "" && !state.IsPaused && !retired.Contains(state.Name)).OrderBy(state => state.Name).ToListAsync(cancel);
        return troubled.ConvertAll(state => string.Create(
            System.Globalization.CultureInfo.InvariantCulture, $"The source “{state.Name}” cannot be looked at since {state.TroubleSince:yyyy-MM-dd HH:mm} UTC: {state.Trouble}"));
    }

    /// <summary>The word for how a source is.</summary>
    /// <param name="source">What its document says; null for one that cannot be read any more.</param>
    /// <param name="local">The time on the wall of the service's machine.</param>
    public static string WordOf(bool isRetired, SourceState? state, Source? source, DateTime local) =>
        isRetired ? "retired" : state is { IsPaused: true } ? "paused" : state is { Trouble.Length: > 0 } ? "trouble" : source?.Hours?.Contain(local) == false ? "resting" : "watched";
}
