namespace Daxlin.Service.Storage;

/// <summary>A vendor's record. Each change of it is told in the history.</summary>
public sealed class Vendor : IGrouped
{
    public int Id { get; set; }

    /// <summary>The letters and figures of the name that it was first known by; never changed. Keys of its invoices begin with it.</summary>
    public required string Key { get; set; }

    public required string Name { get; set; }

    /// <summary>Its tax numbers, a JSON list.</summary>
    public string TaxIds { get; set; } = "[]";

    /// <summary>ISO 4217; empty if its invoices may be in any.</summary>
    public string Currency { get; set; } = "";

    /// <summary>Days after the invoice's date, or after its month's end; null for no agreed terms.</summary>
    public int? TermsDays { get; set; }
    public bool TermsFromMonthEnd { get; set; }

    /// <summary>What its invoices are posted to unless a line says otherwise.</summary>
    public string LedgerAccount { get; set; } = "";
    public string TaxCode { get; set; } = "";

    /// <summary>Whose invoices its are; empty if it is of no group. People can be held to groups.</summary>
    public string Group { get; set; } = "";

    /// <summary>Counts its changes from 1.</summary>
    public int Revision { get; set; } = 1;
}
