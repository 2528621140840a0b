using System.Collections.Immutable;

namespace Daxlin.Core.Drafting;

/// <summary>What some printed words can be a caption of, by the vocabulary.</summary>
/// <remarks>Each name has a rank: 0 for the plainest caption of it ("Invoice number"), more for vaguer ones ("No").</remarks>
internal readonly record struct Meanings(ImmutableArray<(string Name, int Rank)> All)
{
    public static Meanings None { get; } = new([]);

    public bool IsEmpty => All.IsEmpty;

    /// <summary>The rank as a caption of a name; null if it is none of it.</summary>
    public int? RankAs(string name)
    {
        foreach (var (other, rank) in All)
        {
            if (other == name)
                return rank;
        }
        return null;
    }

    /// <summary>Says that both can be a caption of one thing.</summary>
    public bool Share(Meanings other) => All.Any(one => other.RankAs(one.Name) is not null);
}
