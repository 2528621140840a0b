using System.Collections.Immutable;

namespace Daxlin.Core.Posting.Expressions;

/// <summary>What an operation makes of values of which some may not be there.</summary>
internal sealed record Weighed(ExpressionType Type, ImmutableArray<Expression> Operands, Func<object?[], object?> Work) : Expression(Type)
{
    public override object? Of(ExpressionScope scope) => Work([.. Operands.Select(operand => operand.Of(scope))]);

    internal override IEnumerable<Expression> Parts => Operands;
}
