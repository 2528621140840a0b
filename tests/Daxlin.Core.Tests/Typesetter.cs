using System.Collections.Immutable;
using Daxlin.Core.Pages;

namespace Daxlin.Core.Tests;

/// <summary>Sets words on pages with letters of one width, as simple as a typewriter.</summary>
/// <param name="letterWidth">As part of the type's size.</param>
/// <param name="blank">As part of the type's size.</param>
internal sealed class Typesetter(double letterWidth = 0.5, double blank = 0.28)
{
    private const double Size = 9;
    private double LetterWidth => letterWidth * Size;
    private double Blank => blank * Size;

    private readonly List<ImmutableArray<Word>.Builder> pages = [ImmutableArray.CreateBuilder<Word>()];

    public void NewPage() => pages.Add(ImmutableArray.CreateBuilder<Word>());

    public void Left(string text, double left, double baseline)
    {
        foreach (var part in text.Split(' ', StringSplitOptions.RemoveEmptyEntries))
        {
            var start = left;
            var stops = part.Select((_, index) => start + LetterWidth * (index + 1)).ToArray();
            var box = new Box(left, baseline - 0.75 * Size, stops[^1], baseline + 0.22 * Size);
            pages[^1].Add(new Word(part, box, baseline, Size, stops, Turn.Upright));
            left = stops[^1] + Blank;
        }
    }

    public void Right(string text, double right, double baseline)
    {
        var words = text.Split(' ', StringSplitOptions.RemoveEmptyEntries);
        Left(text, right - words.Sum(word => word.Length * LetterWidth) - Blank * (words.Length - 1), baseline);
    }

    /// <summary>The pages, shifted by some points and scaled, as a PDF printed anew may be.</summary>
    public ImmutableArray<Page> Pages(double shiftX = 0, double shiftY = 0, double scale = 1) =>
        [.. pages.Select((words, index) => new Page(
            index + 1, 595 * scale, 842 * scale, [.. words.Select(word => Moved(word, shiftX, shiftY, scale))], []))];

    private static Word Moved(Word word, double x, double y, double scale) => word with
    {
        Box = new Box((word.Box.Left + x) * scale, (word.Box.Top + y) * scale, (word.Box.Right + x) * scale, (word.Box.Bottom + y) * scale),
        Baseline = (word.Baseline + y) * scale,
        Size = word.Size * scale,
        Stops = word.Stops.ToArray().Select(stop => (stop + x) * scale).ToArray(),
    };
}
