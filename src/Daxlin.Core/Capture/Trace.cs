using System.Collections.Immutable;

namespace Daxlin.Core.Capture;

/// <summary>Where a value came from.</summary>
/// <param name="Places">
/// Where it is printed; more than one if it goes on over a page break, none for a constant of the template.
/// </param>
/// <param name="Whereabouts">What found it: <c>beside “Total due”</c>, <c>column amount</c>.</param>
/// <param name="Raw">The text before tidying.</param>
/// <param name="Confidence">1 for a text layer read in the first of a field's whereabouts, less for the later ones.</param>
public sealed record Trace(ImmutableArray<PlaceOnPage> Places, string Whereabouts, string Raw, double Confidence)
{
    /// <summary>How it was decided between two readings of a picture; empty where nothing had to be.</summary>
    public string Reading { get; init; } = "";

    /// <summary>What each tidy step made of <see cref="Raw"/>, in order; empty without steps.</summary>
    public ImmutableArray<TidiedText> Steps { get; init; } = [];
}
