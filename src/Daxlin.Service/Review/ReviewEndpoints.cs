using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.Corrections;
using Daxlin.Core.People;
using Daxlin.Service.Invoices;
using Daxlin.Service.Letters;
using Daxlin.Service.People;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Daxlin.Service.Work;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Review;

internal static class ReviewEndpoints
{
    public static void Map(RouteGroupBuilder api)
    {
        api.MapGet("/review", Queue).WithTags("Review")
            .WithSummary("Invoices of all batches in the order in which they are to be looked at: held ones by due date, unless said otherwise.");
        var invoices = api.MapGroup("/invoices").WithTags("Review").ChangesNeed(Right.Work);
        invoices.MapPost("/{id:int}/hand-over", Give).WithSummary("Hands an undecided invoice to another person, with a note.");
        invoices.MapGet("/{id:int}/letter", Letter).WithSummary("What the vendor may be told when the invoice goes back: a text to be changed, made of what holds it.");
        invoices.MapPost("/{id:int}/corrections", Correct)
            .WithSummary("Says what a value is, that a row is none, that a finding may pass …, or takes that back; all ties are weighed anew.");
        invoices.MapPost("/{id:int}/template", Choose)
            .WithSummary("Says which template an invoice is for, whatever its cues say; it is captured by it at once, and whenever its document is.");
        invoices.MapGet("/{id:int}/proposals", Propose)
            .WithSummary("The smallest changes after which a held invoice adds up, the likeliest first. None is made by itself.");
    }

    private static async Task<Results<Ok<ImmutableArray<ProposalRecord>>, ProblemHttpResult>> Propose(
        int id, DaxlinDb db, ProposedCorrections proposed, CancellationToken cancel) =>
        await db.Invoices.Include(row => row.Intake).SingleOrDefaultAsync(row => row.Id == id, cancel) is { } invoice
            ? TypedResults.Ok(await proposed.For(invoice, cancel)) : Problem.NotThere($"invoice {id}");

    private static async Task<Results<Ok<List<QueuedInvoice>>, ProblemHttpResult>> Queue(
        [AsParameters] ReviewQueue queue, [AsParameters] ListPage page, HttpContext context, DaxlinDb db, CancellationToken cancel)
    {
        if (queue.Refusal() is { } refused)
            return refused.ToProblem();
        var last = page.AfterNumber is { } after ? await db.Invoices.SingleOrDefaultAsync(row => row.Id == after, cancel) : null;
        var part = await page.Of(
            queue.Of(db, last).Select(row => new
            {
                row.Id,
                row.State,
                row.IsCreditNote,
                row.BatchId,
                BatchName = db.Batches.Where(batch => batch.Id == row.BatchId).Select(batch => batch.Name).First(),
                row.Intake.FileName,
                row.Intake.ReceivedAt,
                row.Vendor,
                row.InvoiceNumber,
                row.InvoiceDate,
                row.DueDate,
                row.Currency,
                row.Total,
                row.Findings,
                row.FirstFinding,
                row.HandedTo,
                row.LooksLike,
                row.Revision,
                row.Numbers,
                row.NumbersTied,
            }),
            row => row.Id.ToString(CultureInfo.InvariantCulture), context, cancel);
        return TypedResults.Ok(part.ConvertAll(row => new QueuedInvoice(
            row.Id, InvoiceDetails.Word(row.State), row.IsCreditNote ? "creditNote" : "invoice", row.BatchId, row.BatchName, row.FileName, row.ReceivedAt, row.Vendor, row.InvoiceNumber,
            row.InvoiceDate, row.DueDate == Invoice.NeverDue ? "" : row.DueDate, row.Currency, row.Total, row.Findings, row.FirstFinding, row.HandedTo, row.LooksLike, row.Revision, row.Numbers, row.NumbersTied)));
    }

    private static async Task<Results<Ok<LetterRecord>, ProblemHttpResult>> Letter(int id, [FromQuery] string? reason, DaxlinDb db, CancellationToken cancel)
    {
        if (await db.Invoices.SingleOrDefaultAsync(row => row.Id == id, cancel) is not { } invoice)
            return Problem.NotThere($"invoice {id}");
        var record = InvoiceRecords.FromJson(invoice.Record);
        var line = await LetterLine.Of(invoice, db, cancel);
        return TypedResults.Ok(new LetterRecord(ReturnLetter.Of(
            invoice.Vendor, record.Fields.ToDictionary(field => field.Key, field => field.Value.Value), invoice.Currency,
            reason?.Trim() is { Length: > 0 } said ? said : "it does not add up",
            [.. record.Findings.Where(finding => finding is { Severity: "hold", Origin: InvoiceRecords.FromTie or InvoiceRecords.FromCheck or InvoiceRecords.FromStore }).Select(finding => finding.Message)]), line?.Source ?? "", line?.To ?? ""));
    }

    private static Task<Results<Ok<InvoiceDetail>, ProblemHttpResult>> Give(
        int id, HandOver wanted, HttpRequest request, Actor actor, BoundActs acts, HandingOver handing, CancellationToken cancel) =>
        acts.Do(id, request, invoice => handing.Do(invoice, wanted, actor.Name, cancel), cancel);

    private static Task<Results<Ok<InvoiceDetail>, ProblemHttpResult>> Correct(
        int id, CorrectionToMake wanted, HttpRequest request, Actor actor, BoundActs acts, Correcting correcting, CancellationToken cancel) =>
        acts.Do(id, request, invoice => correcting.Do(invoice, wanted, actor.Name, cancel), cancel);

    private static async Task<Results<Ok<InvoiceDetail>, ProblemHttpResult>> Choose(
        int id, TemplateToUse wanted, HttpRequest request, Actor actor, BoundActs acts, ChoosingTemplate choosing, BatchEvents events, CancellationToken cancel)
    {
        var (tried, refusal) = await choosing.Try(id, wanted.Template, actor.Name, cancel);
        if (tried is null)
            return refusal!.ToProblem();
        var done = await acts.Do(id, request, invoice => choosing.Do(invoice, tried, cancel), cancel);
        if (done.Result is Ok<InvoiceDetail> { Value: { } became })
            events.Moved(became.Batch);
        return done;
    }
}
