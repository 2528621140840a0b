using System.Runtime.InteropServices;

namespace Daxlin.Reading.Pdf.Syntax;

/// <summary>The operands of one operator, in lists that are kept for the next.</summary>
internal sealed class Operands
{
    /// <summary>Operands of one operator; a line of text has some hundreds.</summary>
    private const int Most = 1_000_000;

    private readonly List<Operand> operands = [];
    private readonly List<byte> unpacked = [];

    public int Count => operands.Count;

    public ReadOnlySpan<Operand> All => CollectionsMarshal.AsSpan(operands);

    /// <summary>How many bytes are unpacked so far: where the next ones begin.</summary>
    public int Unpacked => unpacked.Count;

    public void Clear()
    {
        operands.Clear();
        unpacked.Clear();
    }

    public void Add(in Operand operand)
    {
        if (operands.Count >= Most)
            throw new UnreadableException("too-large", $"A page has an operation with more than {Most} operands, which no invoice needs; it was not read.");
        operands.Add(operand);
    }

    public void Unpack(byte value) => unpacked.Add(value);

    /// <summary>The bytes of a name or text.</summary>
    /// <param name="content">What it was read from.</param>
    public ReadOnlySpan<byte> BytesOf(in Operand operand, ReadOnlySpan<byte> content) =>
        (operand.IsUnpacked ? CollectionsMarshal.AsSpan(unpacked) : content).Slice(operand.Start, operand.Length);

    /// <summary>A number counted from the last operand; 0 if it is none, or missing.</summary>
    /// <param name="fromLast">0 for the last one.</param>
    public double Number(int fromLast) => fromLast < operands.Count ? operands[operands.Count - 1 - fromLast].Number : 0;

    /// <summary>Says that the last so many operands are numbers.</summary>
    public bool AreNumbers(int count)
    {
        if (operands.Count < count)
            return false;
        for (var index = operands.Count - count; index < operands.Count; index++)
        {
            if (operands[index].Kind != OperandKind.Number)
                return false;
        }
        return true;
    }
}
