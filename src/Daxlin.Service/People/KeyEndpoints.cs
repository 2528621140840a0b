using Daxlin.Core.People;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.People;

internal static class KeyEndpoints
{
    public static void Map(RouteGroupBuilder api)
    {
        var keys = api.MapGroup("/access-keys").WithTags("People");
        keys.MapGet("", List).WithSummary("The own access keys, the newest first; an administrator sees everyone's.").NeedsAnyone();
        keys.MapPost("", Make).WithSummary("Makes an access key for a program; the key is in the answer and nowhere else.").NeedsAnyone();
        keys.MapPost("/{id:int}/revocation", Revoke).WithSummary("Revokes an access key, which works no more from then on.").NeedsAnyone();
    }

    private static async Task<Ok<List<KeyRecord>>> List([AsParameters] ListPage page, Actor actor, HttpContext context, DaxlinDb db, CancellationToken cancel)
    {
        var seesAll = actor.Rights.Contains(Right.Administer);
        var rows = await page.Of(
            db.AccessKeys.Where(key => (seesAll || key.PersonId == actor.PersonId) && (page.AfterNumber == null || key.Id < page.AfterNumber)).OrderByDescending(key => key.Id)
                .Join(db.Users, key => key.PersonId, person => person.Id, (key, person) => new { Key = key, Owner = person.UserName }),
            row => $"{row.Key.Id}", context, cancel);
        return TypedResults.Ok(rows.ConvertAll(row => RecordOf(row.Key, row.Owner ?? "")));
    }

    private static async Task<Results<Created<MadeKey>, ProblemHttpResult>> Make(
        KeyToMake wanted, Actor actor, KeyKeeping keeping, DaxlinDb db, WriteTurn turn, HttpResponse response, CancellationToken cancel)
    {
        response.Headers.CacheControl = "no-store";
        await using var change = await turn.Take(db, cancel);
        var (made, key, refused) = await keeping.Make(wanted, actor, cancel);
        if (made is null)
            return refused!.ToProblem();
        await change.Commit(cancel);
        return TypedResults.Created($"/api/v1/access-keys/{made.Id}", new MadeKey(RecordOf(made, actor.Name), key));
    }

    private static Task<Results<Ok<KeyRecord>, ProblemHttpResult>> Revoke(
        int id, NothingSaid said, HttpRequest request, Actor actor, KeyKeeping keeping, DaxlinDb db, WriteTurn turn, CancellationToken cancel) =>
        Bound.Do<AccessKey, KeyRecord>(
            id, "access key", db, turn, request, key => $"The access key “{key.Name}” was changed since it was shown. Look at it again.",
            key => keeping.Revoke(key, actor, cancel),
            async key => RecordOf(key, await db.Users.Where(person => person.Id == key.PersonId).Select(person => person.UserName).SingleAsync(cancel) ?? ""), cancel);

    private static KeyRecord RecordOf(AccessKey key, string owner) => new(
        key.Id, owner, key.Name, key.Beginning, [.. KeyKeeping.RightsOf(key).Select(Roles.Word)], key.MadeAt, key.ExpiresAt, key.LastUsedAt, key.LastUsedFrom, key.RevokedAt, key.Revision);
}
