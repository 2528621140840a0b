using System.Collections.Immutable;

namespace Daxlin.Samples;

/// <summary>What a vendor sells and how, from which invoices are made by lot.</summary>
/// <param name="Remarks">Ends to descriptions; the longer ones wrap.</param>
/// <param name="Sections">Headings over groups of lines; none if the vendor has no such.</param>
/// <param name="LineDiscounts">Discounts in per cent that a line may have.</param>
public sealed record Assortment(
    ImmutableArray<Article> Articles, ImmutableArray<string> Remarks, ImmutableArray<string> Sections,
    ImmutableArray<decimal> LineDiscounts, bool HasFreight, bool HasOrderDiscount);
