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
        Cover? under = null;
        if (bands.TryGetValue(BandOf(letter.Middle.Y), out var here))
        {
            // In the order in which they were drawn.
            for (var index = here.Count - 1; index >= 0; index--)
            {
                if (!here[index].Holds(letter.Middle))
                    continue;
                if (here[index].At > letter.At)
                    return UnseenBy.Covered;
                under = here[index];
                break;
            }
        }
        if (letter.Ink is not { } ink)
            return null;
        return (under is null ? ink.LooksLike(Ink.Paper) : under.Swallows(ink, letter.Middle, letter.Size)) ? UnseenBy.SameColour : null;
    }
}
