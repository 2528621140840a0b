namespace Daxlin.Core.Posting.Layouts;

/// <summary>What one record of a table is.</summary>
public enum LayoutRecords
{
    /// <summary>One record an invoice.</summary>
    Invoices,

    /// <summary>One record an item row; more where a list under it is repeated.</summary>
    Lines,

    /// <summary>One record a row of the tax summary; one without a rate where only the sum of the taxes is stated.</summary>
    Taxes,

    /// <summary>One record an entry of the invoice's journal, debits and credits.</summary>
    Journal,
}
