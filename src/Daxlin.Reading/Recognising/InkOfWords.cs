using System.Collections.Immutable;
using Daxlin.Core.Pages;

namespace Daxlin.Reading.Recognising;

/// <summary>Settles where words of the first reading stand by the ink itself.</summary>
/// <remarks>
/// The recogniser's network knows in which order letters come, and only about where: of "20 %" it says that "20" reaches to the end of "%". So words that lie over each other are
/// parted at the widest gap in the ink, words that hold a gap as wide as between words are taken apart there, and each is as large as its ink.
/// </remarks>
internal static class InkOfWords
{
    /// <summary>Ink further apart than this part of the type's size, and than other letters of the word, is of two words.</summary>
    private const double WordGap = 0.26;

    /// <summary>How much further apart than the others.</summary>
    private const double Wider = 2.4;

    /// <param name="height">Of the page, in dots.</param>
    public static ImmutableArray<RecognisedWord> Settled(ImmutableArray<RecognisedWord> words, List<Box> spots, int height)
    {
        if (words.IsEmpty)
            return [];
        var usual = words.Select(word => word.Box.Height).Order().ElementAt(words.Length / 2);
        var grid = new HeightBands<Box>(height, 2 * usual, spots.Where(spot => spot.Height < 4 * usual), spot => spot);
        return [.. Parted(words, grid).SelectMany(word => TakenApart(word, grid))];
    }

    /// <summary>Words that lie over each other end where the next begins.</summary>
    private static List<RecognisedWord> Parted(ImmutableArray<RecognisedWord> words, HeightBands<Box> spots)
    {
        var parted = words.ToList();
        for (var at = 0; at + 1 < parted.Count; at++)
        {
            var (left, right) = (parted[at], parted[at + 1]);
            var shared = left.Box.SharedWidth(right.Box);
            if (shared < 1 || left.Box.Left > right.Box.Left || left.Box.SharedHeight(right.Box) < 0.5 * Math.Min(left.Box.Height, right.Box.Height))
                continue;
            var height = Math.Min(left.Box.Height, right.Box.Height);
            var gap = Gaps(left.Box.Union(right.Box), spots).Where(gap => Math.Abs(((gap.Left + gap.Right) / 2) - right.Box.Left) < height).OrderBy(gap => gap.Left - gap.Right).FirstOrDefault();
            var (end, start) = gap.Right > gap.Left ? gap : (right.Box.Left, right.Box.Left);
            if (end <= left.Box.Left || start >= Math.Max(left.Box.Right, right.Box.Right))
                continue;
            parted[at] = left with { Box = left.Box with { Right = end } };
            parted[at + 1] = right with { Box = right.Box with { Left = start, Right = Math.Max(left.Box.Right, right.Box.Right) } };
        }
        return parted;
    }

    private static List<RecognisedWord> TakenApart(RecognisedWord word, HeightBands<Box> spots)
    {
        var own = Own(word.Box, spots);
        if (own.Count == 0)
            return [word];
        var gaps = Gaps(word.Box, spots);
        var size = Math.Min(word.Box.Height, Box.Around(own).Height) / TypeSizes.FigureHeight;
        var median = gaps.Count == 0 ? 0 : gaps.Select(gap => gap.Right - gap.Left).Order().ElementAt(gaps.Count / 2);
        var cuts = gaps.Where(gap => gap.Right - gap.Left > WordGap * size && gaps.Count > 1 && gap.Right - gap.Left > Wider * Math.Max(median, 0.05 * size)).ToList();
        if (cuts.Count == 0)
            return [word with { Box = Box.Around(own) }];
        var parts = new List<RecognisedWord>();
        foreach (var (from, to) in cuts.Select(cut => cut.Right).Prepend(double.MinValue).Zip(cuts.Select(cut => cut.Left).Append(double.MaxValue)))
        {
            // Where the recogniser says that a letter stands is right to half a letter.
            var (low, high) = (from - (0.1 * size), to + (0.1 * size));
            var letters = word.Letters.Where(letter => letter.Box.CenterX >= low && letter.Box.CenterX < high).ToImmutableArray();
            var ink = own.FindAll(spot => spot.CenterX >= low && spot.CenterX < high);
            if (letters.IsEmpty || ink.Count == 0)
                return [word with { Box = Box.Around(own) }];
            parts.Add(word with { Text = string.Concat(letters.Select(letter => letter.Text)), Letters = letters, Box = Box.Around(ink) });
        }
        return parts.Sum(part => part.Letters.Length) == word.Letters.Length ? parts : [word with { Box = Box.Around(own) }];
    }

    private static List<Box> Own(Box box, HeightBands<Box> spots) =>
        [.. spots.Around(box).Where(spot => spot.CenterX > box.Left && spot.CenterX < box.Right && spot.CenterY > box.Top - (0.1 * box.Height) && spot.CenterY < box.Bottom + (0.15 * box.Height))];

    /// <summary>Where there is no ink from top to bottom between the first ink of a place and the last.</summary>
    private static List<(double Left, double Right)> Gaps(Box box, HeightBands<Box> spots)
    {
        var gaps = new List<(double, double)>();
        var reached = double.MaxValue;
        foreach (var spot in Own(box, spots).OrderBy(spot => spot.Left))
        {
            if (reached < spot.Left)
                gaps.Add((reached, spot.Left));
            reached = reached == double.MaxValue ? spot.Right : Math.Max(reached, spot.Right);
        }
        return gaps;
    }
}
