using System.Collections.Immutable;

namespace Daxlin.Core.Electronic;

/// <summary>What an electronic invoice states, in the names of the trade.</summary>
/// <param name="IsCreditNote">Says that the vendor owes the amounts to the buyer; most state them without a sign then.</param>
/// <param name="Fields">Header values; a name may stand more than once, as accounts do.</param>
/// <param name="Lines">None in the profiles that state only sums.</param>
/// <param name="Taxes">One row a category and rate.</param>
/// <param name="Elements">The file's elements, each once; none where only the values were kept.</param>
public sealed record ElectronicInvoice(
    ElectronicSyntax Syntax,
    bool IsCreditNote,
    ImmutableArray<StatedValue> Fields,
    ImmutableArray<StatedRow> Lines,
    ImmutableArray<StatedRow> Taxes,
    ImmutableArray<ElectronicElement> Elements)
{
    /// <summary>The name of the sum of all lines less discounts, plus charges, before tax; vendors print it as the subtotal, too.</summary>
    public const string TaxedSum = "taxedSum";

    public StatedValue? Find(string field) => Fields.FirstOrDefault(value => value.Name == field);

    public string TextOf(string field) => Find(field)?.Value ?? "";

    public decimal? Amount(string field) => Find(field)?.Number;
}
