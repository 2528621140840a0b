using System.Collections.Immutable;

namespace Daxlin.Core.Electronic;

/// <summary>A line, or a row of the tax summary, that an electronic invoice states.</summary>
public sealed record StatedRow(ImmutableArray<StatedValue> Values)
{
    public StatedValue? Find(string column) => Values.FirstOrDefault(value => value.Name == column);

    public decimal? NumberIn(string column) => Find(column)?.Number;

    /// <summary>All numbers of a name: a price may be stated net and gross.</summary>
    public IEnumerable<decimal> NumbersIn(string column) => Values.Where(value => value.Name == column).Select(value => value.Number).OfType<decimal>();
}
