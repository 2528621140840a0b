using Daxlin.Core.Pages;

namespace Daxlin.Reading.Drawing;

/// <summary>Decides which of a page's letters a person sees.</summary>
/// <remarks>
/// A letter is looked at in its middle: what was drawn over that point afterwards hides it, and what lies under it must have another
/// colour. Areas are kept by bands of the page, since a long table has a filled cell for each of its figures.
/// </remarks>
internal sealed class Sight
{
    /// <summary>The height of a band, in points.</summary>
    private const double Band = 36;

    private readonly Dictionary<int, List<Cover>> bands = [];
    private readonly DrawnPage page;

    public Sight(DrawnPage page)
    {
        this.page = page;
        foreach (var cover in page.Covers)
        {
            // A page is no higher than this; what reaches beyond it covers nothing.
            var (low, high) = (BandOf(Math.Max(cover.Bounds.Top, -Band)), BandOf(Math.Min(cover.Bounds.Bottom, page.Height + Band)));
            for (var band = low; band <= high; band++)
            {
                if (!bands.TryGetValue(band, out var own))
                    bands[band] = own = [];
                own.Add(cover);
            }
        }
    }

    private static int BandOf(double height) => (int)Math.Floor(height / Band);

    /// <summary>Why a person does not see a letter; null if one does.</summary>
    public UnseenBy? Hides(DrawnLetter letter)
    {
        if (letter.Unseen is { } unseen)
            return unseen;
        if (letter.Start.X < -1 || letter.Start.X > page.Width + 1 || letter.Start.Y < -1 || letter.Start.Y > page.Height + 1)
            return UnseenBy.OffPage;
        var here = bands.GetValueOrDefault(BandOf(letter.Middle.Y)) ?? [];
        // In the order in which they were drawn, the last one first.
        var index = here.Count - 1;
        var isUntold = false;
        for (; index >= 0 && here[index].At > letter.At; index--)
        {
            if (!here[index].Holds(letter.Middle))
                continue;
            if (Cover.IsWhole(here[index].OpacityOver(letter)))
                return UnseenBy.Covered;
            isUntold |= here[index].IsUntold;
        }
        return letter.Ink is { } ink ? IsOfColour(ink, letter, here, index) switch
        {
            true => UnseenBy.SameColour,
            null when ink.IsLight => UnseenBy.Untold,
            _ => isUntold ? UnseenBy.Untold : null,
        }
            : isUntold ? UnseenBy.Untold : null;
    }

    /// <summary>Says that what lies under a letter has its colour; not on a pattern, or on colours that run into each other.</summary>
    /// <param name="index">Of the last area that was drawn before the letter.</param>
    /// <returns>Null for a picture whose colours are not read.</returns>
    private static bool? IsOfColour(Ink ink, DrawnLetter letter, List<Cover> here, int index)
    {
        // What each area lets through of those below it.
        var (tint, left) = (new Ink(0, 0, 0), 1.0);
        for (; index >= 0; index--)
        {
            var area = here[index];
            if (area.At >= letter.Ground || !area.Holds(letter.Middle))
                continue;
            var covers = area.OpacityOver(letter);
            if (area.Picture is { } picture)
            {
                if (Cover.IsNone(covers))
                    continue;
                return left < 1 || !Cover.IsWhole(covers) ? false : picture.Swallows(ink, letter.Middle, letter.Size);
            }
            if (area.Ink is not { } own || covers is not { } opacity)
                return false;
            (tint, left) = (tint.With(own, left * opacity), left * (1 - opacity));
            if (Cover.IsWhole(opacity))
                return ink.LooksLike(tint.With(own, left));
        }
        return ink.LooksLike(tint.With(Ink.Paper, left));
    }
}
