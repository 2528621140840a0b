using System.Text;
using Daxlin.Reading.Pdf.Syntax;

namespace Daxlin.Reading.Pdf.Fonts.Programs;

/// <summary>Reads the encoding of a Type 1 program, which stands in plain text before its charstrings: <c>dup 53 /five put</c>.</summary>
internal static class Type1Reader
{
    private static readonly Keyword Put = Keyword.Of("put");
    private static readonly Keyword Locked = Keyword.Of("eexec");

    public static FontProgram Read(ReadOnlySpan<byte> font)
    {
        var program = new FontProgram();
        var operands = new Operands();
        var start = font.IndexOf("/Encoding"u8);
        if (start < 0)
            return program;
        var lexer = new Lexer(font[start..], operands);
        while (lexer.Next(out var word) && word != Locked)
        {
            if (word == Put && operands.Count >= 2 && operands.All[^1].Kind == OperandKind.Name && operands.All[^2].Kind == OperandKind.Number)
                program.BuiltIn[(int)operands.Number(1)] = Encoding.Latin1.GetString(operands.BytesOf(operands.All[^1], lexer.Content));
        }
        return program;
    }
}
