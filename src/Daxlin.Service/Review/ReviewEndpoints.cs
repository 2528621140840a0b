using System.Collections.Immutable;
using Daxlin.Service.Invoices;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Review;

internal static class ReviewEndpoints
{
    public static void Map(RouteGroupBuilder api)
    {
        var invoices = api.MapGroup("/invoices").WithTags("Review");
        invoices.MapPost("/{id:int}/corrections", Correct)
            .WithSummary("Says what a value is, that a row is none, that a finding may pass …, or takes that back; all ties are weighed anew.");
        invoices.MapGet("/{id:int}/proposals", Propose)
            .WithSummary("The smallest changes after which a held invoice adds up, the likeliest first. None is made by itself.");
    }

    private static async Task<Results<Ok<ImmutableArray<ProposalRecord>>, ProblemHttpResult>> Propose(
        int id, DaxlinDb db, ProposedCorrections proposed, CancellationToken cancel) =>
        await db.Invoices.Include(row => row.Intake).SingleOrDefaultAsync(row => row.Id == id, cancel) is { } invoice
            ? TypedResults.Ok(await proposed.For(invoice, cancel)) : Problem.NotThere($"invoice {id}");

    private static async Task<Results<Ok<InvoiceDetail>, ProblemHttpResult>> Correct(
        int id, CorrectionToMake wanted, HttpRequest request, Actor actor, DaxlinDb db, WriteTurn turn, Correcting correcting, CancellationToken cancel)
    {
        using var _ = await turn.Take(cancel);
        var invoice = await db.Invoices.SingleOrDefaultAsync(row => row.Id == id, cancel);
        if (invoice is null)
            return Problem.NotThere($"invoice {id}");
        if (Seen.Refuse(request, invoice.Revision, () => InvoiceDetails.Changed(invoice, db)) is { } unseen)
            return unseen;
        if (await correcting.Do(invoice, wanted, actor.Name, cancel) is { } refused)
            return Problem.Of(refused.Status, refused.Code, refused.Sentence);
        return InvoiceDetails.Tagged((await InvoiceDetails.Find(id, db, cancel))!, request.HttpContext.Response);
    }
}
