namespace Daxlin.Core.Posting.Ubl;

/// <summary>What is taxed at a rate, and its tax.</summary>
public sealed record UblTax(decimal Rate, decimal Base, decimal Amount);
