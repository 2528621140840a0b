using System.Collections.Immutable;
using System.Globalization;

namespace Daxlin.Core.Posting.Expressions;

/// <summary>Goes through the parts of an expression's text, from the first to the last.</summary>
internal sealed class TokenCursor(ImmutableArray<Token> tokens)
{
    private int next;

    public Token Here => tokens[next];

    /// <summary>The one behind; the end again at the end.</summary>
    public Token Next => tokens[Math.Min(next + 1, tokens.Length - 1)];

    public Token Take() => tokens[next++];

    public bool Takes(string word)
    {
        if (!Here.Is(word))
            return false;
        next++;
        return true;
    }

    /// <summary>Takes several words in a row, or none of them.</summary>
    public bool Takes(string first, string second)
    {
        if (!Here.Is(first) || !tokens[next + 1].Is(second))
            return false;
        next += 2;
        return true;
    }

    public void Want(string word)
    {
        if (!Takes(word))
            throw new ExpressionFaultException(Here.At, $"“{word}” is wanted here, not {Here.Spoken}.");
    }

    public int WholeNumber(int most)
    {
        var token = Take();
        return token.Kind == TokenKind.Number && int.TryParse(token.Text, NumberStyles.None, CultureInfo.InvariantCulture, out var number) && number <= most ? number
            : throw new ExpressionFaultException(token.At, $"A whole number from 0 to {most} is wanted here, not {token.Spoken}.");
    }
}
