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

    private InvoicePages(ImmutableArray<Page> pages)
    {
        Pages = pages;
        furniture = new(() => FindFurniture(pages));
    }

    public ImmutableArray<Page> Pages { get; }

    public IEnumerable<TextLine> Lines => Pages.SelectMany(page => page.Lines);

    public static InvoicePages Of(ImmutableArray<Page> pages, PageRule rule) =>
        new(pages.Length > rule.SkipFirst ? pages[rule.SkipFirst..] : []);

    /// <summary>Says that a line belongs to the head that its page shares with another.</summary>
    public bool IsHead(TextLine line) => furniture.Value.Heads.Contains(line);

    /// <summary>Says that a line belongs to the foot that its page shares with another.</summary>
    public bool IsFoot(TextLine line) => furniture.Value.Feet.Contains(line);

    private static (ImmutableHashSet<TextLine> Heads, ImmutableHashSet<TextLine> Feet) FindFurniture(ImmutableArray<Page> pages)
    {
        if (pages.Length < 2)
            return ([], []);
        var heights = new Dictionary<string, List<(int Page, double Top)>>(StringComparer.Ordinal);
        foreach (var line in pages.SelectMany(page => page.Lines))
        {
            var mask = Mask(line.Text);
            if (!heights.TryGetValue(mask, out var seen))
                heights[mask] = seen = [];
            seen.Add((line.Page, line.Box.Top));
        }
        return (
            [.. pages.SelectMany(page => page.Lines.TakeWhile(Repeats))],
            [.. pages.SelectMany(page => page.Lines.Reverse().TakeWhile(Repeats))]);

        bool Repeats(TextLine line) => heights[Mask(line.Text)].Any(
            other => other.Page != line.Page && Math.Abs(other.Top - line.Box.Top) <= SameHeight);
    }

    private static string Mask(string text) => string.Create(text.Length, text, (span, source) =>
    {
        for (var index = 0; index < span.Length; index++)
            span[index] = char.IsAsciiDigit(source[index]) ? '0' : source[index];
    });
}
