using System.Collections.Immutable;
using Daxlin.Core.Capture;
using Daxlin.Core.Pages;

namespace Daxlin.Core.Electronic;

/// <summary>Sets an electronic invoice that has no pages on pages of its own, an element a line, so that each value has a place to be looked at.</summary>
/// <remarks>Names stand on the left, as deep as the elements do, and what they say beside them. A long text goes on over several lines; nothing is cut off.</remarks>
public sealed class ElectronicSheet
{
    private const double Width = 595;
    private const double Height = 842;
    private const double Margin = 36;
    private const double TextLeft = 270;
    private const double Size = 8;
    private const double Pitch = 11.5;
    private const double Indent = 7;

    /// <summary>How wide a letter is set: half the size, as in a typeface whose letters are all alike.</summary>
    private const double LetterWidth = Size * 0.5;

    private readonly List<List<Word>> pages = [];
    private readonly List<PlaceOnPage> places = [];
    private double baseline = Height;

    private ElectronicSheet(ElectronicInvoice invoice)
    {
        Invoice = invoice;
        foreach (var element in invoice.Elements)
        {
            var left = Margin + element.Depth * Indent;
            NextLine();
            var named = Set(element.Name, left, element.Text.Length > 0 ? TextLeft - 2 * LetterWidth : Width - Margin);
            places.Add(new PlaceOnPage(pages.Count, element.Text.Length > 0 ? Set(element.Text, TextLeft, Width - Margin) : named));
        }
        Pages = [.. pages.Select((words, index) => new Page(index + 1, Width, Height, [.. words], []))];
    }

    public ElectronicInvoice Invoice { get; }

    public ImmutableArray<Page> Pages { get; }

    public static ElectronicSheet Of(ElectronicInvoice invoice) => new(invoice);

    /// <summary>Where a value stands: nowhere if it was worked out.</summary>
    public ImmutableArray<PlaceOnPage> PlacesOf(StatedValue value) => value.Element < 0 ? [] : [places[value.Element]];

    private void NextLine()
    {
        baseline += Pitch;
        if (pages.Count > 0 && baseline <= Height - Margin)
            return;
        pages.Add([]);
        baseline = Margin + Size;
    }

    /// <returns>The box of the text's first line, or of what of it stands there.</returns>
    private Box Set(string text, double left, double right)
    {
        var at = left;
        Box? first = null;
        var firstLine = (pages.Count, baseline);
        foreach (var word in text.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries))
        {
            foreach (var part in word.Chunk(Math.Max(1, (int)((right - left) / LetterWidth))))
            {
                var width = part.Length * LetterWidth;
                if (at > left && at + width > right)
                {
                    at = left;
                    NextLine();
                }
                var box = new Box(at, baseline - Size, at + width, baseline);
                var stops = Enumerable.Range(1, part.Length).Select(count => box.Left + count * LetterWidth).ToArray();
                pages[^1].Add(new Word(new string(part), box, baseline, Size, stops, Turn.Upright));
                if ((pages.Count, baseline) == firstLine)
                    first = first?.Union(box) ?? box;
                at += width + LetterWidth;
            }
        }
        return first ?? new Box(left, baseline - Size, left, baseline);
    }
}
