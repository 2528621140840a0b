using System.Collections.Immutable;
using Daxlin.Core.Electronic;
using Daxlin.Core.Pages;
using Daxlin.Service.Invoices;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Daxlin.Service.Work;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Documents;

/// <summary>A page of a document with its words.</summary>
/// <param name="Number">From 1.</param>
/// <param name="Width">In points.</param>
/// <param name="Height">In points.</param>
public sealed record PageRecord(int Number, double Width, double Height, ImmutableArray<WordRecord> Words)
{
    /// <summary>The words as they are read: line by line from the top, each from left to right; words that do not stand upright last.</summary>
    internal static PageRecord Of(Page page) => new(
        page.Number, page.Width, page.Height,
        [
            .. page.Lines.SelectMany((line, number) => line.Words.Select(word => Of(page, word, number))),
            .. page.Words.Where(word => word.Turn != Turn.Upright).Select(word => Of(page, word, -1)),
        ]);

    private static WordRecord Of(Page page, Word word, int line)
    {
        var box = page.AsSeen(word.Box);
        return new WordRecord(word.Text, new BoxRecord(Math.Round(box.Left, 2), Math.Round(box.Top, 2), Math.Round(box.Right, 2), Math.Round(box.Bottom, 2)), line);
    }
}

/// <summary>A word and where it stands.</summary>
/// <param name="Line">Which line of its page it is a word of, from 0; -1 for words that do not stand upright.</param>
public sealed record WordRecord(string Text, BoxRecord Box, int Line);

internal static class DocumentEndpoints
{
    public static void Map(RouteGroupBuilder api)
    {
        var documents = api.MapGroup("/documents").WithTags("Documents");
        documents.MapGet("/{sha256}", Bytes).WithSummary("A document byte for byte, as it was received.");
        documents.MapGet("/{sha256}/pages", Pages).WithSummary("The pages of a document with their words and where they stand.");
    }

    /// <remarks>
    /// The bytes come from a stranger: they are served so that a browser neither runs nor guesses anything in them.
    /// </remarks>
    private static async Task<Results<PhysicalFileHttpResult, ProblemHttpResult>> Bytes(
        string sha256, DaxlinDb db, DocumentStore documents, HttpResponse response, CancellationToken cancel)
    {
        if (await Refusal(sha256, db, cancel) is { } refusal)
            return refusal;
        if (await documents.FaultOf(sha256, cancel) is var (code, sentence))
            return Problem.Of(StatusCodes.Status410Gone, code, sentence);
        response.Headers.ContentSecurityPolicy = "sandbox; default-src 'none'";
        return TypedResults.PhysicalFile(documents.PathOf(sha256), ElectronicInvoiceReader.LooksLikeXml((await documents.BeginningOf(sha256, cancel)).Span) ? "application/xml" : "application/pdf");
    }

    private static async Task<Results<Ok<ImmutableArray<PageRecord>>, EmptyHttpResult, ProblemHttpResult>> Pages(
        string sha256, DaxlinDb db, ReadingProcesses processes, HttpResponse response, CancellationToken cancel)
    {
        if (await Refusal(sha256, db, cancel) is { } refusal)
            return refusal;
        return await FromReader.Answer(take => processes.Words(sha256, take, cancel), response, cancel) is { } failure ? failure : TypedResults.Empty;
    }

    private static async Task<ProblemHttpResult?> Refusal(string sha256, DaxlinDb db, CancellationToken cancel) =>
        DocumentStore.IsHash(sha256) && await db.Intakes.AnyAsync(intake => intake.Sha256 == sha256, cancel) ? null : Problem.NotThere("such document");
}
