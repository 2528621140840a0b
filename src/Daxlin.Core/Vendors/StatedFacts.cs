using Daxlin.Core.Templates;

namespace Daxlin.Core.Vendors;

/// <summary>What an invoice says that other invoices and its vendor's record can speak against. Texts are empty where it says nothing.</summary>
/// <param name="Number">Its invoice number.</param>
/// <param name="Date">Null if it is none, or unknown.</param>
/// <param name="VendorName">As printed.</param>
/// <param name="TaxId">The vendor's, as printed.</param>
/// <param name="Currency">ISO 4217.</param>
/// <param name="Total">Null if unknown.</param>
/// <param name="Credits">The number of the invoice that a credit note credits.</param>
public sealed record StatedFacts(
    string Number, DateOnly? Date, DateOnly? Due, string VendorName, string TaxId, string Iban, string Currency, decimal? Total, bool IsCreditNote, string Credits)
{
    /// <summary>The ways of rounding under which its taxes hold; any where they tell nothing.</summary>
    public TaxRoundings TaxRounding { get; init; } = TaxRoundings.Any;
}
