using System.Collections.Immutable;

namespace Daxlin.Core.Templates;

/// <summary>Which part of the pages a block stands on.</summary>
/// <param name="Pages">The pages of the invoice that it can stand on.</param>
/// <param name="Left">Words left of this are no part of it, in points.</param>
/// <param name="Right">Words right of this are no part of it, in points.</param>
/// <param name="Beside">Where a page is parted into columns of print that are read one after the other, in points from the left.</param>
public sealed record BlockPlace(PageRange Pages, double Left, double Right, ImmutableArray<double> Beside)
{
    public bool IsEverywhere => Pages == PageRange.All && Left == 0 && double.IsPositiveInfinity(Right) && Beside.IsEmpty;
}
