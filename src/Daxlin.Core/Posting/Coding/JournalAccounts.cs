using Daxlin.Core.Posting.Expressions;

namespace Daxlin.Core.Posting.Coding;

/// <summary>The accounts of a journal's entries that are of no line.</summary>
/// <param name="Payable">What is owed to the vendor.</param>
/// <param name="Tax">Of a row of the tax summary.</param>
/// <param name="Freight">Null where none is posted.</param>
/// <param name="Discount">Null where none is posted.</param>
/// <param name="Rounding">Where a difference goes that the invoice's own checks let pass; null refuses such an invoice.</param>
public sealed record JournalAccounts(Expression Payable, Expression Tax, Expression? Freight, Expression? Discount, Expression? Rounding)
{
    /// <summary>The translation lists that words are looked up in, each once.</summary>
    public IEnumerable<string> Lists => Expressions.SelectMany(expression => expression.Lists).Distinct();

    internal IEnumerable<Expression> Expressions => new[] { Payable, Tax, Freight, Discount, Rounding }.OfType<Expression>();
}
