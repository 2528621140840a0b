using Daxlin.Core.Capture;
using Daxlin.Core.Pages;

namespace Daxlin.Core.Drafting;

/// <summary>Words of one line that a person points at.</summary>
/// <param name="First">Index of the first of them in the line.</param>
internal sealed record PointedWords(Page Page, TextLine Line, int First, int Count)
{
    private ReadOnlySpan<Word> Words => Line.Words.AsSpan().Slice(First, Count);

    public string Text => TextLine.TextOf(Words);

    public Box Box => Words[0].Box.Union(Words[^1].Box);

    /// <param name="place">As a person sees the page; its lines stand as they are read.</param>
    /// <returns>Null if no word stands there.</returns>
    public static PointedWords? At(Sample shown, PlaceOnPage place)
    {
        if (shown.Pages.FirstOrDefault(page => page.Number == place.Page) is not { } page)
            return null;
        var box = page.AsRead(place.Box);
        if (page.Lines.FirstOrDefault(line => line.Words.Any(word => box.HoldsCenterOf(word.Box))) is not { } line)
            return null;
        var first = line.Words.TakeWhile(word => !box.HoldsCenterOf(word.Box)).Count();
        return new PointedWords(page, line, first, line.Words.Skip(first).TakeWhile(word => box.HoldsCenterOf(word.Box)).Count());
    }
}
