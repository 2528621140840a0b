using System.Globalization;
using Daxlin.Core.History;
using Daxlin.Core.People;
using Daxlin.Service.Invoices;
using Daxlin.Service.People;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Daxlin.Service.Work;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Batches;

internal static class BatchEndpoints
{
    /// <summary>The most bytes of one upload; a batch may be uploaded in as many as it takes.</summary>
    public const long LargestUpload = 1L << 30;

    /// <summary>The most files of one upload.</summary>
    public const int MostFiles = 2000;

    public static void Map(RouteGroupBuilder api)
    {
        var batches = api.MapGroup("/batches").WithTags("Batches").ChangesNeed(Right.Work);
        batches.MapGet("", List).WithSummary("All batches, newest first, with their counts.");
        batches.MapPost("", Open).WithSummary("Opens a batch, or finds the one of that name.");
        batches.MapGet("/{id:int}", Show).WithSummary("One batch with its counts.");
        batches.MapGet("/{id:int}/documents", Documents).WithSummary("The documents of a batch and what became of each.");
        batches.MapPost("/{id:int}/documents", Take).RequireRateLimiting(Limits.Heavy)
            .WithSummary("Takes files into a batch (multipart/form-data, up to 50 MB a file, 2000 files and 1 GB an upload).")
            .Accepts<IFormFileCollection>("multipart/form-data")
            .DisableAntiforgery();
        batches.MapPost("/{id:int}/recapture", Recapture)
            .WithSummary("Captures everything of the batch again that nobody has decided on, by the newest templates.");
        batches.MapGet("/{id:int}/sheet", Sheet)
            .WithSummary("What a batch comes to: counts and sums by state, vendor and currency, what is held and why, and the stated control totals against all that was taken in.");
        batches.MapGet("/{id:int}/sheet/printable", Printable).WithSummary("The same as a page to print.").Produces<string>(contentType: "text/html");
        batches.MapPut("/{id:int}/control-totals", State)
            .WithSummary("Says what the batch is to come to, by currency; If-Match says which totals were seen.");
        batches.MapPut("/{id:int}/group", GiveGroup).WithSummary("Says whose a batch is, for those who are held to groups; If-Match says which sheet was seen.").Needs(Right.Administer);
        batches.MapGet("/{id:int}/events", Events)
            .WithSummary("The batch's counts as server-sent events, each time they change, until nothing waits.");
    }

    private static async Task<Ok<List<BatchSummary>>> List([AsParameters] ListPage page, HttpContext context, DaxlinDb db, RecognitionProgress recognition, CancellationToken cancel)
    {
        var before = page.AfterNumber ?? int.MaxValue;
        var batches = await page.Of(
            db.Batches.Where(batch => batch.Id < before).OrderByDescending(batch => batch.Id), batch => Text(batch.Id), context, cancel);
        return TypedResults.Ok(await BatchCounts.Of(db, batches, recognition, cancel));
    }

    private static async Task<Results<Ok<BatchSummary>, ProblemHttpResult>> Show(int id, DaxlinDb db, RecognitionProgress recognition, CancellationToken cancel) =>
        await Find(id, db, recognition, cancel) is { } batch ? TypedResults.Ok(batch) : Problem.NotThere($"batch {id}");

    private static async Task<BatchSummary?> Find(int id, DaxlinDb db, RecognitionProgress recognition, CancellationToken cancel) =>
        await db.Batches.SingleOrDefaultAsync(batch => batch.Id == id, cancel) is { } batch
            ? (await BatchCounts.Of(db, [batch], recognition, cancel))[0] : null;

    private static async Task<Results<Ok<BatchSummary>, Created<BatchSummary>, ProblemHttpResult>> Open(
        BatchToOpen wanted, HttpContext context, OpeningBatch opening, DaxlinDb db, RecognitionProgress recognition, CancellationToken cancel)
    {
        var (batch, isNew, refused) = await opening.Do(wanted.Name, wanted.Group, context.User, cancel);
        if (batch is null)
            return refused!.ToProblem();
        var shown = (await Find(batch.Id, db, recognition, cancel))!;
        return isNew ? TypedResults.Created($"/api/v1/batches/{batch.Id}", shown) : TypedResults.Ok(shown);
    }

    private static async Task<Results<Ok<BatchSheet>, ProblemHttpResult>> Sheet(int id, DaxlinDb db, HttpResponse response, CancellationToken cancel)
    {
        if (await BatchSheets.Of(id, db, cancel) is not { } sheet)
            return Problem.NotThere($"batch {id}");
        Seen.Tag(response, sheet.Revision);
        return TypedResults.Ok(sheet);
    }

    private static async Task<Results<ContentHttpResult, ProblemHttpResult>> Printable(int id, DaxlinDb db, CancellationToken cancel) =>
        await BatchSheets.Of(id, db, cancel) is { } sheet ? TypedResults.Content(PrintableSheet.Of(sheet), "text/html; charset=utf-8") : Problem.NotThere($"batch {id}");

    private static Task<Results<Ok<BatchSheet>, ProblemHttpResult>> State(
        int id, TotalsToState wanted, HttpRequest request, Actor actor, DaxlinDb db, StatingTotals stating, WriteTurn turn, CancellationToken cancel) =>
        Bound.Do<Batch, BatchSheet>(
            id, "batch", db, turn, request, _ => "The control totals of this batch were changed since they were shown. Look at them again.",
            batch => stating.Do(batch, wanted, actor.Name, cancel), batch => BatchSheets.Of(batch, db, cancel), cancel);

    private static Task<Results<Ok<BatchSummary>, ProblemHttpResult>> GiveGroup(
        int id, GroupToGive wanted, HttpRequest request, Actor actor, GivingGroup giving, DaxlinDb db, RecognitionProgress recognition, WriteTurn turn, CancellationToken cancel) =>
        Bound.Do<Batch, BatchSummary>(
            id, "batch", db, turn, request, _ => "This batch was changed since it was shown. Look at it again.",
            batch => giving.Do(batch, HistoryStreams.Batch(id), wanted.Group, actor, cancel), async batch => (await Find(batch.Id, db, recognition, cancel))!, cancel);

    private static async Task<Results<Ok<List<BatchDocument>>, ProblemHttpResult>> Documents(
        int id, [AsParameters] ListPage page, HttpContext context, DaxlinDb db, CancellationToken cancel)
    {
        if (!await db.Batches.AnyAsync(batch => batch.Id == id, cancel))
            return Problem.NotThere($"batch {id}");
        var rows = db.Intakes.Where(intake => intake.BatchId == id);
        if (page.AfterNumber is { } after && await rows.SingleOrDefaultAsync(row => row.Id == after, cancel) is { } last)
            rows = rows.Where(row => string.Compare(row.FileName, last.FileName) > 0 || (row.FileName == last.FileName && row.Id > last.Id));
        var part = await page.Of(rows.OrderBy(row => row.FileName).ThenBy(row => row.Id), row => Text(row.Id), context, cancel);
        return TypedResults.Ok(part.ConvertAll(row => new BatchDocument(
            row.Id, row.FileName, row.Sha256, row.Size, row.ReceivedAt, row.State.ToString().ToLowerInvariant(), row.Pages,
            row.ReasonCode, row.Reason)));
    }

    private static async Task<Results<Ok<List<FileTaken>>, ProblemHttpResult>> Take(
        int id, HttpRequest request, Actor actor, DaxlinDb db, BatchIntake intake, CancellationToken cancel)
    {
        if (!await db.Batches.AnyAsync(batch => batch.Id == id, cancel))
            return Problem.NotThere($"batch {id}");
        if (!request.HasFormContentType)
            return Problem.Of(StatusCodes.Status415UnsupportedMediaType, "no-form", "Files come as multipart/form-data.");
        if (request.ContentLength > LargestUpload)
            return TooLarge();
        IFormFileCollection files;
        try
        {
            files = (await request.ReadFormAsync(cancel)).Files;
        }
        catch (InvalidDataException error) when (error.Message.Contains("limit", StringComparison.OrdinalIgnoreCase))
        {
            return TooLarge();
        }
        catch (BadHttpRequestException error) when (error.StatusCode == StatusCodes.Status413PayloadTooLarge)
        {
            return TooLarge();
        }
        return TypedResults.Ok(await intake.Take(id, [.. files.Select(file => (file.FileName, (Func<Stream>)file.OpenReadStream))], actor.Name, cancel));
    }

    private static ProblemHttpResult TooLarge() => Problem.Of(
        StatusCodes.Status413PayloadTooLarge, "upload-too-large",
        $"One upload takes at most {MostFiles} files and {LargestUpload >> 30} GB; send the rest in another.");

    private static async Task<Results<Ok<BatchSummary>, ProblemHttpResult>> Recapture(
        int id, DaxlinDb db, WriteTurn turn, CaptureQueue queue, BatchEvents events, RecognitionProgress recognition, CancellationToken cancel)
    {
        if (!await db.Batches.AnyAsync(batch => batch.Id == id, cancel))
            return Problem.NotThere($"batch {id}");
        await using (var change = await turn.Take(db, cancel))
        {
            // A document of which every invoice is decided on has nothing left to capture.
            var again = await db.Intakes
                .Where(intake => intake.BatchId == id && (
                    !db.Invoices.Any(invoice => invoice.IntakeId == intake.Id)
                    || db.Invoices.Any(invoice => invoice.IntakeId == intake.Id && (
                        invoice.State == InvoiceState.Unplaced || invoice.State == InvoiceState.Held || invoice.State == InvoiceState.Clear))))
                .ToListAsync(cancel);
            foreach (var intake in again)
                intake.Again();
            await db.SaveChangesAsync(cancel);
            await change.Commit(cancel);
            foreach (var intake in again)
                queue.Add(id, intake.Id);
        }
        events.Moved(id);
        return TypedResults.Ok((await Find(id, db, recognition, cancel))!);
    }

    private static async Task<Results<ServerSentEventsResult<BatchSummary>, ProblemHttpResult>> Events(
        int id, IDbContextFactory<DaxlinDb> databases, BatchEvents events, RecognitionProgress recognition, IHostApplicationLifetime lifetime, TimeProvider clock, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        if (!await db.Batches.AnyAsync(batch => batch.Id == id, cancel))
            return Problem.NotThere($"batch {id}");
        return TypedResults.ServerSentEvents(ProgressStream.Of(
            id, events,
            async looks =>
            {
                await using var now = await databases.CreateDbContextAsync(looks);
                return await Find(id, now, recognition, looks);
            },
            batch => batch.Waiting == 0, clock, lifetime, cancel));
    }

    private static string Text(int number) => number.ToString(CultureInfo.InvariantCulture);
}
