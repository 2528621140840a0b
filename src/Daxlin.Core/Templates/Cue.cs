using System.Collections.Immutable;
using Daxlin.Core.Pages;

namespace Daxlin.Core.Templates;

/// <summary>Printed words that a template steers by, in one or several spellings.</summary>
/// <param name="Spellings">Any of them will do; blanks do not count.</param>
/// <param name="ExactCase">Says that capitals must be as spelt; else they do not count either.</param>
/// <param name="WithinWords">Says that it may stand within a word; else it is found as whole words only.</param>
public sealed record Cue(ImmutableArray<string> Spellings, bool ExactCase = false, bool WithinWords = false)
{
    /// <summary>Words set one over the other are no further apart than this part of their height.</summary>
    private const double StackGap = 0.9;

    /// <summary>So many lines at most stand between two that are set one over the other: captions centred beside them.</summary>
    private const int MostLinesBetween = 2;

    private readonly ImmutableArray<string> squashed =
        [.. Spellings.Select(SquashedText.Squash).Select(spelling => ExactCase ? spelling : spelling.ToUpperInvariant())];

    /// <summary>The same words parted at each blank, upper part and lower part, for captions set on several lines.</summary>
    private readonly Lazy<ImmutableArray<(Cue Over, Cue Under)>> halves = new(() => [.. Spellings.SelectMany(spelling =>
        Enumerable.Range(0, spelling.Length).Where(at => spelling[at] == ' ')
            .Select(at => (new Cue([spelling[..at]], ExactCase), new Cue([spelling[(at + 1)..]], ExactCase))))]);

    /// <summary>Where the cue stands on a page, spelling by spelling, from top to bottom.</summary>
    public List<CuePlace> PlacesOn(Page page)
    {
        var places = new List<CuePlace>();
        foreach (var spelling in squashed)
            page.Squashed.Find(spelling, ExactCase, WithinWords, places);
        return places;
    }

    /// <summary>Says that the cue stands on a page.</summary>
    public bool IsOn(Page page)
    {
        foreach (var spelling in squashed)
        {
            if (page.Squashed.Has(spelling, ExactCase, WithinWords))
                return true;
        }
        return false;
    }

    /// <summary>Where the cue's first words stand on a line and the others below them, on two lines or three.</summary>
    public IEnumerable<StackedCue> StackedOn(Page page)
    {
        foreach (var (over, under) in halves.Value)
        {
            var tops = over.PlacesOn(page);
            if (tops.Count == 0)
                continue;
            var below = under.PlacesOn(page).Select(place => new StackedCue(place, place, place.Box)).Concat(under.StackedOn(page)).ToList();
            foreach (var top in tops)
            {
                foreach (var bottom in below.Where(bottom => StandsUnder(top, bottom)))
                    yield return new StackedCue(top, bottom.Last, top.Box.Union(bottom.Box));
            }
        }
    }

    private static bool StandsUnder(CuePlace top, StackedCue bottom) =>
        bottom.First.Line > top.Line && bottom.First.Line <= top.Line + 1 + MostLinesBetween
        && bottom.Box.SharedWidth(top.Box) > 0
        && bottom.Box.Top - top.Box.Bottom <= StackGap * top.Box.Height;

    public override string ToString() => string.Join(" or ", Spellings.Select(spelling => $"“{spelling}”"));
}
