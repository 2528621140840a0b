namespace Daxlin.Reading.Pdf.Syntax;

/// <summary>What stands before an operator. Arrays and dictionaries are told by where they start and end, so that nesting costs nothing.</summary>
/// <param name="Number">Of a number; 0 for anything else.</param>
/// <param name="Start">Where the bytes of a name or text begin.</param>
/// <param name="Length">In bytes.</param>
/// <param name="IsUnpacked">Says that its bytes stand apart, since the content writes them with escapes or as hexadecimals.</param>
internal readonly record struct Operand(OperandKind Kind, double Number, int Start, int Length, bool IsUnpacked);
