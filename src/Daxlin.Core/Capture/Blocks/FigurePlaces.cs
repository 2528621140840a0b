using System.Collections.Immutable;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Capture.Blocks;

/// <summary>Finds the places beside their text where a block's figures may stand: those that many of its rows allow.</summary>
internal static class FigurePlaces
{
    /// <summary>So many lines on each side of a row's figures, and so many rows, are enough to learn from.</summary>
    private const int MostLines = 6;
    private const int MostRows = 60;

    /// <summary>So many places of each kind are weighed.</summary>
    private const int MostPlaces = 5;

    /// <summary>Places this close together, in points, are one.</summary>
    private const double Same = 0.5;

    /// <param name="rows">Indices of the lines of figures.</param>
    /// <param name="between">Indices of the open lines above the row of a number, and, for one more, below the last.</param>
    public static IEnumerable<FigurePlace> Candidates(ImmutableArray<BlockLine> lines, List<int> rows, Func<int, IReadOnlyList<int>> between)
    {
        if (!lines.Any(line => line is { Role: LineRole.Open, IsAround: true, Group: < 0 }))
            return [FigurePlace.None];
        var places = new List<FigurePlace>();
        foreach (var anchor in new[] { FigureAnchor.Top, FigureAnchor.Middle, FigureAnchor.End })
        {
            var seen = new Dictionary<int, HashSet<int>>();
            for (var row = 0; row < Math.Min(rows.Count, MostRows); row++)
            {
                foreach (var offset in OffsetsOf(lines, rows[row], between(row), between(row + 1), anchor))
                {
                    var key = (int)Math.Round(offset / Same);
                    (seen.TryGetValue(key, out var known) ? known : seen[key] = []).Add(row);
                }
            }
            places.AddRange(seen.OrderByDescending(place => place.Value.Count).ThenBy(place => Math.Abs(place.Key)).Take(MostPlaces)
                .Select(place => new FigurePlace(anchor, place.Key * Same)));
        }
        return places.Count == 0 ? [FigurePlace.None] : places;
    }

    /// <summary>Where the figures of a row stand beside its text, for each number of lines that it may take above and below.</summary>
    private static IEnumerable<double> OffsetsOf(
        ImmutableArray<BlockLine> lines, int row, IReadOnlyList<int> above, IReadOnlyList<int> below, FigureAnchor anchor)
    {
        int[] upper = [.. above.Skip(Math.Max(0, above.Count - MostLines))];
        int[] lower = [.. below.Take(MostLines)];
        for (var taken = 0; taken <= upper.Length; taken++)
        {
            for (var more = 0; more <= lower.Length; more++)
            {
                if (FigurePlace.OffsetOf(lines, row, upper.AsSpan()[^taken..], lower.AsSpan()[..more], anchor) is { } offset)
                    yield return offset;
            }
        }
    }
}
