using System.Collections.Immutable;
using System.Globalization;
using System.Text.Json;
using Daxlin.Core.People;
using Daxlin.Service.Batches;
using Daxlin.Service.Captures.Links;
using Daxlin.Service.Captures.Notices;
using Daxlin.Service.Invoices;
using Daxlin.Service.Outgoing;
using Daxlin.Service.People;
using Daxlin.Service.Posting.Files;
using Daxlin.Service.Posting.Tables;
using Daxlin.Service.Storage;
using Daxlin.Service.Templates;
using Daxlin.Service.Web;
using Daxlin.Service.Work;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Microsoft.Net.Http.Headers;

namespace Daxlin.Service.Captures;

/// <summary>For other programs: a document in one call, answered with what was captured of it, or with where to ask.</summary>
internal static class CaptureEndpoints
{
    private const int UsualWait = 20;
    private const int LongestWait = 60;

    public static void Map(RouteGroupBuilder api)
    {
        var captures = api.MapGroup("/captures").WithTags("Captures").ChangesNeed(Right.Work);
        captures.MapPost("", Take).RequireRateLimiting(Limits.Heavy).Accepts<string>("application/pdf", "application/xml", "application/octet-stream", "application/json")
            .WithSummary("Takes a document as the body (up to 50 MB), or by a link in JSON ({ \"link\": \"https://…\" }), into a batch, which is opened if need be, and answers with what was captured of it; 202 and where to ask if that takes longer than “wait” seconds. The same document again is the same capture. Accept: application/json, text/csv or a spreadsheet's type.");
        captures.MapGet("/{id:int}", Show).WithSummary("A document that was sent, and what was captured of it; 202 while it waits. Accept: application/json, text/csv or a spreadsheet's type.");
    }

    /// <param name="name">What the document is called.</param>
    /// <param name="batch">The name of the batch.</param>
    /// <param name="wait">How many seconds to wait for the capture: 0 to 60, 20 if left out.</param>
    /// <param name="notify">A receiver that is a web address, and is told once it is captured.</param>
    /// <param name="template">The template that it is for; an invoice on which that template's cues do not stand is held.</param>
    private static async Task<Results<Ok<CaptureAnswer>, Accepted<CaptureAnswer>, FileContentHttpResult, ProblemHttpResult>> Take(
        HttpRequest request, string? name, string? batch, int? wait, string? notify, string? template, Actor actor, DaxlinDb db, OpeningBatch opening, BatchIntake intake, LinkedDocuments links, AskingForNotice notices, DataFolder data, BatchEvents events,
        IDbContextFactory<DaxlinDb> databases, IHostApplicationLifetime lifetime, CancellationToken cancel)
    {
        if (request.HasFormContentType)
            return Problem.Of(StatusCodes.Status415UnsupportedMediaType, "form", "The document is the body itself, not a part of a form; a form goes to a batch's documents.");
        if (wait is < 0 or > LongestWait)
            return Problem.Of(StatusCodes.Status422UnprocessableEntity, "wait-faulty", $"“wait” is a number of seconds from 0 to {LongestWait}.");
        if (request.ContentLength == 0)
            return Problem.Of(StatusCodes.Status422UnprocessableEntity, "document-missing", "The body is empty: the document is sent as the body.");
        if (notify is { Length: > 0 } && await notices.FaultOf(notify, cancel) is { } unfit)
            return unfit.ToProblem();
        if (template is { Length: > 0 } && !await TemplateVersions.Newest(db).AnyAsync(version => version.Name == template, cancel))
            return Problem.Of(StatusCodes.Status422UnprocessableEntity, "template-unknown", $"There is no template “{template}”, or it is retired.");
        var fetched = request.GetTypedHeaders().ContentType?.MediaType == "application/json" ? data.NewPart() : null;
        try
        {
            if (fetched is not null)
            {
                await using var part = new FileStream(fetched, FileMode.CreateNew, FileAccess.Write);
                var own = await links.Fetch((await Sent(request, cancel)).Link ?? "", part, cancel);
                name ??= own;
            }
            var (into, _, refused) = await opening.Do(batch, null, request.HttpContext.User, cancel);
            if (into is null)
                return refused!.ToProblem();
            var taken = (await intake.Take(into.Id, [(name ?? "document", () => fetched is null ? request.Body : File.OpenRead(fetched))], actor.Name, cancel, template ?? ""))[0];
            if (taken.Outcome == "refused")
                return Problem.Of(StatusCodes.Status413PayloadTooLarge, "too-large", taken.Reason);
            var id = await db.Intakes.Where(row => row.BatchId == into.Id && row.Sha256 == taken.Sha256).Select(row => row.Id).SingleAsync(cancel);
            if (notify is { Length: > 0 })
                await notices.Note(id, notify, cancel);
            await UntilCaptured(into.Id, id, TimeSpan.FromSeconds(wait ?? UsualWait), events, databases, lifetime, cancel);
            return await Answer(id, request, db, cancel);
        }
        catch (LinkFaultException error)
        {
            return Problem.Of(error.Status, error.Code, error.Message);
        }
        catch (TooLargeException error)
        {
            return Problem.Of(StatusCodes.Status413PayloadTooLarge, "too-large", error.Message);
        }
        finally
        {
            if (fetched is not null)
                File.Delete(fetched);
        }
    }

    private static async Task<LinkToCapture> Sent(HttpRequest request, CancellationToken cancel)
    {
        try
        {
            return await request.ReadFromJsonAsync<LinkToCapture>(cancel) ?? new LinkToCapture();
        }
        catch (JsonException error)
        {
            throw LinkFaultException.Faulty("The body is to be the document itself, or JSON that says where it is: { \"link\": \"https://files.vendor.example/invoice.pdf\" }.", error);
        }
    }

    private static Task<Results<Ok<CaptureAnswer>, Accepted<CaptureAnswer>, FileContentHttpResult, ProblemHttpResult>> Show(int id, HttpRequest request, DaxlinDb db, CancellationToken cancel) =>
        Answer(id, request, db, cancel);

    private static async Task UntilCaptured(
        int batch, int id, TimeSpan patience, BatchEvents events, IDbContextFactory<DaxlinDb> databases, IHostApplicationLifetime lifetime, CancellationToken cancel)
    {
        using var until = CancellationTokenSource.CreateLinkedTokenSource(lifetime.ApplicationStopping, cancel);
        until.CancelAfter(patience);
        try
        {
            await foreach (var _ in events.Listen(batch, until.Token))
            {
                await using var now = await databases.CreateDbContextAsync(until.Token);
                if (!await now.Intakes.AnyAsync(row => row.Id == id && row.State == IntakeState.Waiting, until.Token))
                    return;
            }
        }
        catch (OperationCanceledException) when (!cancel.IsCancellationRequested)
        {
            // It takes longer; whoever asked is told where to ask again.
        }
    }

    private static async Task<Results<Ok<CaptureAnswer>, Accepted<CaptureAnswer>, FileContentHttpResult, ProblemHttpResult>> Answer(int id, HttpRequest request, DaxlinDb db, CancellationToken cancel)
    {
        if (await db.Intakes.AsNoTracking().SingleOrDefaultAsync(row => row.Id == id, cancel) is not { } row)
            return Problem.NotThere($"capture {id}");
        var batch = await db.Batches.Where(one => one.Id == row.BatchId).Select(one => one.Name).SingleAsync(cancel);
        var ids = row.State == IntakeState.Waiting ? [] : await db.Invoices.Where(invoice => invoice.IntakeId == id).OrderBy(invoice => invoice.FirstPage).ThenBy(invoice => invoice.Id).Select(invoice => invoice.Id).ToListAsync(cancel);
        if (row.State == IntakeState.Done && TableWanted(request) is { } form)
            return TableFile.Of(await CapturedTable.Of(ids, db, cancel), form, $"capture-{id}")!.ToResult();
        var invoices = ImmutableArray.CreateBuilder<InvoiceDetail>();
        foreach (var invoice in ids)
            invoices.Add((await InvoiceDetails.Find(invoice, db, cancel))!);
        var notices = await db.CaptureNotices.AsNoTracking().Where(notice => notice.IntakeId == id).OrderBy(notice => notice.Id).ToListAsync(cancel);
        var answer = new CaptureAnswer(id, row.FileName, row.Sha256, row.BatchId, batch, Word(row.State), row.ReasonCode, row.Reason, [.. notices.Select(notice => new CaptureNoticeRecord(notice.Receiver, MailWords.Of(notice.State), notice.Says))], invoices.ToImmutable());
        return row.State == IntakeState.Waiting ? TypedResults.Accepted(AddressOf(id), answer) : TypedResults.Ok(answer);
    }

    /// <summary>Where a capture is asked for again.</summary>
    public static string AddressOf(int id) => string.Create(CultureInfo.InvariantCulture, $"/api/v1/captures/{id}");

    public static string Word(IntakeState state) => state.ToString().ToLowerInvariant();

    /// <returns>csv, xlsx, or null for JSON.</returns>
    private static string? TableWanted(HttpRequest request) => request.GetTypedHeaders().Accept.OrderByDescending(one => one.Quality ?? 1).FirstOrDefault()?.MediaType.Value?.ToLowerInvariant() switch
    {
        "text/csv" => TableFile.Csv,
        SheetBook.MediaType => TableFile.Xlsx,
        _ => null,
    };
}
