namespace Daxlin.Core.Posting;

/// <summary>What Daxlin knows of an approved invoice beside what is printed on it.</summary>
/// <param name="Batch">The name of its batch.</param>
/// <param name="VendorAccount">The vendor's ledger account on record; empty if there is none.</param>
/// <param name="VendorTaxCode">The vendor's tax code on record; empty if there is none.</param>
public sealed record ApprovedOrigin(string Batch, string ApprovedBy, DateOnly? ApprovedOn, DateOnly? TakenInOn, string VendorAccount, string VendorTaxCode)
{
    /// <summary>The day that it is posted on; null for its own.</summary>
    public DateOnly? PostingDate { get; init; }

    public static ApprovedOrigin Unknown { get; } = new("", "", null, null, "", "");
}
