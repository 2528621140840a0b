using System.Collections.Immutable;

namespace Daxlin.Core.Pages;

/// <summary>One page as a person sees it: turned by its rotation entry, cut to its crop box.</summary>
/// <param name="Number">From 1 within the document.</param>
/// <param name="Width">In points.</param>
/// <param name="Height">In points.</param>
public sealed record Page(
    int Number, double Width, double Height, ImmutableArray<Word> Words, ImmutableArray<Stroke> Strokes)
{
    private ImmutableArray<TextLine> lines;
    private SquashedText? squashed;

    /// <summary>The upright words as lines, from top to bottom.</summary>
    public ImmutableArray<TextLine> Lines => lines.IsDefault ? lines = TextLine.Of(Number, Words) : lines;

    /// <summary>The lines' text without its blanks, to find cues in.</summary>
    public SquashedText Squashed => squashed ??= new SquashedText(Lines);

    public bool Equals(Page? other) => ReferenceEquals(this, other);

    public override int GetHashCode() => Number;
}
