using System.Collections.Immutable;
using Daxlin.Core.Pages;

namespace Daxlin.Core.Drafting;

/// <summary>One printed heading of a table.</summary>
/// <param name="Text">As printed, over several lines if it is set so.</param>
/// <param name="Meanings">What the vocabulary says that it can be, with ranks; empty if it does not know it.</param>
internal sealed record Heading(string Text, ImmutableArray<(string Name, int Rank)> Meanings, Box Box)
{
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
