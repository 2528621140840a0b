namespace Daxlin.Core.Posting.Sums;

/// <summary>By what posted amounts are added up.</summary>
public enum SumBy
{
    /// <summary>The invoices' totals by vendor.</summary>
    Vendor,

    /// <summary>The invoices' totals by the month of their date.</summary>
    Month,

    /// <summary>The amounts of lines, and of their shares, by ledger account.</summary>
    Account,

    /// <summary>The same by cost centre.</summary>
    CostCentre,

    /// <summary>The same by project.</summary>
    Project,

    /// <summary>The same by tax code.</summary>
    TaxCode,
}
