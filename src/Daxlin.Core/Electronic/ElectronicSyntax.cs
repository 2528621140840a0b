namespace Daxlin.Core.Electronic;

/// <summary>The two syntaxes that the European standard for electronic invoices (EN 16931) is written in.</summary>
public enum ElectronicSyntax
{
    /// <summary>OASIS Universal Business Language 2.1, Invoice and CreditNote (ISO/IEC 19845).</summary>
    Ubl,

    /// <summary>UN/CEFACT Cross Industry Invoice D16B.</summary>
    Cii,
}
