using System.Text.RegularExpressions;
using Daxlin.Core.Pages;

namespace Daxlin.Core.Templates;

/// <summary>Where a value is.</summary>
public abstract record Whereabouts
{
    /// <summary>A short name for a trace: <c>beside “Invoice no”</c>.</summary>
    public abstract string Says { get; }
}

/// <summary>A value that stands by a cue.</summary>
/// <param name="Side">On which side of the cue the value stands.</param>
/// <param name="Cue">The printed words.</param>
/// <param name="Occurrence">
/// Which of the cue's places counts: 1 the first, 2 the second, -1 the last; 0 any, but then all must give one value.
/// </param>
/// <param name="Reach">How far from the cue the value may stand, in points.</param>
public sealed record ByCue(Side Side, Cue Cue, int Occurrence, double Reach) : Whereabouts
{
    public override string Says => $"{Side.ToString().ToLowerInvariant()} {Cue}";
}

/// <summary>A value at a fixed place.</summary>
/// <param name="PageNumber">From 1; -1 the last page.</param>
/// <param name="Place">Words whose centre lies in this box are taken.</param>
public sealed record At(int PageNumber, Box Place) : Whereabouts
{
    public override string Says => PageNumber < 0 ? "at a place on the last page" : $"at a place on page {PageNumber}";
}

/// <summary>The first text that matches a pattern: its first group, or all of it.</summary>
/// <param name="Occurrence">As for <see cref="ByCue"/>.</param>
public sealed record Matching(Regex Pattern, int Occurrence) : Whereabouts
{
    public override string Says => $"matching {Pattern}";
}

/// <summary>A constant: the vendor's name, a currency never printed.</summary>
public sealed record Always(string Value) : Whereabouts
{
    public override string Says => "always";
}
