using Daxlin.Core.Posting.Expressions;

namespace Daxlin.Core.Posting.Layouts;

/// <summary>One column of a table.</summary>
/// <param name="Text">Its expression as it is written.</param>
/// <param name="Proves">Which control total its figures come to.</param>
/// <param name="Decimals">So many digits stand behind the decimal mark, zeros if need be; null for as many as the figure has. Never rounds.</param>
/// <param name="Width">In letters; 0 for no bound. Longer values are refused unless <paramref name="IsCut"/>.</param>
/// <param name="IsCut">Says that a text that is longer loses its end.</param>
/// <param name="Fill">What fills a value up to its width: numbers on their left, all else on its right.</param>
public sealed record LayoutColumn(string Heading, string Text, Expression Value, Proved Proves, int? Decimals, int Width, bool IsCut, char Fill)
{
    /// <summary>Says that as many digits stand behind the decimal mark as the record's currency has: 2 of EUR, 3 of KWD, none of JPY.</summary>
    public bool HasDigitsOfCurrency { get; init; }
}
