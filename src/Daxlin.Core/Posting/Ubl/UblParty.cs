namespace Daxlin.Core.Posting.Ubl;

/// <summary>Who sells or who buys.</summary>
/// <param name="TaxId">Its number for VAT; empty if it is not known.</param>
/// <param name="Country">ISO 3166-1, two letters.</param>
public sealed record UblParty(string Name, string TaxId, string Country);
