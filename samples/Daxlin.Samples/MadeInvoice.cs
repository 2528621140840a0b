using System.Collections.Immutable;

namespace Daxlin.Samples;

/// <summary>A made-up invoice, as printed.</summary>
/// <param name="FaultText">What is wrong, and by how much; empty if nothing is.</param>
public sealed record MadeInvoice(
    string Number, DateOnly Date, DateOnly Due, string? PurchaseOrder, ImmutableArray<MadeLine> Lines, decimal Subtotal,
    decimal Discount, decimal Freight, ImmutableArray<MadeTax> Taxes, decimal Total, Fault Fault, string FaultText)
{
    public decimal Tax => Taxes.Sum(tax => tax.Amount);
}

/// <summary>A row of the tax summary.</summary>
public sealed record MadeTax(decimal Rate, decimal Base, decimal Amount);
