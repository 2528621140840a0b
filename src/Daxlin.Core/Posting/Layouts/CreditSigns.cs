namespace Daxlin.Core.Posting.Layouts;

/// <summary>Which sign the amounts and quantities of credit notes have, however vendors print them.</summary>
public enum CreditSigns
{
    /// <summary>Taken off: a credit note over 40.00 is written as -40.00.</summary>
    Negative,

    /// <summary>As an invoice's; the kind tells them apart.</summary>
    Positive,

    /// <summary>As the vendor prints them.</summary>
    AsPrinted,
}
