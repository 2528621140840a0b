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
        return (
            [.. pages.SelectMany(page => page.Lines.TakeWhile(Repeats))],
            [.. pages.SelectMany(page => page.Lines.Reverse().TakeWhile(Repeats))]);

        bool Repeats(TextLine line) => pages.Any(page => page.Number != line.Page && page.Lines.Any(
            other => Math.Abs(other.Box.Top - line.Box.Top) <= SameHeight && IsSameButForFigures(other, line)));
    }

    private static bool IsSameButForFigures(TextLine one, TextLine other)
    {
        if (one.Words.Length != other.Words.Length)
            return false;
        for (var word = 0; word < one.Words.Length; word++)
        {
            var (a, b) = (one.Words[word].Text, other.Words[word].Text);
            if (a.Length != b.Length)
                return false;
            for (var at = 0; at < a.Length; at++)
            {
                if (a[at] != b[at] && !(char.IsAsciiDigit(a[at]) && char.IsAsciiDigit(b[at])))
                    return false;
            }
        }
        return true;
    }
}
