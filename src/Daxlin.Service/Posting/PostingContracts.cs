using System.Collections.Immutable;

namespace Daxlin.Service.Posting;

/// <summary>Which approved invoices are posted; one of the two has to be said.</summary>
/// <param name="Batch">Those of this batch.</param>
/// <param name="AllBatches">True for those of all batches.</param>
/// <param name="Despite">Why a batch is posted that does not come to what was stated of it; it is kept on record.</param>
public sealed record RunToStart(int? Batch = null, bool AllBatches = false, string? Despite = null);

/// <summary>A posting run with its control totals.</summary>
/// <param name="Invoices">How many invoices are in it.</param>
/// <param name="Rows">How many rows its file has, the heading left out.</param>
/// <param name="Sums">The sum of the totals by currency, credit notes taken off.</param>
public sealed record PostingRunSummary(
    int Number, int? Batch, DateTime At, string By, int Invoices, int Rows, ImmutableSortedDictionary<string, string> Sums);
