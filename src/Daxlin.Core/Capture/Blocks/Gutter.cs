using Daxlin.Core.Pages;

namespace Daxlin.Core.Capture.Blocks;

/// <summary>Finds the blank strip between two columns of text.</summary>
/// <remarks>
/// A heading may be centred over a column whose text begins far to the left of it; then only the strip that hardly any
/// line prints on tells where the column begins. A few lines may cross it: a section heading, a remark.
/// </remarks>
internal static class Gutter
{
    /// <summary>One line in so many may cross the strip.</summary>
    private const int LinesPerCrossing = 8;

    /// <summary>A narrower strip is no gutter, in points.</summary>
    private const double Narrowest = 1;

    /// <summary>The widest strip within two bounds, or null if there is none.</summary>
    public static (double Left, double Right)? Widest(IReadOnlyCollection<TextLine> lines, double left, double right)
    {
        if (right - left < Narrowest || lines.Count == 0)
            return null;
        // The ends of all words in between part the stretch; between two neighbours the print is the same all along.
        var words = lines.SelectMany(line => line.Words).Where(word => word.Box.Right > left && word.Box.Left < right).ToList();
        var ends = words.SelectMany(word => new[] { word.Box.Left, word.Box.Right }).Where(x => x > left && x < right)
            .Append(left).Append(right).Order().ToList();
        var most = lines.Count / LinesPerCrossing;
        var fewest = int.MaxValue;
        (double Left, double Right)? best = null;
        for (var at = 0; at + 1 < ends.Count; at++)
        {
            var (from, to) = (ends[at], ends[at + 1]);
            var crossings = words.Count(word => word.Box.Left < to - 0.01 && word.Box.Right > from + 0.01);
            // Strips that are crossed alike and touch are one.
            if (best is { } before && before.Right == from && crossings == fewest)
                best = (before.Left, to);
            else if (crossings <= most && (crossings < fewest || (crossings == fewest && to - from > best!.Value.Right - best.Value.Left)))
                (best, fewest) = ((from, to), crossings);
        }
        return best is { } found && found.Right - found.Left >= Narrowest ? best : null;
    }
}
