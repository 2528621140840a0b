using System.Collections.Immutable;
using Daxlin.Core.Pages;

namespace Daxlin.Core.Corrections;

/// <summary>A line of words as a person sees it.</summary>
/// <param name="Page">From 1 within the document.</param>
/// <param name="Words">From left to right, each with its place on the page as seen.</param>
public sealed record PrintedLine(int Page, ImmutableArray<(string Text, Box Box)> Words)
{
    /// <summary>The lines of pages.</summary>
    public static IEnumerable<PrintedLine> Of(IEnumerable<Page> pages) => pages.SelectMany(page => page.Lines.Select(
        line => new PrintedLine(page.Number, [.. line.Words.Select(word => (word.Text, page.AsSeen(word.Box)))])));
}
