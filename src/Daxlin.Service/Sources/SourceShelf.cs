using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.History;
using Daxlin.Core.Json;
using Daxlin.Core.Sources;
using Daxlin.Service.History;
using Daxlin.Service.NamedDocuments;
using Daxlin.Service.Secrets;
using Daxlin.Service.Storage;

namespace Daxlin.Service.Sources;

/// <summary>The sources that were saved.</summary>
internal sealed class SourceShelf(DaxlinDb db, SecretStore secrets, SourceWatch watch, TimeProvider clock) : PausableShelf<SourceVersion, SourceState>(db, clock)
{
    public override string What => "source";

    protected override string Act => HistoryActs.SourceSaved;

    protected override string StreamOf(string name) => HistoryStreams.Source(name);

    protected override (string Paused, string Resumed) Pauses => (HistoryActs.SourcePaused, HistoryActs.SourceResumed);

    protected override void Turned(SourceState state) => Db.Then(watch.Wake);

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

    /// <summary>Names of secrets that a source needs and that are not kept yet.</summary>
    public ImmutableArray<string> MissingOf(Source? source) => secrets.MissingOf(source?.Way.Secrets ?? []);

    /// <summary>A sentence for each source that is watched and could not be looked at the last time.</summary>
    public static async Task<List<string>> Troubles(DaxlinDb db, CancellationToken cancel) => (await Troubled(db, cancel)).ConvertAll(
        state => string.Create(CultureInfo.InvariantCulture, $"The source “{state.Name}” cannot be looked at since {state.TroubleSince:yyyy-MM-dd HH:mm} UTC: {state.Trouble}"));

    /// <summary>Pauses the sources of a backup: two services that look at one mailbox would each have half of the invoices.</summary>
    /// <returns>How many are paused by it.</returns>
    public static async Task<int> PauseRestored(DaxlinDb db, DateTime at, CancellationToken cancel)
    {
        var paused = await PauseRestored(db, HistoryStreams.Source, HistoryActs.SourcePaused, at, cancel);
        await db.SaveChangesAsync(cancel);
        return paused.Count;
    }

    /// <summary>The word for how a source is.</summary>
    /// <param name="source">What its document says; null for one that cannot be read any more.</param>
    /// <param name="local">The time on the wall of the service's machine.</param>
    public static string WordOf(bool isRetired, SourceState? state, Source? source, DateTime local) =>
        WordOf(isRetired, state) ?? (source?.Hours?.Contain(local) == false ? "resting" : "watched");
}
