using System.Collections.Immutable;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Capture;

/// <summary>The pages that an invoice is captured from.</summary>
public sealed class InvoicePages
{
    private readonly Lazy<PageFurniture> furniture;

    /// <summary>The numbers of all pages that the invoice is captured from, also where these are a part of them.</summary>
    private readonly ImmutableArray<int> numbers;

    private InvoicePages(ImmutableArray<Page> pages, DocumentFacts facts, ImmutableArray<int>? numbers = null)
    {
        Pages = pages;
        this.numbers = numbers ?? [.. pages.Select(page => page.Number)];
        Facts = facts;
        furniture = new(() => PageFurniture.Of(pages));
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
        return new InvoicePages(parts.ToImmutable(), Facts, numbers);
    }

    public IEnumerable<Page> PagesIn(PageRange range) =>
        range == PageRange.All ? Pages : Pages.Where((_, index) => range.Holds(index, Pages.Length));

    /// <summary>Says that a range of the invoice's pages holds one of these.</summary>
    public bool IsIn(PageRange range, Page page) => range.Holds(numbers.IndexOf(page.Number), numbers.Length);

    /// <summary>What the pages have in common at their heads and feet.</summary>
    public PageFurniture Furniture => furniture.Value;

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
}
