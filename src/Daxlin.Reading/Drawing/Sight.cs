using Daxlin.Core.Pages;

namespace Daxlin.Reading.Drawing;

/// <summary>Decides which of a page's letters a person sees.</summary>
/// <remarks>
/// A letter is looked at in its middle: what was drawn over that point afterwards hides it, and what lies under it must have another
/// colour. Areas are kept by bands of the page, since a long table has a filled cell for each of its figures.
/// </remarks>
internal sealed class Sight
{
    /// <summary>Ways looked at in which areas of several colours, and such as are mixed with what lies under them, may come together; beyond that nobody can tell.</summary>
    private const int MostWays = 200;

    /// <summary>The height of a band, in points.</summary>
    private const double Band = 36;

    private readonly Dictionary<int, List<Cover>> bands = [];
    private readonly DrawnPage page;
    private readonly Ways ways = new();

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
    public UnseenBy? Hides(in DrawnLetter letter)
    {
        if (letter.Unseen is { } unseen)
            return unseen;
        if (letter.Start.X < -1 || letter.Start.X > page.Width + 1 || letter.Start.Y < -1 || letter.Start.Y > page.Height + 1)
            return UnseenBy.OffPage;
        var here = bands.GetValueOrDefault(BandOf(letter.Middle.Y)) ?? [];
        // In the order in which they were drawn, the last one first.
        var index = here.Count - 1;
        // What is mixed otherwise than by multiplying can bring out white on paper (11.4.7: a page's paper is no colour to mix with).
        var isMixed = letter.Mixing == Mixing.Untold;
        var filter = Ink.All;
        var isUntold = letter.Mixing >= Mixing.Masked || letter.Paint.IsUntold;
        for (; index >= 0 && here[index].At > letter.At; index--)
        {
            if (!here[index].Holds(letter.Middle))
                continue;
            isMixed |= here[index].Mixing == Mixing.Untold;
            if (here[index].Filter is { } own)
                filter = filter.Times(own);
            else if (here[index].IsUntold(letter))
                isUntold = true;
            else if (Cover.IsWhole(here[index].OpacityOver(letter)))
                return UnseenBy.Covered;
            // A veil leaves as much less of what tells the letter from its ground; several of them leave nothing.
            else if (here[index] is { Picture: null, Opacity: var opacity })
                filter = filter.Times(1 - opacity);
        }
        return IsOfColour(letter, here, index, filter) switch
        {
            true when isMixed => UnseenBy.Untold,
            true => filter == Ink.All || IsOfColour(letter, here, index, Ink.All) == true ? UnseenBy.SameColour : UnseenBy.Covered,
            null => UnseenBy.Untold,
            false => isUntold ? UnseenBy.Untold : null,
        };
    }

    /// <summary>Says that what lies under a letter has its colour.</summary>
    /// <param name="index">Of the last area that was drawn before the letter.</param>
    /// <param name="filter">What lies over both leaves so much of each part of their colours.</param>
    /// <returns>Null where nobody can tell.</returns>
    private bool? IsOfColour(in DrawnLetter letter, List<Cover> here, int index, Ink filter)
    {
        ways.Clear();
        foreach (var ink in letter.Paint.Inks)
            new Ground(letter, ink, here, ways, filter).LookUnder(index, Ink.None, Ink.All);
        return ways.Came;
    }

    /// <summary>What comes of the ways in which the ground under a letter may look.</summary>
    private sealed class Ways
    {
        private int looked;
        private bool isAlike;
        private bool isOther;
        private bool isUntold;

        /// <summary>As <see cref="IsOfColour"/> says it.</summary>
        public bool? Came => isUntold || (isAlike && isOther) ? null : isAlike;

        /// <summary>Whether another way can say anything new.</summary>
        public bool AreOpen => !isUntold && looked < MostWays;

        public void Clear() => (looked, isAlike, isOther, isUntold) = (0, false, false, false);

        public void Add(bool? isAlike)
        {
            looked++;
            isUntold |= isAlike is null || looked == MostWays;
            this.isAlike |= isAlike == true;
            isOther |= isAlike == false;
        }
    }

    /// <summary>Looks through the areas under a letter, from the uppermost down to the paper.</summary>
    /// <param name="ink">Of the letter.</param>
    private readonly ref struct Ground(in DrawnLetter letter, Ink ink, List<Cover> here, Ways ways, Ink filter)
    {
        private readonly ref readonly DrawnLetter letter = ref letter;

        /// <param name="tint">What the areas above add.</param>
        /// <param name="left">How much they let through of each part of the colours below; below 0 they turn it.</param>
        public void LookUnder(int index, Ink tint, Ink left)
        {
            for (; index >= 0 && ways.AreOpen; index--)
            {
                var area = here[index];
                if (area.At >= letter.Ground || !area.Holds(letter.Middle))
                    continue;
                var covers = area.OpacityOver(letter);
                // What hardly shows need not be told.
                if (Cover.IsNone(covers) && (area.Picture is not null || area.Paint.IsUntold))
                    continue;
                if (area.Picture is { } picture)
                {
                    // Of a picture whose colours are not read it is taken that it is light, as paper is.
                    ways.Add(picture.Swallows(ink, letter.Mixing, letter.Middle, letter.Size, tint, left) ?? (ink.IsLight ? null : false));
                    if (Cover.IsWhole(covers))
                        return;
                }
                else if (!Lay(area, covers, index, ref tint, ref left))
                {
                    return;
                }
            }
            Compare(tint.With(Ink.Paper, left));
        }

        /// <summary>Lays an area over what lies under it.</summary>
        /// <returns>False where nothing is seen through it, or all ways through it have been looked at.</returns>
        private bool Lay(Cover area, double? covers, int index, ref Ink tint, ref Ink left)
        {
            if (area.Paint.IsUntold)
            {
                ways.Add(null);
                return false;
            }
            if (area.Filter is { } through)
            {
                left = left.Times(through);
                return true;
            }
            if (area.Paint.Only is { } own && covers is { } opacity)
            {
                (tint, left) = (tint.With(own, left.Times(opacity)), left.Times(Cover.IsWhole(opacity) ? 0 : 1 - opacity));
                if (!Cover.IsWhole(opacity))
                    return true;
                Compare(tint);
                return false;
            }
            foreach (var one in area.Paint.Inks)
            {
                if (covers is { } part)
                {
                    LookUnder(Cover.IsWhole(part) ? -1 : index - 1, tint.With(one, left.Times(part)), left.Times(Cover.IsWhole(part) ? 0 : 1 - part));
                    continue;
                }
                if (area.Mixing != Mixing.Masked)
                    LookUnder(index - 1, tint, left.Times(one));
                if (area.Mixing != Mixing.Multiplied)
                    LookUnder(-1, tint.With(one, left), Ink.None);
                if (area.Mixing != Mixing.Untold)
                    continue;
                // Beside multiplied with it and laid over it: brightened by it, and what of the one differs from the other. Ways of mixing lie about these.
                LookUnder(index - 1, tint.With(one, left), left.Times(one.Turned));
                LookUnder(index - 1, tint.With(one, left), left.Times(-1));
            }
            // Through its gaps, and where mixing leaves it as it is, what lies under it is seen.
            return area.Paint.HasGaps || covers is null;
        }

        private void Compare(Ink ground) => ways.Add(ink.On(ground, letter.Mixing).Times(filter).LooksLike(ground.Times(filter)));
    }
}
