namespace Daxlin.Reading.Pdf.Syntax;

internal enum OperandKind : byte
{
    Number,
    Name,
    Text,
    ArrayStart,
    ArrayEnd,
    DictionaryStart,
    DictionaryEnd,

    /// <summary>True, false, null, or what is none of the above.</summary>
    Other,
}
