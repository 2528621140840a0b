using System.Collections.Immutable;

namespace Daxlin.Core.Posting.Expressions;

/// <summary>What an operation makes of the values of its operands, all of which are there.</summary>
/// <param name="Work">From the values, in the order of the operands.</param>
internal sealed record Worked(ExpressionType Type, ImmutableArray<Expression> Operands, Func<object[], ExpressionScope, object?> Work) : Expression(Type)
{
    /// <summary>Null if one of the operands comes to nothing.</summary>
    public override object? Of(ExpressionScope scope)
    {
        var values = new object[Operands.Length];
        for (var at = 0; at < values.Length; at++)
        {
            if (Operands[at].Of(scope) is not { } value)
                return null;
            values[at] = value;
        }
        try
        {
            return Work(values, scope);
        }
        catch (OverflowException)
        {
            throw new EvaluationException("It comes to a number of more digits than are kept (28).");
        }
        catch (DivideByZeroException)
        {
            throw new EvaluationException("It divides by 0.");
        }
    }

    internal override IEnumerable<Expression> Parts => Operands;
}
