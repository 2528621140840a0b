namespace Daxlin.Core.Posting.Ubl;

/// <summary>A discount or a charge on the whole invoice, as far as it is taxed at one rate.</summary>
public sealed record UblAllowance(bool IsCharge, decimal Rate, decimal Amount);
