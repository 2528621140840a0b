namespace Daxlin.Core.Posting.Expressions;

/// <summary>One value if something is so, else another; the one that is not wanted is not worked out.</summary>
/// <remarks><c>a / b if b &lt;&gt; 0 else 0</c> divides by nothing never. A condition that comes to nothing is not so.</remarks>
internal sealed record Choice(Expression Condition, Expression Then, Expression Else) : Expression(Then.Type)
{
    public override object? Of(ExpressionScope scope) => (Condition.Of(scope) is true ? Then : Else).Of(scope);

    internal override IEnumerable<Expression> Parts => [Condition, Then, Else];
}
