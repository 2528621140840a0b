using System.Globalization;
using Daxlin.Core.People;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.People;

/// <summary>What a person who is held to some groups of batches and vendors reaches; one who is held to none reaches all.</summary>
/// <remarks>
/// What only shows something sees the database as <see cref="HeldDb"/>. What changes something works on all of it, once what its address
/// names is found to be within reach; anything else is answered as if it were not there.
/// </remarks>
internal sealed class Reach(IHttpContextAccessor request, DbContextOptions<DaxlinDb> options, IDbContextFactory<DaxlinDb> databases)
{
    /// <summary>Where a batch of no group of one's own is shown as far as its invoices are within reach; all else goes over the whole of it.</summary>
    private static readonly string[] ShownInPart = ["/api/v1/batches/{id:int}", "/api/v1/batches/{id:int}/invoices", "/api/v1/batches/{id:int}/documents", "/api/v1/batches/{id:int}/table"];

    /// <summary>What addresses name, by how they begin and the value that names it.</summary>
    private static readonly (string Path, string Value, string Name, Func<HeldDb, int, bool, CancellationToken, Task<bool>> IsThere)[] Guarded =
    [
        ("/api/v1/batches/{", "id", "batch", (db, id, isInPart, cancel) => isInPart ? db.Batches.AnyAsync(row => row.Id == id, cancel) : Task.FromResult(db.OwnBatches.Contains(id))),
        ("/api/v1/invoices/{", "id", "invoice", (db, id, _, cancel) => db.Invoices.AnyAsync(row => row.Id == id, cancel)),
        ("/api/v1/posting-runs/{", "number", "posting run", (db, number, _, cancel) => db.PostingRuns.AnyAsync(row => row.Number == number, cancel)),
        ("/api/v1/deliveries/{", "id", "delivery", (db, id, _, cancel) => db.Deliveries.AnyAsync(row => row.Id == id, cancel)),
    ];

    /// <summary>The database as this request may see it; null if it may see all.</summary>
    public HeldDb? Held()
    {
        if (request.HttpContext is not { } context || PersonClaims.GroupsOf(context.User) is not { IsEmpty: false } groups)
            return null;
        using var db = databases.CreateDbContext();
        List<string> named = [.. groups];
        return new HeldDb(options, groups, [.. db.Batches.Where(batch => named.Contains(batch.Group)).Select(batch => batch.Id)]);
    }

    /// <summary>The database that a request works on: as much as it may see where it only looks, else all of it.</summary>
    public static DaxlinDb DbOf(IServiceProvider services)
    {
        var context = services.GetRequiredService<IHttpContextAccessor>().HttpContext;
        var isLooking = context is not null && (HttpMethods.IsGet(context.Request.Method) || HttpMethods.IsHead(context.Request.Method) || context.GetEndpoint()?.Metadata.GetMetadata<LooksOnly>() is not null);
        return (isLooking ? services.GetRequiredService<Reach>().Held() : null) ?? services.GetRequiredService<IDbContextFactory<DaxlinDb>>().CreateDbContext();
    }

    /// <summary>Says that a batch that a request names otherwise than by its address is within reach.</summary>
    /// <param name="batch">Null for all batches, which nobody reaches who is held to some.</param>
    public Refused? Refuse(int? batch)
    {
        using var held = Held();
        if (held is null)
            return null;
        return batch is not { } id ? OnlyWhole(Actor.Of(request.HttpContext!.User))
            : held.OwnBatches.Contains(id) ? null : Refused.NotThere($"batch {id}");
    }

    public static void Use(WebApplication app) => app.Use(async (context, next) =>
    {
        var route = (context.GetEndpoint() as RouteEndpoint)?.RoutePattern.RawText ?? "";
        await using var held = context.RequestServices.GetRequiredService<Reach>().Held();
        if (held is not null && context.GetEndpoint()?.Metadata.GetMetadata<WholeOnly>() is not null)
        {
            await OnlyWhole(Actor.Of(context.User)).ToProblem().ExecuteAsync(context);
            return;
        }
        var isInPart = HttpMethods.IsGet(context.Request.Method) && ShownInPart.Contains(route);
        foreach (var (path, value, name, isThere) in held is null ? [] : Guarded)
        {
            if (route.StartsWith(path, StringComparison.Ordinal) && int.TryParse(context.Request.RouteValues[value] as string, CultureInfo.InvariantCulture, out var id)
                && !await isThere(held!, id, isInPart, context.RequestAborted))
            {
                await Problem.NotThere($"{name} {id}").ExecuteAsync(context);
                return;
            }
        }
        await next(context);
    });

    private static Refused OnlyWhole(Actor actor) => new(
        StatusCodes.Status403Forbidden, "groups-held", $"{actor.Name} is held to some groups of batches and vendors, and this goes over all of them. It is for those who are held to none.");
}

/// <summary>Says of an endpoint that it changes nothing, though it is asked by POST.</summary>
internal sealed record LooksOnly;

/// <summary>Says of an endpoint that it makes sense only over all groups.</summary>
internal sealed record WholeOnly;
