namespace Daxlin.Core.Posting.Expressions;

/// <summary>A small typed expression over the values of one record: no loops, so its time grows with its length alone.</summary>
/// <remarks>
/// A value that the record does not have is nothing. What is worked out from nothing is nothing, an empty cell; nothing is equal
/// to nothing only, and not less or more than anything; joined to a text it adds no letter.
/// </remarks>
/// <example><c>amount * 0.5 if section contains "Dock" else amount</c></example>
public abstract record Expression(ExpressionType Type)
{
    /// <summary>What it comes to for a record: a decimal, a text, a date, a boolean, or null for nothing.</summary>
    /// <exception cref="EvaluationException">It comes to nothing that can be written.</exception>
    public abstract object? Of(ExpressionScope scope);

    /// <summary>What it is worked out from.</summary>
    internal abstract IEnumerable<Expression> Parts { get; }

    /// <summary>The translation lists that it looks words up in, each once for each time.</summary>
    public IEnumerable<string> Lists => Parts.SelectMany(part => part.Lists).Concat(this is FromList own ? [own.List] : []);

    /// <summary>The names that it speaks of, each once for each time.</summary>
    public IEnumerable<string> Names => Parts.SelectMany(part => part.Names).Concat(this is NamedValue own ? [own.Name] : []);
}
