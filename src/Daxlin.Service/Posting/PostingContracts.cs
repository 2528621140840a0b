using System.Collections.Immutable;

namespace Daxlin.Service.Posting;

/// <param name="Batch">Posts the approved invoices of this batch only; null for those of all batches.</param>
public sealed record RunToStart(int? Batch);

/// <summary>A posting run with its control totals.</summary>
/// <param name="Invoices">How many invoices are in it.</param>
/// <param name="Rows">How many rows its file has, the heading left out.</param>
/// <param name="Sums">The sum of the totals by currency, credit notes taken off.</param>
public sealed record PostingRunSummary(
    int Number, int? Batch, DateTime At, string By, int Invoices, int Rows, ImmutableSortedDictionary<string, string> Sums);
