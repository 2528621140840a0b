namespace Daxlin.Core.Posting.Expressions;

/// <summary>An expression cannot be read.</summary>
/// <param name="at">The character that the fault is at, from 1.</param>
/// <param name="message">A sentence that says what is wrong.</param>
public sealed class ExpressionFaultException(int at, string message) : Exception(message)
{
    public int At { get; } = at;
}
