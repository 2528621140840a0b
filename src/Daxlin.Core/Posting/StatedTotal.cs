namespace Daxlin.Core.Posting;

/// <summary>What a batch is to come to in one currency, as its cover sheet says.</summary>
/// <param name="Currency">ISO 4217.</param>
/// <param name="Invoices">How many invoices; null if only the sum is known.</param>
/// <param name="Sum">Credit notes taken off; null if only the count is known.</param>
public sealed record StatedTotal(string Currency, int? Invoices, decimal? Sum);
