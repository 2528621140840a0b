using System.Collections.Immutable;
using Daxlin.Service.Secrets;
using Daxlin.Core.History;
using Daxlin.Core.Json;
using Daxlin.Core.People;
using Daxlin.Core.Posting.Receivers;
using Daxlin.Service.History;
using Daxlin.Service.People;
using Daxlin.Service.Posting.Deliveries;
using Daxlin.Service.NamedDocuments;
using Daxlin.Service.Posting.Layouts;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Posting.Receivers;

internal static class ReceiverEndpoints
{
    public static void Map(RouteGroupBuilder api)
    {
        var receivers = api.MapGroup("/receivers").WithTags("Delivery").ChangesNeed(Right.Administer);
        receivers.MapGet("", List).WithSummary("All receivers of posting runs, the newest version of each.");
        receivers.MapPost("", Save).WithSummary("Saves a receiver's document; a changed one becomes the next version.");
        receivers.MapPost("/check", Check).WithSummary("What a receiver's document says and what is wrong with it; nothing is stored, and nobody is asked.");
        receivers.MapGet("/{name}", Show).WithSummary("A receiver with its document, the newest version unless one is named.");
        receivers.MapVersions<ReceiverShelf, ReceiverVersion>("A receiver's history, the newest version first.");
        receivers.MapPost("/{name}/reach", Reach).WithSummary("Asks whether a receiver can be reached; nothing is handed over.");
        receivers.MapRetirement<ReceiverShelf, ReceiverVersion>("Retires a receiver: nothing is delivered to it any more.", "Brings a retired receiver back.");
        api.MapGet("/receiver.schema.json", () => Results.Stream(ReceiverSchema.Open(), "application/schema+json")).WithTags("Delivery").WithSummary("The JSON Schema of receivers.");
        var secrets = api.MapGroup("/secrets").WithTags("Delivery").ChangesNeed(Right.Administer);
        secrets.MapGet("", Secrets).WithSummary("The names of the secrets that are kept. What they say is never handed out.");
        secrets.MapPut("/{name}", Keep).WithSummary("Keeps a password or a key under a name, in the place of what it said before.").Accepts<string>("text/plain");
        secrets.MapDelete("/{name}", Forget).WithSummary("Forgets a secret.");
    }

    private static async Task<Ok<List<ReceiverSummary>>> List([AsParameters] ListPage page, HttpContext context, DaxlinDb db, CancellationToken cancel)
    {
        var after = page.After ?? "";
        var rows = await page.Of(
            ReceiverShelf.Newest(db).Where(row => string.Compare(row.Name, after) > 0).OrderBy(row => row.Name).Select(row => new
            {
                Row = row,
                Waiting = db.Deliveries.Count(one => one.Receiver == row.Name && one.State == DeliveryState.Waiting),
                GivenUp = db.Deliveries.Count(one => one.Receiver == row.Name && one.State == DeliveryState.GivenUp),
            }),
            row => row.Row.Name, context, cancel);
        return TypedResults.Ok(rows.ConvertAll(one =>
        {
            var receiver = ReceiverShelf.Read(one.Row);
            return new ReceiverSummary(
                one.Row.Name, one.Row.Version, one.Row.SavedAt, one.Row.SavedBy, one.Row.Note, one.Row.IsRetired, receiver?.Way.Word ?? "", receiver?.Way.Place ?? "", receiver?.Layout ?? "",
                receiver?.AtOnce ?? false, one.Waiting, one.GivenUp);
        }));
    }

    private static async Task<Results<Ok<ReceiverDetail>, ProblemHttpResult>> Show(string name, int? version, ReceiverShelf shelf, HttpResponse response, CancellationToken cancel)
    {
        if (await shelf.Row(name, null, cancel) is not { } newest)
            return NotThere(name);
        if (await shelf.Row(name, version, cancel) is not { } row)
            return Problem.NotThere($"version {version} of the receiver “{name}”");
        Seen.Tag(response, newest.Version);
        return TypedResults.Ok(new ReceiverDetail(
            row.Name, row.Version, newest.Version, row.SavedAt, row.SavedBy, row.Note, row.IsRetired, row.Document, shelf.MissingOf(ReceiverShelf.Read(row))));
    }

    private static async Task<Results<Ok<DocumentSaved>, Created<DocumentSaved>, ProblemHttpResult>> Save(
        HttpRequest request, string? note, Actor actor, ReceiverShelf shelf, WriteTurn turn, CancellationToken cancel)
    {
        var document = await SentDocument.Of(request, ReceiverReader.Longest, cancel);
        Receiver receiver;
        try
        {
            receiver = ReceiverReader.Read(document);
        }
        catch (JsonFaultException error)
        {
            return shelf.Faulty(error);
        }
        return await shelf.Save(receiver.Name, document, note, $"/api/v1/receivers/{receiver.Name}", request, actor, turn, cancel);
    }

    private static Results<Ok<CheckedReceiver>, ProblemHttpResult> Check(ReceiverToCheck wanted, ReceiverShelf shelf)
    {
        if (wanted.Document is null)
            return Problem.Of(StatusCodes.Status422UnprocessableEntity, "document-missing", "The key “document” is missing: the receiver's document, as text.");
        try
        {
            var receiver = ReceiverReader.Read(wanted.Document);
            return TypedResults.Ok(new CheckedReceiver(receiver.Name, [], receiver.Says, [.. receiver.Way.Secrets], shelf.MissingOf(receiver)));
        }
        catch (JsonFaultException error)
        {
            return TypedResults.Ok(new CheckedReceiver("", DocumentFaultRecord.Of(error.Faults), [], [], []));
        }
    }

    private static async Task<Results<Ok<ReachedReceiver>, ProblemHttpResult>> Reach(string name, ReceiverShelf shelf, DeliveryWays ways, CancellationToken cancel)
    {
        if (await shelf.Row(name, null, cancel) is not { } row)
            return NotThere(name);
        if (ReceiverShelf.Read(row) is not { } receiver)
            return Problem.Of(StatusCodes.Status409Conflict, "receiver-faulty", $"The receiver “{name}” has faults: this release cannot read its document any more.");
        return TypedResults.Ok(await ways.Reach(receiver, cancel));
    }

    private static Ok<List<SecretRecord>> Secrets(SecretStore secrets) => TypedResults.Ok(secrets.All.Select(one => new SecretRecord(one.Name, one.KeptAt)).ToList());

    private static async Task<Results<NoContent, ProblemHttpResult>> Keep(
        string name, HttpRequest request, Actor actor, SecretStore secrets, DaxlinDb db, ReceiverShelf shelf, TimeProvider clock, WriteTurn turn, CancellationToken cancel)
    {
        if (DocumentName.FaultOf(name) is { } fault)
            return Problem.Of(StatusCodes.Status422UnprocessableEntity, "name-faulty", fault);
        // A line end behind a password comes from the editor or the pipe, not from the password.
        var secret = (await SentDocument.Of(request, SecretStore.Longest, cancel)).TrimEnd('\r', '\n');
        if (secret.Length is 0 or > SecretStore.Longest)
            return Problem.Of(StatusCodes.Status422UnprocessableEntity, "secret-faulty", $"A secret has 1 to {SecretStore.Longest} characters.");
        await using var change = await turn.Take(db, cancel);
        secrets.Keep(name, secret);
        await HistoryLog.Record(db, new Deed(HistoryStreams.Secrets, clock.GetUtcNow().UtcDateTime, actor.Name, HistoryActs.SecretKept, $"kept the secret “{name}”"), cancel);
        await db.SaveChangesAsync(cancel);
        await shelf.TryNow(db.Deliveries, cancel);
        await change.Commit(cancel);
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Forget(
        string name, Actor actor, SecretStore secrets, DaxlinDb db, TimeProvider clock, WriteTurn turn, CancellationToken cancel)
    {
        await using var change = await turn.Take(db, cancel);
        if (DocumentName.FaultOf(name) is not null || !secrets.Forget(name))
            return Problem.NotThere($"secret “{name}”");
        await HistoryLog.Record(db, new Deed(HistoryStreams.Secrets, clock.GetUtcNow().UtcDateTime, actor.Name, HistoryActs.SecretForgotten, $"forgot the secret “{name}”"), cancel);
        await db.SaveChangesAsync(cancel);
        await change.Commit(cancel);
        return TypedResults.NoContent();
    }

    private static ProblemHttpResult NotThere(string name) => Problem.NotThere($"receiver “{name}”");
}
