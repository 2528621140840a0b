using System.Collections.Immutable;
using Daxlin.Core.Capture;

namespace Daxlin.Core.Drafting;

/// <summary>What was found of the item rows.</summary>
/// <param name="Amounts">The amount of each row, by sample.</param>
/// <param name="Ends">Where the last row stands on each sample; null on a sample without rows.</param>
/// <param name="Proved">On how many of <paramref name="Rows"/> quantity × unit price = amount.</param>
internal sealed record FoundItems(
    Headings Headings, ImmutableArray<string?> Names, ImmutableArray<ImmutableArray<decimal>> Amounts, ImmutableArray<PlaceOnPage?> Ends, int Proved, int Rows, ItemsPlan Plan);
