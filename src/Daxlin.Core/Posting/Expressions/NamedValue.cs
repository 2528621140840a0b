namespace Daxlin.Core.Posting.Expressions;

/// <summary>The record's value of a name.</summary>
internal sealed record NamedValue(ExpressionType Type, string Name) : Expression(Type)
{
    public override object? Of(ExpressionScope scope)
    {
        var settled = scope.Record[Name];
        return Type.Read(settled) ?? (settled.Length == 0 ? null
            : throw new EvaluationException($"The {Templates.TradeNames.Spoken(Name)} is “{settled}”, which is not {Type.Spoken()}."));
    }

    internal override IEnumerable<Expression> Parts => [];
}
