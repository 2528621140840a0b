using System.Collections.Immutable;
using Daxlin.Core.Pages;
using Daxlin.Reading.Pictures;

namespace Daxlin.Reading.Recognising;

/// <summary>Reads a page as a whole, and again each piece of it that is or may be a figure, a code, a date; and whatever the first reading passed over.</summary>
internal sealed class TwoReadings(TesseractEngine engine, FigureReader figures)
{
    /// <summary>Under this certainty of the first reading a word is read again, whatever it says.</summary>
    private const double Sure = 0.85;

    /// <summary>White around a piece, of its height: without any the second reader clips letters, with much it sees the neighbours.</summary>
    private const double Margin = 0.18;

    /// <summary>The second reading has to be as sure as this to count where the first saw nothing.</summary>
    private const double SureOfInk = 0.6;

    /// <returns>The words, and the ink that is part of none, in dots.</returns>
    public (ImmutableArray<TwiceRead> Words, ImmutableArray<Box> Unread) Of(GreyPicture page)
    {
        var spots = InkSpots.Of(page);
        var (pieces, rows, usual) = Pieces.Of([.. engine.WordsOf(page).Where(word => IsWord(word, page))], spots, page.Height);
        var spread = pieces.SelectMany(Spread).ToImmutableArray();
        var grid = new HeightBands<Piece>(page.Height, 40 * page.Dpi / 300, spread, piece => piece.Box);
        var again = spread.Where(piece => piece.First is not { } first || piece.HasMoreInk || MayBeFigure(first)).ToList();
        var crops = again.ConvertAll(piece => Crop(page, piece, grid));
        var read = again.Zip(figures.Read(crops).Zip(crops), (piece, second) => KeyValuePair.Create(piece, new Second(Plain(second.First.Text), second.First.Certainty, second.Second)))
            .ToDictionary(ReferenceEqualityComparer.Instance);
        ImmutableArray<TwiceRead> words = [.. pieces.SelectMany(piece => Read(piece, read))];
        return (words, UnreadInk.Of(page, spots, [.. words.Select(word => word.First.Box), .. rows], usual));
    }

    /// <param name="Crop">What it was read from.</param>
    private sealed record Second(string Text, double Certainty, GreyPicture Crop);

    private static IEnumerable<Piece> Spread(Piece piece) => piece.Parts is var (left, right) ? Spread(left).Concat(Spread(right)).Append(piece) : [piece];

    /// <summary>Stains, edges and what is left of drawings are no words: their boxes are none of a letter's.</summary>
    private static bool IsWord(RecognisedWord word, GreyPicture page) =>
        word.Box.Height < page.Dpi && Math.Max(word.Box.Height, word.Box.Width) >= page.Dpi / 60 && (word.Certainty > 0.3 || word.Text.Any(char.IsAsciiDigit))
        && word.Text.Any(letter => char.IsLetterOrDigit(letter) || char.IsSymbol(letter) || letter is '%' or '-' or '–' or '—' or '#' or '*' or '/' or '&' or '@');

    private static bool MayBeFigure(RecognisedWord word) =>
        word.Certainty < Sure || word.Text.Any(char.IsAsciiDigit) || word.Text.Length <= 3 || word.Text.All(letter => !char.IsLower(letter));

    private static GreyPicture Crop(GreyPicture page, Piece piece, HeightBands<Piece> grid)
    {
        // As high as a line of this type is, so that a comma or a dash stands where it stands, and not as large as a figure.
        var top = Math.Min(piece.Box.Top, piece.Baseline - (TypeSizes.FigureHeight * piece.Size));
        var bottom = Math.Max(piece.Box.Bottom, piece.Baseline);
        var margin = Math.Max(2, Margin * (bottom - top));
        // Not into the neighbours, which would be read along.
        var (left, right) = (margin, margin);
        foreach (var near in grid.Around(piece.Box))
        {
            if (near.Box.SharedHeight(piece.Box) < 0.3 * near.Box.Height)
                continue;
            if (near.Box.Left >= piece.Box.Right)
                right = Math.Min(right, (near.Box.Left - piece.Box.Right) / 2);
            else if (near.Box.Right <= piece.Box.Left)
                left = Math.Min(left, (piece.Box.Left - near.Box.Right) / 2);
        }
        return page.Part((int)(piece.Box.Left - left), (int)(top - margin), (int)(piece.Box.Width + left + right), (int)(bottom - top + (2 * margin)));
    }

    private IEnumerable<TwiceRead> Read(Piece piece, Dictionary<Piece, Second> read)
    {
        var second = read.GetValueOrDefault(piece);
        if (piece.Parts is var (left, right))
            return AsOne(piece, second!, read) is { } whole ? [whole] : Read(left, read).Concat(Read(right, read));
        if (piece.First is not { } first)
            return Passed(piece, second!) is { } word ? [word] : [];
        if (second is null)
            return [new TwiceRead(first, first.Text, piece.Size, piece.Baseline, new WordReading([], IsTwice: false))];
        return [Compared(first with { Box = piece.Box }, second, piece)];
    }

    /// <summary>Two parts that are one word: read as one there is no blank between them, and nothing else than in the parts but a point.</summary>
    private TwiceRead? AsOne(Piece piece, Second second, Dictionary<Piece, Second> read)
    {
        var parts = Spread(piece).Where(part => part.Parts is null).ToList();
        var texts = string.Concat(parts.Select(part => part.First?.Text ?? read[part].Text));
        if (second.Text.Contains(' ', StringComparison.Ordinal) || second.Certainty < SureOfInk || Bare(second.Text) != Bare(Plain(texts)))
            return null;
        var first = engine.WordOf(second.Crop);
        return Compared(new RecognisedWord(first, piece.Box, piece.Baseline, [], 1), second, piece);

        static string Bare(string text) => string.Concat(text.Where(char.IsLetterOrDigit));
    }

    /// <summary>Ink that the first reading passed over as it went over the page: it is shown the piece alone.</summary>
    private TwiceRead? Passed(Piece piece, Second second)
    {
        // What is no letter is a stain as often as not.
        if (!second.Text.Any(letter => char.IsLetterOrDigit(letter) && letter < '\u0250') || second.Certainty < SureOfInk)
            return null;
        return Compared(new RecognisedWord(engine.WordOf(second.Crop), piece.Box, piece.Baseline, [], 0), second, piece);
    }

    private TwiceRead Compared(RecognisedWord first, Second second, Piece piece)
    {
        if (IsAlike(Plain(first.Text), second.Text))
            return new TwiceRead(first, first.Text, piece.Size, piece.Baseline, new WordReading(LookalikesOf(first.Text), IsTwice: true));
        // A glance at a whole page that was unsure of a word is not held against a look at the word itself.
        if ((first.Certainty is > 0 and < Sure || piece.HasMoreInk) && engine.WordOf(second.Crop) is { Length: > 0 } closer && IsAlike(Plain(closer), second.Text))
            return new TwiceRead(first, closer, piece.Size, piece.Baseline, new WordReading([], IsTwice: true));
        var takesSecond = second.Text.Any(char.IsLetterOrDigit) && (first.Text + second.Text).Any(char.IsAsciiDigit) && second.Certainty > 0.4 && Plain(first.Text).All(figures.Knows);
        var (taken, left) = takesSecond || first.Text.Length == 0 ? (second.Text, first.Text) : (first.Text, second.Text);
        return new TwiceRead(first, taken, piece.Size, piece.Baseline, new WordReading([left], IsTwice: true));
    }

    /// <summary>What a sign that stands alone may be as well: in most types nobody tells a stroke that is a 1 from one that is an l, whoever reads it.</summary>
    private static ImmutableArray<string> LookalikesOf(string text) => text switch
    {
        "1" => ["l", "I"],
        "l" => ["1", "I"],
        "I" => ["l", "1"],
        "0" => ["O"],
        "O" => ["0"],
        _ => [],
    };

    /// <summary>Letters that look the same and mean the same, as one.</summary>
    private static string Plain(string text) => string.Create(text.Length, text, static (plain, text) =>
    {
        for (var at = 0; at < text.Length; at++)
        {
            plain[at] = text[at] switch
            {
                '\u2018' or '\u2019' or '\u00B4' or '`' => '\'',
                '\u201C' or '\u201D' or '\u201E' => '"',
                '\u2013' or '\u2014' or '\u2212' or '\u2010' => '-',
                >= '\uFF01' and <= '\uFF5E' => (char)(text[at] - 0xFEE0),
                '\u3000' => ' ',
                var same => same,
            };
        }
    });

    /// <summary>Says that two readings agree, but for what the second has no letter for: there it may have any one letter that is no figure, or none.</summary>
    private bool IsAlike(string first, string second)
    {
        return Agrees(first.Replace(" ", "", StringComparison.Ordinal), second.Replace(" ", "", StringComparison.Ordinal));

        bool Agrees(ReadOnlySpan<char> own, ReadOnlySpan<char> other)
        {
            if (own.IsEmpty)
                return other.IsEmpty;
            if (figures.Knows(own[0]))
                return !other.IsEmpty && own[0] == other[0] && Agrees(own[1..], other[1..]);
            return Agrees(own[1..], other) || (!other.IsEmpty && !char.IsAsciiDigit(other[0]) && Agrees(own[1..], other[1..]));
        }
    }
}
