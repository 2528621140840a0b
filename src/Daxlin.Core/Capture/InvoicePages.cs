using System.Collections.Immutable;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Capture;

/// <summary>The pages that an invoice is captured from, and which of their lines are page furniture.</summary>
/// <remarks>
/// Furniture are page heads and feet: lines that stand at the same height on another page too, with other figures at
/// most ("Page 1 of 3"), and with nothing but furniture between them and the page's edge. Heads and feet are told
/// apart, since a row right below repeated headings may well repeat itself: 2 m of canvas first on two pages.
/// </remarks>
public sealed class InvoicePages
{
    private const double SameHeight = 2.5;
    private readonly Lazy<(ImmutableHashSet<TextLine> Heads, ImmutableHashSet<TextLine> Feet)> furniture;

    private InvoicePages(ImmutableArray<Page> pages, DocumentFacts facts)
    {
        Pages = pages;
        Facts = facts;
        furniture = new(() => FindFurniture(pages));
    }

    public ImmutableArray<Page> Pages { get; }

    public DocumentFacts Facts { get; }

    public static InvoicePages Of(ImmutableArray<Page> pages, Template template, DocumentFacts? facts = null) =>
        new(Captured(pages, template), facts ?? DocumentFacts.Unknown);

    /// <summary>All pages, whatever a template says of covers and annexes.</summary>
    public static InvoicePages OfAll(ImmutableArray<Page> pages) => new(pages, DocumentFacts.Unknown);

    /// <summary>The part of these pages that a block stands on.</summary>
    public InvoicePages PartFor(BlockPlace place)
    {
        if (place.IsEverywhere)
            return this;
        var parts = ImmutableArray.CreateBuilder<Page>();
        foreach (var page in PagesIn(place.Pages))
        {
            ImmutableArray<double> bounds = [place.Left, .. place.Beside.Where(x => x > place.Left && x < place.Right), place.Right];
            for (var part = 0; part + 1 < bounds.Length; part++)
                parts.Add(page.Between(bounds[part], bounds[part + 1]));
        }
        return new InvoicePages(parts.ToImmutable(), Facts);
    }

    public IEnumerable<Page> PagesIn(PageRange range) =>
        range == PageRange.All ? Pages : Pages.Where((_, index) => range.Holds(index, Pages.Length));

    /// <summary>Says that a line belongs to the head that its page shares with another.</summary>
    public bool IsHead(TextLine line) => furniture.Value.Heads.Contains(line);

    /// <summary>Says that a line belongs to the foot that its page shares with another.</summary>
    public bool IsFoot(TextLine line) => furniture.Value.Feet.Contains(line);

    /// <remarks>
    /// A page with item headings is never skipped as a cover or an annex: the vendor left those away this time, and the
    /// invoice is not to be lost with them.
    /// </remarks>
    private static ImmutableArray<Page> Captured(ImmutableArray<Page> pages, Template template)
    {
        var rule = template.Pages;
        if (rule.SkipFirst == 0 && rule.SkipLast == 0 && rule.Only == PageRange.All && rule.LeaveOut.IsEmpty)
            return pages;
        var (start, end) = (0, pages.Length);
        while (start < Math.Min(rule.SkipFirst, pages.Length) && !LooksLikeInvoice.Says(pages[start], template))
            start++;
        while (end > start && pages.Length - end < rule.SkipLast && !LooksLikeInvoice.Says(pages[end - 1], template))
            end--;
        var kept = pages[start..end];
        return [.. kept.Where((page, index) => rule.Only.Holds(index, kept.Length) && !rule.LeaveOut.Any(cue => cue.IsOn(page)))];
    }

    private static (ImmutableHashSet<TextLine> Heads, ImmutableHashSet<TextLine> Feet) FindFurniture(ImmutableArray<Page> pages)
    {
        if (pages.Length < 2)
            return ([], []);
        var printed = new LinesByText(pages);
        return (
            [.. pages.SelectMany(page => page.Lines.TakeWhile(Repeats))],
            [.. pages.SelectMany(page => page.Lines.Reverse().TakeWhile(Repeats))]);

        bool Repeats(TextLine line) => printed.Of(line).Any(
            other => other.Page != line.Page && Math.Abs(other.Box.Top - line.Box.Top) <= SameHeight);
    }

    /// <summary>Lines by their text, figures made alike, so that "Page 1 of 3" finds "Page 2 of 3" at once on 100 pages.</summary>
    private sealed class LinesByText(ImmutableArray<Page> pages)
    {
        private readonly ILookup<string, TextLine> lines = pages.SelectMany(page => page.Lines).ToLookup(Key, StringComparer.Ordinal);

        public IEnumerable<TextLine> Of(TextLine line) => lines[Key(line)];

        private static string Key(TextLine line) => string.Create(line.Text.Length, line.Text, static (key, text) =>
        {
            for (var at = 0; at < key.Length; at++)
                key[at] = char.IsAsciiDigit(text[at]) ? '0' : text[at];
        });
    }
}
