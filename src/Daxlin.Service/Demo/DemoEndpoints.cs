using Daxlin.Core.People;
using Daxlin.Service.People;
using Daxlin.Service.Web;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Daxlin.Service.Demo;

internal static class DemoEndpoints
{
    public static void Map(RouteGroupBuilder api)
    {
        var demo = api.MapGroup("/demo").WithTags("Demo").ChangesNeed(Right.Work);
        demo.MapGet("", Offer).WithSummary("Whether made-up invoices are at hand to try Daxlin on.");
        demo.MapPost("", Take).WithSummary("Takes the made-up invoices in, into an installation that has none yet; one vendor's template is left to be made.");
    }

    private static Ok<DemoOffer> Offer(DemoInvoices invoices) => TypedResults.Ok(new DemoOffer(invoices.AreAtHand));

    private static async Task<Results<Created<DemoTaken>, ProblemHttpResult>> Take(DemoInvoices invoices, Actor actor, CancellationToken cancel)
    {
        if (!invoices.AreAtHand)
            return Problem.NotThere("folder of made-up invoices where this service was started");
        return await invoices.Take(actor.Name, cancel) is { } taken
            ? TypedResults.Created($"/api/v1/batches/{taken.Batch}", taken)
            : Problem.Of(StatusCodes.Status409Conflict, "not-empty", "Made-up invoices are taken in only where there are no others: they would stand among yours.");
    }
}
