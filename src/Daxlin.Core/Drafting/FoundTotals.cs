using System.Collections.Immutable;

namespace Daxlin.Core.Drafting;

/// <summary>What the amounts below the rows are.</summary>
/// <param name="Names">Each amount with its name: subtotal, discount, freight, tax or total. A tax may be there several times, by rate.</param>
/// <param name="IsProved">The parts add up to the total, and the rows to the subtotal if it is there.</param>
/// <param name="TaxIncluded">The rows hold the tax already.</param>
internal sealed record FoundTotals(ImmutableArray<(string Name, StatedAmount Stated)> Names, bool IsProved, bool TaxIncluded);
