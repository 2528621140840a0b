namespace Daxlin.Core.Values;

/// <summary>How a vendor writes dates and numbers.</summary>
/// <param name="Currency">The currency of the invoice's amounts.</param>
/// <param name="Dates">Which part of a date in figures comes first.</param>
/// <param name="DecimalMark">The mark before the decimals.</param>
/// <param name="GroupingMarks">Marks that may stand between groups of three digits; a blank stands for every kind of blank.</param>
/// <param name="TaxIncluded">Says that the line amounts and the subtotal hold the tax already.</param>
public sealed record Habits(Currency Currency, DateOrder Dates, char DecimalMark, string GroupingMarks, bool TaxIncluded = false);
