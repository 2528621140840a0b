using System.Collections.Immutable;
using Daxlin.Core.Pages;

namespace Daxlin.Reading.Recognising;

/// <summary>Pages of a document are pictures, and have not been recognised yet.</summary>
/// <param name="document">As it was read without them.</param>
public sealed class PicturesUnreadException(ImmutableArray<PicturedPage> pages, params ImmutableArray<Page> document) : UnreadableException("no-text", Says(document))
{
    /// <summary>The SHA-256 of the document, where it is one of several.</summary>
    public string Document { get; init; } = "";

    /// <summary>Those that are still to be recognised.</summary>
    public ImmutableArray<PicturedPage> Pages => pages;

    private static string Says(ImmutableArray<Page> document) =>
        document.SelectMany(page => page.Unseen).ToLookup(word => word.Why).MaxBy(alike => alike.Count()) is { Key: var why }
            ? $"Nobody sees the text that the PDF holds: it is {UnseenWord.Says(why)}. What is seen is a picture (a scan): it needs text recognition."
            : "The document holds pictures and no text (a scan): it needs text recognition.";
}
