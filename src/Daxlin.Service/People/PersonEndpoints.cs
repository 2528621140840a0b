using Daxlin.Core.People;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.People;

internal static class PersonEndpoints
{
    public static void Map(RouteGroupBuilder api)
    {
        var people = api.MapGroup("/people").WithTags("People").ChangesNeed(Right.Administer);
        people.MapGet("", List).WithSummary("All people by name, with their roles; those who are disabled, too.");
        people.MapGet("/{id:int}", Show).WithSummary("A person with roles and groups.");
        people.MapPost("", Add).WithSummary("Adds a person, who sets a password by the one-time link in the answer.");
        people.MapPut("/{id:int}", Keep).WithSummary("Says anew which roles and groups a person has, and whether it is disabled; this holds at once.");
        people.MapPost("/{id:int}/link", GiveLink).WithSummary("Gives a person a one-time link to set a new password.");
    }

    private static async Task<Ok<List<PersonRecord>>> List([AsParameters] ListPage page, HttpContext context, DaxlinDb db, TimeProvider clock, CancellationToken cancel)
    {
        var after = page.After ?? "";
        var rows = await page.Of(
            db.Users.Where(person => string.Compare(person.NormalizedUserName, after) > 0).OrderBy(person => person.NormalizedUserName)
                .Select(person => new { Row = person, SignedInAt = db.SignIns.Where(one => one.PersonId == person.Id).Max(one => (DateTime?)one.BegunAt) }),
            one => one.Row.NormalizedUserName!, context, cancel);
        return TypedResults.Ok(rows.ConvertAll(one => RecordOf(one.Row, one.SignedInAt, clock.GetUtcNow())));
    }

    private static async Task<Results<Ok<PersonRecord>, ProblemHttpResult>> Show(int id, DaxlinDb db, TimeProvider clock, HttpResponse response, CancellationToken cancel)
    {
        if (await db.Users.FindAsync([id], cancel) is not { } person)
            return Problem.NotThere($"person {id}");
        Seen.Tag(response, person.Revision);
        return TypedResults.Ok(await RecordOf(person, db, clock, cancel));
    }

    private static async Task<Results<Created<AddedPerson>, ProblemHttpResult>> Add(
        PersonToAdd wanted, Actor actor, PersonKeeping keeping, DaxlinDb db, WriteTurn turn, TimeProvider clock, HttpResponse response, CancellationToken cancel)
    {
        response.Headers.CacheControl = "no-store";
        await using var change = await turn.Take(db, cancel);
        var (person, link, refused) = await keeping.Add(wanted, actor, cancel);
        if (person is null)
            return refused!.ToProblem();
        await change.Commit(cancel);
        Seen.Tag(response, person.Revision);
        return TypedResults.Created($"/api/v1/people/{person.Id}", new AddedPerson(await RecordOf(person, db, clock, cancel), link));
    }

    private static Task<Results<Ok<PersonRecord>, ProblemHttpResult>> Keep(
        int id, PersonToKeep wanted, HttpRequest request, Actor actor, PersonKeeping keeping, DaxlinDb db, WriteTurn turn, TimeProvider clock, CancellationToken cancel) =>
        Bound.Do<Person, PersonRecord>(
            id, "person", db, turn, request, Changed, person => keeping.Change(person, wanted, actor, cancel), person => RecordOf(person, db, clock, cancel), cancel);

    private static async Task<Results<Ok<LinkRecord>, ProblemHttpResult>> GiveLink(
        int id, LinkToGive wanted, HttpRequest request, Actor actor, PersonKeeping keeping, DaxlinDb db, WriteTurn turn, CancellationToken cancel)
    {
        var given = "";
        request.HttpContext.Response.Headers.CacheControl = "no-store";
        return await Bound.Do<Person, LinkRecord>(
            id, "person", db, turn, request, Changed,
            async person =>
            {
                (given, var refused) = await keeping.GiveLink(person, wanted, actor, cancel);
                return refused;
            },
            _ => Task.FromResult(new LinkRecord(given)), cancel);
    }

    private static string Changed(Person person) => $"What {person.Name} may do was changed since it was shown. Look at it again.";

    private static async Task<PersonRecord> RecordOf(Person person, DaxlinDb db, TimeProvider clock, CancellationToken cancel) =>
        RecordOf(person, await db.SignIns.Where(one => one.PersonId == person.Id).MaxAsync(one => (DateTime?)one.BegunAt, cancel), clock.GetUtcNow());

    private static PersonRecord RecordOf(Person person, DateTime? signedInAt, DateTimeOffset now) => new(
        person.Id, person.Name, [.. person.Roles.Select(Roles.Word)], [.. person.Rights.Select(Roles.Word)], person.Groups, person.IsDisabled, person.PasswordHash is not null, person.IsByProvider, person.TwoFactorEnabled, person.LockoutEnd > now,
        person.AddedAt, signedInAt, person.Revision);
}
