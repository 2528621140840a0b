using System.Collections.Immutable;

namespace Daxlin.Reading.Recognising;

/// <summary>How large the type of recognised words is, and what they stand on, by the ink of their letters.</summary>
/// <param name="Usual">Of most of the page, in dots.</param>
internal sealed record TypeSizes(ImmutableArray<(RecognisedWord Word, double Size, double Baseline)> Words, double Usual)
{
    /// <summary>Figures and capitals of most types are so high, of the type's size.</summary>
    public const double FigureHeight = 0.71;

    /// <summary>Small letters without anything above are so high.</summary>
    private const double SmallHeight = 0.52;

    private const string Tall = "0123456789ABCDEFGHIJKLMNOPRSTUVWXYZbdfhklt#&%$€£";
    private const string Small = "acemnorsuvwxz";
    private const string Hanging = "gjpqyQJ,;()[]{}|/\\@$_§";

    public static TypeSizes Of(ImmutableArray<RecognisedWord> words)
    {
        var sizes = words.Select(SizeOf).ToList();
        var known = sizes.OfType<double>().Order().ToList();
        var usual = known.Count == 0 ? words.Select(word => word.Box.Height).Order().ElementAtOrDefault(words.Length / 2) / FigureHeight : known[known.Count / 2];
        return new([.. words.Zip(sizes, (word, size) => (word, size ?? usual, BaselineOf(word, size ?? usual)))], usual);
    }

    /// <summary>By the height of its ink and by what its letters are: the recogniser's own boxes of letters are only about right.</summary>
    private static double? SizeOf(RecognisedWord word)
    {
        var (hasTall, hasSmall, hangs) = (Has(word, Tall), Has(word, Small), Has(word, Hanging));
        return (hasTall, hasSmall, hangs) switch
        {
            (true, _, false) => word.Box.Height / FigureHeight,
            (true, _, true) => word.Box.Height / (FigureHeight + Depth(word)),
            (false, true, false) => word.Box.Height / SmallHeight,
            (false, true, true) => word.Box.Height / (SmallHeight + Depth(word)),
            _ => null,
        };
    }

    /// <summary>Commas hang less deep than letters.</summary>
    private static double Depth(RecognisedWord word) => word.Text.Any(letter => char.IsLetter(letter) && Hanging.Contains(letter, StringComparison.Ordinal)) ? 0.2 : 0.11;

    private static bool Has(RecognisedWord word, string letters) => word.Text.AsSpan().ContainsAny(letters);

    private static double BaselineOf(RecognisedWord word, double size) =>
        Has(word, Tall) ? word.Box.Top + (FigureHeight * size)
        : Has(word, Small) ? word.Box.Top + (SmallHeight * size)
        : word.Text.All(letter => letter is '-' or '\u2013' or '\u2014' or '~' or '=' or '+') ? word.Box.CenterY + (0.27 * size)
        : word.Text.All(letter => letter is '.' or '_') ? word.Box.Bottom
        : word.Baseline;
}
