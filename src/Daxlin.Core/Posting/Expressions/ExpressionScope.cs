namespace Daxlin.Core.Posting.Expressions;

/// <summary>What an expression looks at while it is worked out.</summary>
/// <param name="Record">The values by name, in their settled form.</param>
/// <param name="Lists">The translation lists.</param>
/// <param name="On">The day of which entries of lists are taken: the invoice's date.</param>
/// <param name="MinorUnits">Digits behind the point of the record's currency.</param>
public sealed record ExpressionScope(PostingRecord Record, TranslationLists Lists, DateOnly On, int MinorUnits)
{
    public static ExpressionScope Of(PostingRecord record, TranslationLists lists) => new(
        record, lists,
        ExpressionType.Date.Read(record[Templates.TradeNames.InvoiceDate]) as DateOnly? ?? DateOnly.MaxValue,
        Values.Currency.Find(record[Templates.TradeNames.Currency])?.MinorDigits ?? 2);
}
