namespace Daxlin.Core.Posting.Layouts;

/// <summary>Which control total the figures of a column must come to.</summary>
public enum Proved
{
    Nothing,

    /// <summary>The sum of the invoices' totals.</summary>
    Total,

    /// <summary>The sum of the amounts of all item rows.</summary>
    Lines,

    /// <summary>The sum of all taxes.</summary>
    Tax,

    /// <summary>What one side of the journal comes to: debits and credits of an invoice are the same sum.</summary>
    Journal,
}
