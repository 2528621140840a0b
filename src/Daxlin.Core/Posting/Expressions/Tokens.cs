using System.Collections.Immutable;

namespace Daxlin.Core.Posting.Expressions;

/// <summary>Cuts an expression's text into its parts.</summary>
internal static class Tokens
{
    /// <exception cref="ExpressionFaultException">A text is not closed, or a character has no meaning here.</exception>
    public static ImmutableArray<Token> Of(string text)
    {
        var tokens = ImmutableArray.CreateBuilder<Token>();
        var at = 0;
        while (at < text.Length)
        {
            var start = at;
            var letter = text[at];
            if (char.IsWhiteSpace(letter))
            {
                at++;
            }
            else if (letter is '"' or '\'' or '“')
            {
                tokens.Add(new Token(TokenKind.Text, Quoted(text, ref at), start + 1));
            }
            else if (char.IsAsciiDigit(letter))
            {
                at = EndOf(text, at, c => char.IsAsciiDigit(c) || c == '.');
                tokens.Add(new Token(TokenKind.Number, text[start..at], start + 1));
            }
            else if (char.IsLetter(letter))
            {
                at = EndOf(text, at, c => char.IsLetterOrDigit(c) || c is '.' or '_');
                tokens.Add(new Token(TokenKind.Word, text[start..at], start + 1));
            }
            else if (at + 1 < text.Length && text.AsSpan(at, 2) is "<=" or ">=" or "<>")
            {
                at += 2;
                tokens.Add(new Token(TokenKind.Sign, text[start..at], start + 1));
            }
            else if (SettledSign(letter) is { } sign)
            {
                at++;
                tokens.Add(new Token(TokenKind.Sign, sign, start + 1));
            }
            else
            {
                throw new ExpressionFaultException(start + 1, $"“{letter}” has no meaning here.");
            }
        }
        tokens.Add(new Token(TokenKind.End, "", text.Length + 1));
        return tokens.ToImmutable();
    }

    private static string? SettledSign(char letter) => letter switch
    {
        '×' => "*",
        '÷' => "/",
        '−' => "-",
        '≤' => "<=",
        '≥' => ">=",
        '≠' => "<>",
        '+' or '-' or '*' or '/' or '&' or '(' or ')' or ',' or '=' or '<' or '>' => letter.ToString(),
        _ => null,
    };

    private static int EndOf(string text, int at, Func<char, bool> goesOn)
    {
        while (at < text.Length && goesOn(text[at]))
            at++;
        return at;
    }

    /// <summary>A text in quotes, of which two in a row stand for one.</summary>
    private static string Quoted(string text, ref int at)
    {
        var start = at;
        var close = text[at] == '“' ? '”' : text[at];
        at++;
        var inside = new System.Text.StringBuilder();
        while (at < text.Length)
        {
            if (text[at] != close)
                inside.Append(text[at++]);
            else if (at + 1 < text.Length && text[at + 1] == close)
                (inside, at) = (inside.Append(close), at + 2);
            else
            {
                at++;
                return inside.ToString();
            }
        }
        throw new ExpressionFaultException(start + 1, "The text that begins here is not closed by a quote.");
    }
}
