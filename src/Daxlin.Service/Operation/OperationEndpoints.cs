using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.People;
using Daxlin.Service.People;
using Daxlin.Service.Schedules;
using Daxlin.Service.Sources;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Operation;

internal static class OperationEndpoints
{
    public static void Map(RouteGroupBuilder api)
    {
        var operation = api.MapGroup("/operation").WithTags("Service").ChangesNeed(Right.Administer).NeedsAllGroups();
        operation.MapGet("", Show).WithSummary("How the service is: the services on the database, what waits, the storage, the last backup.").Needs(Right.Administer);
        operation.MapDelete("/nodes/{name}", Forget).WithSummary("Strikes out a service that is away and will not come back.");
    }

    private static async Task<Ok<OperationShown>> Show(
        DaxlinDb db, Store store, ServiceSettings settings, DataFolder folder, Measures measures, StorageState storage, TimeProvider clock, CancellationToken cancel)
    {
        var now = clock.GetUtcNow().UtcDateTime;
        var backlog = await Backlog.Of(db, now, cancel);
        var documents = await db.Intakes.GroupBy(_ => 1).Select(all => new { Count = all.Count(), Bytes = all.Sum(row => row.Size) }).SingleOrDefaultAsync(cancel);
        var trouble = storage.Current?.Sentence ?? "";
        var own = new NodeShown(
            settings.Node, IsThis: true, IsAway: false, ThisProgram.Version, ThisProgram.StartedAt, now, Environment.ProcessorCount, measures.Reading, measures.Captured, measures.SetAside, measures.Deaths, trouble);
        ImmutableArray<NodeShown> nodes = [own, .. settings.Store.Length == 0 ? [] : await Others(db, settings.Node, cancel)];
        return TypedResults.Ok(new OperationShown(
            now, [.. nodes.Select(TroubleOf).OfType<string>().Distinct(), .. await SourceShelf.Troubles(db, cancel), .. await ScheduleShelf.Troubles(db, cancel)], nodes,
            new WorkWaiting(backlog.Documents, backlog.OldestAt, backlog.Deliveries.GetValueOrDefault("waiting"), backlog.Deliveries.GetValueOrDefault("given-up"), backlog.Invoices),
            new StorageShown(store.Title, folder.Root, await store.Bytes(db, cancel), documents?.Count ?? 0, documents?.Bytes ?? 0, new DriveInfo(folder.Root).AvailableFreeSpace, trouble),
            LastBackup.Of(folder) is { } last ? new BackupShown(last.At, last.Folder, last.Documents, last.Invoices, last.Faults) : null));
    }

    private static string? TroubleOf(NodeShown node) => node switch
    {
        { IsAway: true } => string.Create(CultureInfo.InvariantCulture, $"The service “{node.Name}” did not stop in order, and has not told of itself since {node.SeenAt:yyyy-MM-dd HH:mm} UTC."),
        { Trouble: { Length: > 0 } trouble } => trouble,
        _ => null,
    };

    private static async Task<ImmutableArray<NodeShown>> Others(DaxlinDb db, string own, CancellationToken cancel)
    {
        // By the server's clock, which all rows were written by.
        var now = await db.Database.SqlQuery<DateTime>($"""SELECT now() AS "Value" """).SingleAsync(cancel);
        var rows = await db.Nodes.AsNoTracking().Where(node => node.Name != own).OrderBy(node => node.Name).ToListAsync(cancel);
        return
        [
            .. rows.Select(node => new NodeShown(
                node.Name, IsThis: false, now - node.SeenAt > TimeSpan.FromSeconds(NodeWatch.SecondsUntilAway), node.Version, node.StartedAt, node.SeenAt, node.Readers, node.Reading,
                node.Captured, node.SetAside, node.Deaths, node.Trouble)),
        ];
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Forget(string name, DaxlinDb db, WriteTurn turn, CancellationToken cancel)
    {
        await using var change = await turn.Take(db, cancel);
        var away = TimeSpan.FromSeconds(NodeWatch.SecondsUntilAway);
        var rows = await db.Nodes.Where(node => node.Name == name).ToListAsync(cancel);
        if (rows is not [var node])
            return Problem.NotThere($"service “{name}” on this database");
        var now = await db.Database.SqlQuery<DateTime>($"""SELECT now() AS "Value" """).SingleAsync(cancel);
        if (now - node.SeenAt <= away)
            return Problem.Of(409, "node-runs", $"The service “{name}” runs: it told of itself {(now - node.SeenAt).TotalSeconds:F0} seconds ago. Stop it, and it is struck out by itself.");
        db.Nodes.Remove(node);
        await db.SaveChangesAsync(cancel);
        await change.Commit(cancel);
        return TypedResults.NoContent();
    }
}
