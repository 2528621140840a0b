namespace Daxlin.Core.Posting;

/// <summary>One row of an approved invoice's tax summary.</summary>
/// <param name="Rate">In per cent, settled; empty if it is not printed.</param>
/// <param name="Base">What is taxed, settled; empty if it is not printed.</param>
public sealed record ApprovedTax(string Rate, string Base, decimal Amount);
