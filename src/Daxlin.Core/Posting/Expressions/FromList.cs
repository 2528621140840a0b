namespace Daxlin.Core.Posting.Expressions;

/// <summary>What a translation list calls a word on the day of the record; nothing if it does not have the word.</summary>
internal sealed record FromList(string List, Expression Word) : Expression(ExpressionType.Text)
{
    public override object? Of(ExpressionScope scope) =>
        Word.Of(scope) is string word ? scope.Lists.Find(List)?.Of(word, scope.On) : null;

    internal override IEnumerable<Expression> Parts => [Word];
}
