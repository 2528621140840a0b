using System.Collections.Immutable;
using Daxlin.Core.Pages;
using Daxlin.Reading;
using Daxlin.Service.Invoices;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Daxlin.Service.Work;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Daxlin.Service.Documents;

/// <summary>A page of a document with its words.</summary>
/// <param name="Number">From 1.</param>
/// <param name="Width">In points.</param>
/// <param name="Height">In points.</param>
public sealed record PageRecord(int Number, double Width, double Height, ImmutableArray<WordRecord> Words);

/// <summary>A word and where it stands.</summary>
public sealed record WordRecord(string Text, BoxRecord Box);

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
    private static Results<PhysicalFileHttpResult, ProblemHttpResult> Bytes(string sha256, DocumentStore documents, HttpResponse response)
    {
        if (!documents.Has(sha256))
            return Problem.NotThere("such document");
        response.Headers.ContentSecurityPolicy = "sandbox; default-src 'none'";
        response.Headers.CacheControl = "private, max-age=31536000, immutable";
        return TypedResults.PhysicalFile(documents.PathOf(sha256), "application/pdf");
    }

    private static async Task<Results<Ok<ImmutableArray<PageRecord>>, ProblemHttpResult>> Pages(
        string sha256, DocumentStore documents, DocumentReader reader, CancellationToken cancel)
    {
        if (!documents.Has(sha256))
            return Problem.NotThere("such document");
        try
        {
            var pages = await reader.Read(documents.PathOf(sha256), cancel);
            return TypedResults.Ok(pages.Select(Of).ToImmutableArray());
        }
        catch (UnreadableException error)
        {
            return Problem.Of(StatusCodes.Status422UnprocessableEntity, error.Code, error.Message);
        }
    }

    private static PageRecord Of(Page page) => new(
        page.Number, page.Width, page.Height,
        [.. page.Words.Select(word => new WordRecord(word.Text, new BoxRecord(
            Math.Round(word.Box.Left, 2), Math.Round(word.Box.Top, 2), Math.Round(word.Box.Right, 2), Math.Round(word.Box.Bottom, 2))))]);
}
