namespace Daxlin.Samples;

/// <summary>A line of a made-up invoice, as printed.</summary>
public sealed record MadeLine(
    string Code, string Description, string? Section, decimal Quantity, string Unit, decimal UnitPrice, decimal DiscountPercent,
    decimal TaxRate, decimal Amount);
