using System.Collections.Immutable;

namespace Daxlin.Core.Drafting;

/// <summary>A way to find a value again that a person pointed at, with its proof.</summary>
/// <param name="Rule">The field's rule as JSON, as a template holds it.</param>
/// <param name="Says">The same for a person: beside “Invoice no”.</param>
/// <param name="Values">What it finds on each of the other invoices, in their order; null where it finds nothing that fits.</param>
public sealed record PointedWay(string Rule, string Says, ImmutableArray<string?> Values)
{
    /// <summary>On how many of the others it finds a fitting value.</summary>
    public int Fits => Values.Count(value => value is not null);
}
