using System.Collections.Immutable;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Capture.Blocks;

/// <summary>A printed line of a block, cut into its columns once, with what it can be.</summary>
/// <param name="Line">Its words, without those of a page's head or foot.</param>
/// <param name="Cutter">By which it was cut: the second line of a record has columns of its own.</param>
/// <param name="Segment">The part of the block on one page that it stands on.</param>
/// <param name="Group">Where gaps or rulings part rows, the number of its group over the whole block; else -1.</param>
/// <param name="Role">What the line is by itself, or <see cref="LineRole.Open"/>.</param>
internal sealed record BlockLine(TextLine Line, CutLine Cut, LineCutter Cutter, BlockSegment Segment, int Group, LineRole Role)
{
    /// <summary>Its cells with the columns that they fold into, where it can be wrapped text; else empty.</summary>
    public ImmutableArray<(ColumnRule Column, Cell Cell)> Text { get; init; } = [];

    /// <summary>By which rule it can be a heading for the place where it begins, or for its pattern; null if by none.</summary>
    public CarryRule? Heading { get; init; }

    /// <summary>The list that it belongs to where it stands under a row.</summary>
    public RowsUnderRule? Under { get; init; }

    /// <summary>Says that it stands where the head or the foot of another page stands, with the same words.</summary>
    public bool IsFurniture { get; init; }

    /// <summary>What a sum of the rows above states; null for other lines, and where it is printed without its figure.</summary>
    public RowSum? Sum { get; init; }

    public int Page => Line.Page;

    /// <summary>
    /// Where its wrapped text stands. Text that stands a little higher or lower than its figures shares their line, and is
    /// measured from where it stands itself.
    /// </summary>
    public double Baseline { get; } = BaselineOf(Line, Cut, Cutter, ofText: true);

    /// <summary>Where its figures stand.</summary>
    public double FigureBaseline { get; } = BaselineOf(Line, Cut, Cutter, ofText: false);

    private static double BaselineOf(TextLine line, CutLine cut, LineCutter cutter, bool ofText)
    {
        for (var column = 0; column < cut.Columns; column++)
        {
            if (cut.Has(column) && cutter.RuleOf(column) is { } rule && (rule.Fold != Fold.None) == ofText)
                return cut[column][0].Baseline;
        }
        return line.Words[0].Baseline;
    }

    public double Size => Line.Words[0].Size;

    /// <summary>Says that the line may be text of the row above. Where gaps or rulings part rows, all that stands between two of them is one.</summary>
    public bool MayFoldUp => Group >= 0 || !Text.IsEmpty && Text.All(part => part.Column.Fold is Fold.Down or Fold.AllDown or Fold.Around);

    /// <summary>Says that the line may be text of the row below.</summary>
    public bool MayFoldDown => Group >= 0 || !Text.IsEmpty && Text.All(part => part.Column.Fold is Fold.Up or Fold.Around);

    /// <summary>Says that some of its text stands around its figures.</summary>
    public bool IsAround => Text.Any(part => part.Column.Fold == Fold.Around);
}
