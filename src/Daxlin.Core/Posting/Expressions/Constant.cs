namespace Daxlin.Core.Posting.Expressions;

/// <summary>A number, a text, yes or no, as it is written.</summary>
internal sealed record Constant(ExpressionType Type, object Value) : Expression(Type)
{
    public override object? Of(ExpressionScope scope) => Value;

    internal override IEnumerable<Expression> Parts => [];
}
