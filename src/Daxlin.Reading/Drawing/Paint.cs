using System.Collections.Immutable;

namespace Daxlin.Reading.Drawing;

/// <summary>What something is painted with: one ink, or those of a pattern, of which nobody says here which stands where.</summary>
/// <param name="Inks">None where they cannot be told.</param>
/// <param name="HasGaps">It leaves out places, through which what lies under it is seen.</param>
/// <example>A bar that runs from blue into white has both and what lies between them; a hatching has the ink of its lines, and gaps.</example>
internal sealed record Paint(ImmutableArray<Ink> Inks, bool HasGaps)
{
    /// <summary>What is drawn with before a colour is chosen.</summary>
    public static Paint Black { get; } = Of(Ink.Black);

    /// <summary>Nobody can tell.</summary>
    public static Paint Untold { get; } = new([], HasGaps: true);

    public static Paint Of(Ink ink) => new([ink], HasGaps: false);

    /// <summary>Says that nobody can tell its colours.</summary>
    public bool IsUntold => Inks.IsEmpty;

    /// <summary>Its colour where it has one; null for a pattern.</summary>
    public Ink? Only => Inks.Length == 1 && !HasGaps ? Inks[0] : null;
}
