using System.Collections.Immutable;
using Daxlin.Core.Pages;

namespace Daxlin.Core.Templates;

/// <summary>Printed words that a template steers by, in one or several spellings.</summary>
/// <param name="Spellings">Any of them will do; blanks do not count.</param>
/// <param name="ExactCase">Says that capitals must be as spelt; else they do not count either.</param>
public sealed record Cue(ImmutableArray<string> Spellings, bool ExactCase = false)
{
    private readonly ImmutableArray<string> squashed =
        [.. Spellings.Select(SquashedText.Squash).Select(spelling => ExactCase ? spelling : spelling.ToUpperInvariant())];

    /// <summary>The same words parted at each blank, upper part and lower part, for headings set on two lines.</summary>
    private readonly Lazy<ImmutableArray<(Cue Over, Cue Under)>> halves = new(() => [.. Spellings.SelectMany(spelling =>
        Enumerable.Range(0, spelling.Length).Where(at => spelling[at] == ' ')
            .Select(at => (new Cue([spelling[..at]], ExactCase), new Cue([spelling[(at + 1)..]], ExactCase))))]);

    /// <summary>Where the cue stands on a page, spelling by spelling, from top to bottom.</summary>
    public List<CuePlace> PlacesOn(Page page)
    {
        var places = new List<CuePlace>();
        foreach (var spelling in squashed)
            page.Squashed.Find(spelling, ExactCase, places);
        return places;
    }

    /// <summary>Says that the cue stands on a page.</summary>
    public bool IsOn(Page page) => PlacesOn(page).Count > 0;

    /// <summary>Where the cue's first words stand on a line and its last ones on the next, below them.</summary>
    public IEnumerable<(int Line, Box Box)> StackedOn(Page page)
    {
        foreach (var (over, under) in halves.Value)
        {
            var below = under.PlacesOn(page);
            if (below.Count == 0)
                continue;
            foreach (var top in over.PlacesOn(page))
            {
                foreach (var bottom in below.Where(place => place.Line == top.Line + 1 && place.Box.SharedWidth(top.Box) > 0))
                    yield return (top.Line, top.Box.Union(bottom.Box));
            }
        }
    }

    public override string ToString() => string.Join(" or ", Spellings.Select(spelling => $"“{spelling}”"));
}
