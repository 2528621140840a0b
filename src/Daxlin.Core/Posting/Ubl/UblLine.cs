namespace Daxlin.Core.Posting.Ubl;

/// <summary>A line of an invoice: quantity × price ÷ price basis − discount = amount.</summary>
/// <param name="Unit">UN/ECE Recommendation 20.</param>
/// <param name="Discount">What is taken off the line; less than 0 for what is added.</param>
public sealed record UblLine(
    int Number, string ItemCode, string Description, decimal Quantity, string Unit, decimal UnitPrice, decimal PriceBasis, decimal Discount, decimal Rate, decimal Amount);
