using Daxlin.Core.Pages;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Capture.Blocks;

/// <summary>A column as it stands on one page.</summary>
/// <param name="Rule">The template's column; null for a printed heading that the template does not speak of.</param>
/// <param name="Heading">Where the heading is printed; for a column by edges, a box as wide as the column.</param>
/// <param name="Left">Left end of the heading and of what was seen under it, or the column's hard edge.</param>
/// <param name="Right">Right end of the same.</param>
internal sealed record ColumnSpan(ColumnRule? Rule, Box Heading, double Left, double Right)
{
    /// <summary>
    /// Says that a line with a row's figures fills the column. Text that stands around its figures, or above them, need not
    /// be on their line.
    /// </summary>
    public bool IsFilled { get; init; } = Rule is { Required: true, Fold: Fold.None or Fold.Down or Fold.AllDown };

    /// <summary>Says that amounts stand in the column, with a currency's mark or without.</summary>
    public bool HoldsMoney => Rule?.Kind is ValueKind.Money or ValueKind.Price;

    public double Apart(double left, double right) => Math.Max(0, Math.Max(Left - right, left - Right));

    public double Shared(double left, double right) => Math.Max(0, Math.Min(Right, right) - Math.Max(Left, left));
}
