using System.Collections.Immutable;
using Daxlin.Core.Electronic;
using Daxlin.Core.Pages;
using Daxlin.Reading;
using Daxlin.Reading.Pictures;
using Daxlin.Reading.Recognising;
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
        documents.MapGet("/{sha256}/pages/{number:int}/picture", Picture).WithSummary("A page of a document that is a picture, upright, as a PNG.").Produces(StatusCodes.Status200OK, contentType: "image/png");
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
        return TypedResults.PhysicalFile(documents.PathOf(sha256), FormOf((await documents.BeginningOf(sha256, cancel)).Span));
    }

    private static string FormOf(ReadOnlySpan<byte> beginning) => PictureFile.KindOf(beginning) is { } kind ? "image/" + kind.ToLowerInvariant()
        : ElectronicInvoiceReader.LooksLikeXml(beginning) ? "application/xml" : "application/pdf";

    /// <remarks>What was recognised may be lost without harm: it is made again.</remarks>
    private static async Task<Results<PhysicalFileHttpResult, ProblemHttpResult>> Picture(
        string sha256, int number, DaxlinDb db, DocumentStore documents, ReadingProcesses processes, HttpResponse response, CancellationToken cancel)
    {
        if (await Refusal(sha256, db, cancel) is { } refusal)
            return refusal;
        if (await documents.FaultOf(sha256, cancel) is var (code, sentence))
            return Problem.Of(StatusCodes.Status410Gone, code, sentence);
        var pages = new RecognisedPages(documents.RecognisedOf(sha256));
        try
        {
            if (!pages.Has(number))
                await processes.Words(sha256, _ => Task.CompletedTask, cancel);
        }
        catch (UnreadableException error)
        {
            return Problem.Of(StatusCodes.Status422UnprocessableEntity, error.Code, error.Message);
        }
        response.Headers.ContentSecurityPolicy = "sandbox; default-src 'none'";
        return File.Exists(pages.PictureOf(number)) ? TypedResults.PhysicalFile(pages.PictureOf(number), "image/png") : Problem.NotThere($"picture of page {number}");
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
