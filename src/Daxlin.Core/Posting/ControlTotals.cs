using System.Collections.Immutable;

namespace Daxlin.Core.Posting;

/// <summary>What a posting run comes to, to be held against what the ledger took.</summary>
/// <param name="Sums">The sum of the totals by currency; credit notes count as less, however their amounts are printed.</param>
public sealed record ControlTotals(int Invoices, int Rows, ImmutableSortedDictionary<string, decimal> Sums);
