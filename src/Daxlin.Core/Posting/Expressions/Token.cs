namespace Daxlin.Core.Posting.Expressions;

internal enum TokenKind
{
    Word,
    Number,
    Text,
    Sign,
    End,
}

/// <summary>A part of an expression's text.</summary>
/// <param name="Text">A text without its quotes; else as written.</param>
/// <param name="At">Its first character, from 1.</param>
internal readonly record struct Token(TokenKind Kind, string Text, int At)
{
    public bool Is(string word) => Kind is TokenKind.Word or TokenKind.Sign && Text == word;

    /// <summary>As a sentence names it.</summary>
    public string Spoken => Kind == TokenKind.End ? "the end" : $"“{Text}”";
}
