namespace Daxlin.Testing.Mutations;

/// <summary>One thing that is printed wrong on an invoice, or misread from it.</summary>
public enum Mutation
{
    /// <summary>Another figure in some number.</summary>
    Figure,

    /// <summary>Two neighbouring figures swapped.</summary>
    Swapped,

    /// <summary>A minus too many, or one lost.</summary>
    Sign,

    /// <summary>The decimal mark lost.</summary>
    DecimalMark,

    FigureLost,
    FigureTwice,

    /// <summary>O for 0, l for 1, S for 5, B for 8.</summary>
    LetterForFigure,

    /// <summary>All that is printed of an item row is gone.</summary>
    RowLost,

    /// <summary>An item row stands there twice, all below it moved down.</summary>
    RowTwice,

    /// <summary>Two numbers of a row stand in each other's place.</summary>
    Columns,

    /// <summary>Another figure in a rate of tax, or in the amount of a tax, in the total, in a discount.</summary>
    TaxRate,
    Tax,
    Total,
    Discount,

    Iban,
    InvoiceNumber,
    Date,

    /// <summary>Another currency's mark beside an amount.</summary>
    CurrencyMark,
}
