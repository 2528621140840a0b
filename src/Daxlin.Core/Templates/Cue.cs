using System.Collections.Immutable;
using Daxlin.Core.Pages;

namespace Daxlin.Core.Templates;

/// <summary>Printed words that a template steers by, in one or several spellings.</summary>
/// <param name="Spellings">Any of them will do; blanks do not count.</param>
/// <param name="ExactCase">Says that capitals must be as spelt; else they do not count either.</param>
public sealed record Cue(ImmutableArray<string> Spellings, bool ExactCase = false)
{
    private readonly ImmutableArray<string> squashed = [.. Spellings.Select(SquashedText.Squash)];

    /// <summary>Where the cue stands on a line.</summary>
    public IEnumerable<CuePlace> PlacesOn(TextLine line) =>
        squashed.SelectMany(spelling => line.Squashed.Find(spelling, ExactCase));

    /// <summary>Says that the cue stands on a line.</summary>
    public bool IsOn(TextLine line) => PlacesOn(line).Any();

    public override string ToString() => string.Join(" or ", Spellings.Select(spelling => $"“{spelling}”"));
}
