using Daxlin.Core.Json;
using Daxlin.Core.People;
using Daxlin.Core.Posting.Coding;
using Daxlin.Service.People;
using Daxlin.Service.Posting.Layouts;
using Daxlin.Service.Posting.Lists;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Daxlin.Service.NamedDocuments;

namespace Daxlin.Service.Posting.Coding;

internal static class CodingEndpoints
{
    public static void Map(RouteGroupBuilder api)
    {
        var coding = api.MapGroup("/coding-rules").WithTags("Posting").ChangesNeed(Right.Work);
        coding.MapGet("", Show).WithSummary("The coding rules with their document, the newest version unless one is named.");
        coding.MapGet("/versions", Versions).WithSummary("The history of the coding rules, the newest version first.");
        coding.MapGet("/events", Events).WithSummary("How many open invoices wait to be coded anew, as server-sent events, until none does.");
        coding.MapPost("", Save).WithSummary("Saves the coding rules; changed ones become the next version, and open invoices are coded anew.");
        coding.MapPost("/trial", Try).RequireRateLimiting(Limits.Heavy).WithSummary("What coding rules make of some invoices, and what is wrong with them; nothing is stored.").OnlyLooks();
        api.MapGet("/coding.schema.json", () => Results.Stream(CodingSchema.Open(), "application/schema+json")).WithTags("Posting").WithSummary("The JSON Schema of coding rules.");
        api.MapGet("/invoices/{id:int}/coding-proposals", Proposals).WithTags("Invoices").WithSummary("How lines like those of an invoice were coded before.");
    }

    private static async Task<Results<Ok<CodingDetail>, ProblemHttpResult>> Show(int? version, CodingShelf shelf, DaxlinDb db, HttpResponse response, CancellationToken cancel)
    {
        var newest = await shelf.Row(null, cancel);
        var row = version is null ? newest : await shelf.Row(version, cancel);
        if (version is not null && row is null)
            return Problem.NotThere($"version {version} of the coding rules");
        Seen.Tag(response, newest?.Version ?? 0);
        var waiting = await Waiting(db, cancel);
        return TypedResults.Ok(row is null
            ? new CodingDetail(0, 0, null, "", "", "", waiting)
            : new CodingDetail(row.Version, newest!.Version, row.SavedAt, row.SavedBy, row.Note, row.Document, waiting));
    }

    private static async Task<int> Waiting(DaxlinDb db, CancellationToken cancel)
    {
        var basis = await CodingFacts.BasisOf(db, cancel);
        return await db.Invoices.CountAsync(invoice => (invoice.State == InvoiceState.Held || invoice.State == InvoiceState.Clear) && invoice.CodedBy != basis, cancel);
    }

    private static ServerSentEventsResult<CodingProgress> Events(
        IDbContextFactory<DaxlinDb> databases, CodingEvents events, IHostApplicationLifetime lifetime, TimeProvider clock, CancellationToken cancel) =>
        TypedResults.ServerSentEvents(ProgressStream.Of(
            CodingEvents.Work, events,
            async looks =>
            {
                await using var now = await databases.CreateDbContextAsync(looks);
                return new CodingProgress(await Waiting(now, looks));
            },
            progress => progress.Waiting == 0, clock, lifetime, cancel));

    private static async Task<Ok<List<CodingVersionRecord>>> Versions([AsParameters] ListPage page, HttpContext context, DaxlinDb db, CancellationToken cancel)
    {
        var before = int.TryParse(page.After, out var after) ? after : int.MaxValue;
        var rows = await page.Of(
            db.Codings.Where(row => row.Version < before).OrderByDescending(row => row.Version).Select(row => new CodingVersionRecord(row.Version, row.SavedAt, row.SavedBy, row.Note)),
            row => row.Version.ToString(System.Globalization.CultureInfo.InvariantCulture), context, cancel);
        return TypedResults.Ok(rows);
    }

    /// <remarks>Rules that are there are bound to what was seen if If-Match says so; a file under version control is saved unseen.</remarks>
    private static async Task<Results<Ok<CodingSaved>, Created<CodingSaved>, ProblemHttpResult>> Save(
        HttpRequest request, string? note, Actor actor, CodingShelf shelf, ListShelf lists, DaxlinDb db, WriteTurn turn, CancellationToken cancel)
    {
        var document = await SentDocument.Of(request, CodingReader.Longest, cancel);
        try
        {
            CodingReader.Read(document, (await lists.Now(cancel)).Lists);
        }
        catch (JsonFaultException error)
        {
            return Problem.Of(
                StatusCodes.Status422UnprocessableEntity, "coding-faulty",
                error.Faults.Length == 1 ? $"The coding rules have a fault: {error.Faults[0]}" : $"The coding rules have {error.Faults.Length} faults.", ("faults", DocumentFaultRecord.Of(error.Faults)));
        }
        if (Note.Of(note) is not { } words)
            return Note.TooLong;
        await using var change = await turn.Take(db, cancel);
        var newest = await shelf.Row(null, cancel);
        if (newest is not null && Seen.RefuseVersion(request, newest.Version, "coding rules", newest.SavedBy, newest.SavedAt, newest.Note) is { } unseen)
            return unseen;
        var saved = await shelf.Save(newest, document, words, actor.Name, cancel);
        await change.Commit(cancel);
        return saved.IsNew ? TypedResults.Created("/api/v1/coding-rules", saved) : TypedResults.Ok(saved);
    }

    private static async Task<Results<Ok<TriedCoding>, ProblemHttpResult>> Try(CodingToTry wanted, TriedCodings tried, CancellationToken cancel)
    {
        if (wanted.Document is not { Length: > 0 } document)
            return Problem.Of(StatusCodes.Status422UnprocessableEntity, "document-missing", "Say in “document” which coding rules are to be tried.");
        if (wanted.Invoices is { Length: > TriedCodings.Most })
            return Problem.Of(StatusCodes.Status422UnprocessableEntity, "too-many", $"Coding rules are tried on {TriedCodings.Most} invoices at most.");
        return TypedResults.Ok(await tried.Try(document, wanted.Invoices, cancel));
    }

    private static async Task<Results<Ok<System.Collections.Immutable.ImmutableArray<CodeProposalRecord>>, ProblemHttpResult>> Proposals(int id, DaxlinDb db, CancellationToken cancel) =>
        await db.Invoices.AsNoTracking().SingleOrDefaultAsync(invoice => invoice.Id == id, cancel) is { } invoice
            ? TypedResults.Ok(await CodedCases.Propose(db, invoice, cancel)) : Problem.NotThere($"invoice {id}");
}
