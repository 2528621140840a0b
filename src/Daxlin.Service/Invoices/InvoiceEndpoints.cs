using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Invoices;

internal static class InvoiceEndpoints
{
    /// <summary>Letters, in any script: dots and blanks say nothing to who reads the record later.</summary>
    private const int FewestLetters = 5;

    private const int LongestLetter = 20_000;

    public static void Map(RouteGroupBuilder api)
    {
        var invoices = api.MapGroup("/invoices").WithTags("Invoices");
        api.MapGet("/batches/{id:int}/invoices", OfBatch).WithTags("Invoices")
            .WithSummary("The invoices of a batch: what to look at first, then by the names of their files.");
        invoices.MapGet("/{id:int}", Show).WithSummary("An invoice with its values, lines, findings and ties.");
        invoices.MapPost("/{id:int}/approval", Approve).WithSummary("Approves an invoice for posting.");
        invoices.MapPost("/{id:int}/return", Return)
            .WithSummary("Returns an invoice to its vendor: it is posted nowhere; what the vendor is told is kept on record, and nothing is sent.");
        invoices.MapPost("/{id:int}/set-aside", PutAside)
            .WithSummary("Sets an invoice aside that nobody has decided on: it is returned, posts nothing and holds no other.");
    }

    private static async Task<Results<Ok<List<InvoiceSummary>>, ProblemHttpResult>> OfBatch(
        int id, [AsParameters] ListPage page, HttpContext context, DaxlinDb db, CancellationToken cancel)
    {
        if (!await db.Batches.AnyAsync(batch => batch.Id == id, cancel))
            return Problem.NotThere($"batch {id}");
        var rows = db.Invoices.Where(invoice => invoice.BatchId == id)

            // In the order in which a clerk looks at them.
            .Select(invoice => new
            {
                Row = invoice,
                invoice.Intake.FileName,
                FilePages = invoice.Intake.Pages,
                Urgency = invoice.State == InvoiceState.Unplaced ? 0 : invoice.State == InvoiceState.Held ? 1 : invoice.State == InvoiceState.Clear ? 2
                    : invoice.State == InvoiceState.Approved ? 3 : invoice.State == InvoiceState.Posted ? 4 : 5,
            });
        if (page.AfterNumber is { } after && await rows.SingleOrDefaultAsync(entry => entry.Row.Id == after, cancel) is { } last)
        {
            rows = rows.Where(entry => entry.Urgency > last.Urgency || (entry.Urgency == last.Urgency
                && (string.Compare(entry.Row.LooksLike, last.Row.LooksLike) > 0 || (entry.Row.LooksLike == last.Row.LooksLike
                    && (string.Compare(entry.FileName, last.FileName) > 0 || (entry.FileName == last.FileName
                        && (entry.Row.FirstPage > last.Row.FirstPage || (entry.Row.FirstPage == last.Row.FirstPage && entry.Row.Id > last.Row.Id))))))));
        }
        var part = await page.Of(
            rows.OrderBy(entry => entry.Urgency).ThenBy(entry => entry.Row.LooksLike).ThenBy(entry => entry.FileName).ThenBy(entry => entry.Row.FirstPage).ThenBy(entry => entry.Row.Id)
                .Select(entry => new
                {
                    entry.Row.Id,
                    entry.Row.State,
                    entry.Row.IsCreditNote,
                    entry.FileName,
                    entry.Row.FirstPage,
                    entry.Row.LastPage,
                    entry.FilePages,
                    entry.Row.Vendor,
                    entry.Row.InvoiceNumber,
                    entry.Row.InvoiceDate,
                    entry.Row.Currency,
                    entry.Row.Total,
                    entry.Row.Lines,
                    entry.Row.Findings,
                    entry.Row.FirstFinding,
                    entry.Row.LooksLike,
                    entry.Row.Revision,
                }),
            row => Text(row.Id), context, cancel);
        return TypedResults.Ok(part.ConvertAll(row => new InvoiceSummary(
            row.Id, InvoiceDetails.Word(row.State), row.IsCreditNote ? "creditNote" : "invoice", row.FileName, row.FirstPage, row.LastPage, row.FilePages,
            row.Vendor, row.InvoiceNumber, row.InvoiceDate, row.Currency, row.Total, row.Lines, row.Findings, row.FirstFinding, id, row.Revision, row.LooksLike)));
    }

    private static async Task<Results<Ok<InvoiceDetail>, ProblemHttpResult>> Show(int id, DaxlinDb db, HttpResponse response, CancellationToken cancel) =>
        await InvoiceDetails.Find(id, db, cancel) is { } invoice ? InvoiceDetails.Tagged(invoice, response) : Problem.NotThere($"invoice {id}");

    private static async Task<Results<Ok<InvoiceDetail>, ProblemHttpResult>> Approve(
        int id, Approval approval, HttpRequest request, Actor actor, DaxlinDb db, WriteTurn turn, TimeProvider clock, CancellationToken cancel)
    {
        using var _ = await turn.Take(cancel);
        var invoice = await db.Invoices.SingleOrDefaultAsync(row => row.Id == id, cancel);
        if (invoice is null)
            return Problem.NotThere($"invoice {id}");
        if (Seen.Refuse(request, invoice.Revision, () => InvoiceDetails.Changed(invoice, db)) is { } unseen)
            return unseen;
        var despite = approval.Despite?.Trim() ?? "";
        if (await Refusal(invoice, despite, db, cancel) is { } refusal)
            return refusal;
        db.Decisions.Add(new Decision
        {
            InvoiceId = id,
            At = clock.GetUtcNow().UtcDateTime,
            By = actor.Name,
            What = "approved",
            Before = InvoiceDetails.Word(invoice.State),
            After = "approved",
            Reason = despite,
        });
        invoice.State = InvoiceState.Approved;
        await db.SaveChangesAsync(cancel);
        return InvoiceDetails.Tagged((await InvoiceDetails.Find(id, db, cancel))!, request.HttpContext.Response);
    }

    private static Task<Results<Ok<InvoiceDetail>, ProblemHttpResult>> PutAside(
        int id, SetAside wanted, HttpRequest request, Actor actor, DaxlinDb db, WriteTurn turn, TimeProvider clock, CancellationToken cancel) =>
        Leave(id, wanted.Reason, null, "set aside", request, actor, db, turn, clock, cancel);

    private static Task<Results<Ok<InvoiceDetail>, ProblemHttpResult>> Return(
        int id, ReturnToVendor wanted, HttpRequest request, Actor actor, DaxlinDb db, WriteTurn turn, TimeProvider clock, CancellationToken cancel) =>
        Leave(id, wanted.Reason, wanted.Letter ?? "", "returned", request, actor, db, turn, clock, cancel);

    private static async Task<Results<Ok<InvoiceDetail>, ProblemHttpResult>> Leave(
        int id, string? why, string? letter, string what, HttpRequest request, Actor actor, DaxlinDb db, WriteTurn turn, TimeProvider clock, CancellationToken cancel)
    {
        using var _ = await turn.Take(cancel);
        var invoice = await db.Invoices.SingleOrDefaultAsync(row => row.Id == id, cancel);
        if (invoice is null)
            return Problem.NotThere($"invoice {id}");
        if (Seen.Refuse(request, invoice.Revision, () => InvoiceDetails.Changed(invoice, db)) is { } unseen)
            return unseen;
        var reason = why?.Trim() ?? "";
        if (!SaysSomething(reason))
        {
            return Problem.Of(
                StatusCodes.Status422UnprocessableEntity, "reason-missing",
                $"Say why invoice {Text(id)} is {what}, in words of {FewestLetters} letters at least; it is kept on record.");
        }
        if (letter?.Length > LongestLetter)
            return Problem.Of(StatusCodes.Status422UnprocessableEntity, "letter-too-long", $"A letter has at most {LongestLetter} characters.");
        if (!await SettingAside.Do(invoice, reason, letter, actor.Name, db, clock, cancel))
            return Problem.Of(StatusCodes.Status409Conflict, "already-decided", $"Invoice {Text(id)} is {InvoiceDetails.Word(invoice.State)} already.");
        return InvoiceDetails.Tagged((await InvoiceDetails.Find(id, db, cancel))!, request.HttpContext.Response);
    }

    private static async Task<ProblemHttpResult?> Refusal(Invoice invoice, string despite, DaxlinDb db, CancellationToken cancel)
    {
        if (invoice.State is InvoiceState.Approved or InvoiceState.Posted or InvoiceState.Returned)
        {
            return Problem.Of(
                StatusCodes.Status409Conflict, "already-decided", $"Invoice {Text(invoice.Id)} is {InvoiceDetails.Word(invoice.State)} already.");
        }
        if (invoice.State == InvoiceState.Unplaced)
        {
            return Problem.Of(
                StatusCodes.Status409Conflict, "unplaced",
                $"Invoice {Text(invoice.Id)} was not captured: {invoice.FirstFinding} Nothing of it can be approved.");
        }
        if (invoice.State == InvoiceState.Held && !SaysSomething(despite))
        {
            return Problem.Of(
                StatusCodes.Status409Conflict, "findings-open",
                $"Invoice {Text(invoice.Id)} is held by {(invoice.Findings == 1 ? "a finding" : Text(invoice.Findings) + " findings")}: "
                + $"{invoice.FirstFinding} To approve it all the same, say why.");
        }
        // An invoice that became clear before its double was taken in: the double is held, but this one may come second.
        var other = invoice.SeenKey.Length == 0 ? 0 : await db.Invoices
            .Where(row => row.SeenKey == invoice.SeenKey && row.Id != invoice.Id
                && (row.State == InvoiceState.Approved || row.State == InvoiceState.Posted))
            .Select(row => row.Id).FirstOrDefaultAsync(cancel);
        if (other > 0 && !SaysSomething(despite))
        {
            return Problem.Of(
                StatusCodes.Status409Conflict, "seen-before",
                $"{invoice.Vendor} {invoice.InvoiceNumber} is approved already as invoice {Text(other)}. To approve it again, say why.");
        }
        return null;
    }

    private static bool SaysSomething(string reason) => reason.Count(char.IsLetter) >= FewestLetters;

    private static string Text(int number) => number.ToString(CultureInfo.InvariantCulture);
}
