using System.Collections.Immutable;
using Daxlin.Core.Pages;

namespace Daxlin.Core.Drafting;

/// <summary>Printed words that the trade's vocabulary knows, where they stand.</summary>
/// <param name="Text">As printed, without a colon at the end: a cue for the template.</param>
/// <param name="Meanings">What they can be a caption of, each with its rank: 0 for the plainest ("Invoice number"), more for vaguer ones ("No").</param>
/// <param name="Line">The line, or the upper one of two.</param>
/// <param name="FirstWord">Index in the line's words.</param>
/// <param name="Words">How many words of the line it takes.</param>
public sealed record Caption(string Text, ImmutableArray<(string Name, int Rank)> Meanings, TextLine Line, Box Box, int FirstWord, int Words)
{
    /// <summary>The rank as a caption of a name; null if it is none of it.</summary>
    public int? RankAs(string name)
    {
        foreach (var (other, rank) in Meanings)
        {
            if (other == name)
                return rank;
        }
        return null;
    }
}
