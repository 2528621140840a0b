using System.Collections.Immutable;
using Daxlin.Core.Pages;
using Daxlin.Reading.Pictures;

namespace Daxlin.Reading.Recognising;

/// <summary>Shares out the ink of a page among words, so that none of it is passed over.</summary>
/// <remarks>
/// A recogniser that looks at a whole page glues a quantity to its unit, parts a figure at its point in type of one width, and passes over single
/// figures that stand alone. What it saw is taken apart at wide gaps; ink that it did not see becomes part of the word that it touches, or a piece of its own.
/// </remarks>
internal static class Pieces
{
    /// <summary>Ink nearer than this part of the type's size to a word belongs to it.</summary>
    private const double Touching = 0.18;

    /// <summary>Figures nearer than this part of the type's size may be one.</summary>
    private const double FigureGap = 0.36;

    /// <summary>A minus touches its figure: further away a dash stands between words, as in "stainless 316 - balance".</summary>
    private const double DashGap = 0.15;

    /// <summary>With a point between them, figures of a type of one width are so far apart.</summary>
    private const double FigureGapWithPoint = 1.1;

    /// <param name="words">Those that the first reading saw.</param>
    /// <param name="spots">All ink of the page, as spots.</param>
    /// <param name="height">Of the page, in dots.</param>
    /// <returns>The pieces; where rows of dashes or dots stand; and the usual size of the type, in dots, 0 on a page without words.</returns>
    public static (ImmutableArray<Piece> Pieces, ImmutableArray<Box> Rows, double Usual) Of(ImmutableArray<RecognisedWord> words, List<Box> spots, int height)
    {
        var sizes = TypeSizes.Of(InkOfWords.Settled(words, spots, height));
        if (sizes.Words.IsEmpty)
            return ([], [], 0);
        var all = sizes.Words.Select(word => new Piece(word.Word, word.Word.Box, word.Size, word.Baseline)).ToLookup(piece => IsRow(piece, sizes.Usual));
        var pieces = all[false].ToList();
        var (specks, left) = Shared(pieces, spots, sizes.Usual, height);
        pieces.AddRange(Groups(left, sizes.Usual));
        return ([.. PutTogether(pieces, specks, height, sizes.Usual)], [.. all[true].Select(piece => piece.Box)], sizes.Usual);
    }

    /// <summary>A row of dashes or dots is a ruling that is typed.</summary>
    private static bool IsRow(Piece piece, double usual) => piece.Box.Height < 0.2 * usual && piece.Box.Width > 1.5 * usual;

    /// <summary>Gives each spot of ink to the word that it touches.</summary>
    /// <returns>Specks that can be a point or a comma and touch nothing, and spots as large as letters.</returns>
    private static (List<Box> Specks, List<Box> Letters) Shared(List<Piece> pieces, List<Box> spots, double usual, int height)
    {
        var grid = new HeightBands<int>(height, usual, Enumerable.Range(0, pieces.Count), index => pieces[index].Box);
        var (specks, letters) = (new List<Box>(), new List<Box>());
        foreach (var spot in spots)
        {
            var least = Math.Max(spot.Width, spot.Height);
            if (spot.Height > 2.2 * usual || spot.Width > 4 * usual || least < 0.07 * usual)
                continue;
            var near = grid.Around(spot).ToList();
            if (near.Exists(index => pieces[index].Box.SharedWidth(spot) > 0.3 * spot.Width && pieces[index].Box.SharedHeight(spot) > 0.3 * spot.Height))
                continue;
            var owner = near.Where(index => Belongs(spot, pieces[index])).Select(index => (int?)index).MinBy(index => Piece.Gap(pieces[index!.Value].Box, spot));
            if (owner is { } at)
                pieces[at] = pieces[at] with { Box = pieces[at].Box.Union(spot), HasMoreInk = true };
            else
                (least < 0.35 * usual ? specks : letters).Add(spot);
        }
        return (specks, letters);
    }

    private static bool Belongs(Box spot, Piece piece) =>
        Piece.Gap(piece.Box, spot) < Touching * piece.Size && spot.Height < 1.2 * piece.Size
        && spot.Bottom <= piece.Baseline + (0.3 * piece.Size) && spot.Top >= piece.Baseline - (0.9 * piece.Size);

    /// <summary>Spots beside each other on one line are a word.</summary>
    private static IEnumerable<Piece> Groups(List<Box> spots, double size)
    {
        var groups = new List<Box>();
        foreach (var spot in spots.OrderBy(spot => spot.Left))
        {
            var at = groups.FindIndex(group => Piece.Gap(group, spot) < 0.3 * size && group.SharedHeight(spot) > 0.5 * Math.Min(group.Height, spot.Height));
            if (at < 0)
                groups.Add(spot);
            else
                groups[at] = groups[at].Union(spot);
        }
        return groups.Where(group => group.Height >= 0.45 * size && group.Height < 1.6 * size && group.Width >= 0.1 * size)
            .Select(group => new Piece(null, group, group.Height / TypeSizes.FigureHeight, group.Bottom));
    }

    /// <summary>Adds, where neighbours may be parts of one figure, both as one piece. Whether they are is seen when it is read.</summary>
    private static IEnumerable<Piece> PutTogether(List<Piece> pieces, List<Box> specks, int height, double usual)
    {
        var grid = new HeightBands<Box>(height, usual, specks, speck => speck);
        var ordered = pieces.OrderBy(piece => piece.Box.Left).ToList();
        var taken = new HashSet<Piece>(ReferenceEqualityComparer.Instance);
        for (var at = 0; at < ordered.Count; at++)
        {
            var whole = ordered[at];
            if (taken.Contains(whole))
                continue;
            for (var next = at + 1; next < ordered.Count && ordered[next].Box.Left - whole.Box.Right < 2 * usual; next++)
            {
                var right = ordered[next];
                if (taken.Contains(right) || !whole.IsInLineWith(right) || Math.Min(whole.Size, right.Size) < 0.6 * Math.Max(whole.Size, right.Size))
                    continue;
                var gap = right.Box.Left - whole.Box.Right;
                var size = Math.Max(whole.Size, right.Size);
                var point = gap < FigureGapWithPoint * size ? grid.Around(right.Box).FirstOrDefault(speck => speck.Left >= whole.Box.Right - 1 && speck.Right <= right.Box.Left + 1 && Math.Abs(speck.Bottom - right.Baseline) < 0.25 * size) : default;
                if (!IsFigureAt(whole, last: true) || !IsFigureAt(right, last: false) || gap < -0.1 * size || (gap > (IsDash(whole) || IsDash(right) ? DashGap : FigureGap) * size && point.Width == 0))
                    continue;
                taken.Add(right);
                whole = new Piece(null, whole.Box.Union(right.Box), Math.Max(whole.Size, right.Size), right.Baseline) { Parts = (whole, right) };
            }
            yield return whole;
        }
    }

    private static bool IsDash(Piece piece) => piece.Box.Height < 0.3 * piece.Size && piece.Box.Width > 1.5 * piece.Box.Height;

    /// <summary>Says that a piece may be a figure where another touches it; of one that nobody has read yet it may.</summary>
    private static bool IsFigureAt(Piece piece, bool last)
    {
        if (piece.Parts is var (left, right))
            return IsFigureAt(last ? right : left, last);
        // "316" and "- for the car deck" are none.
        return piece.First?.Text is not { Length: > 0 } text || (last ? IsOfFigure(text[^1]) : IsOfFigure(text[0]) && !text.Any(char.IsLetter));
    }

    private static bool IsOfFigure(char letter) => char.IsAsciiDigit(letter) || letter is '.' or ',' or '-' or '\'';
}
