namespace Daxlin.Samples;

/// <summary>Something that a vendor sells.</summary>
public sealed record Article(string Code, string Description, string Unit, decimal Price, decimal TaxRate, bool InFractions = false);
