namespace Daxlin.Reading.Pdf.Syntax;

/// <summary>Reads operands and operators out of a content stream, or a character map, byte by byte (ISO 32000-2, 7.2 to 7.3 and 7.8.2).</summary>
/// <remarks>
/// Makes no object for anything it reads. What is damaged is passed over as far as it can be: an unclosed text ends with the content,
/// a strange byte is left out, a number ends where its digits do (<c>4.5.6</c> is 4.5).
/// </remarks>
internal ref struct Lexer(ReadOnlySpan<byte> content, Operands operands)
{
    private static readonly double[] PowersOfTen = [1, 1e1, 1e2, 1e3, 1e4, 1e5, 1e6, 1e7, 1e8, 1e9, 1e10, 1e11, 1e12, 1e13, 1e14, 1e15];

    private readonly ReadOnlySpan<byte> content = content;
    private int at;

    /// <summary>Where it stands, in bytes from the start.</summary>
    public readonly int At => at;

    public readonly ReadOnlySpan<byte> Content => content;

    /// <summary>Reads on to the next operator; its operands are in the list.</summary>
    /// <returns>False at the end of the content.</returns>
    public bool Next(out Keyword found)
    {
        operands.Clear();
        while (at < content.Length)
        {
            var first = content[at];
            if (Bytes.IsBlank(first))
                at++;
            else if (first is >= (byte)'0' and <= (byte)'9' or (byte)'-' or (byte)'.' or (byte)'+')
                ReadNumber();
            else if (Bytes.IsRegular(first))
            {
                var start = at;
                while (++at < content.Length && Bytes.IsRegular(content[at]))
                {
                }
                found = Keyword.Of(content[start..at]);
                if (!found.IsValue)
                    return true;
                operands.Add(new Operand(OperandKind.Other, 0, start, at - start, false));
            }
            else
                ReadDelimited(first);
        }
        found = default;
        return false;
    }

    private void ReadDelimited(byte first)
    {
        switch (first)
        {
            case (byte)'(':
                ReadText();
                break;
            case (byte)'/':
                ReadName();
                break;
            case (byte)'[':
                AddMark(OperandKind.ArrayStart, 1);
                break;
            case (byte)']':
                AddMark(OperandKind.ArrayEnd, 1);
                break;
            case (byte)'<' when at + 1 < content.Length && content[at + 1] == '<':
                AddMark(OperandKind.DictionaryStart, 2);
                break;
            case (byte)'>' when at + 1 < content.Length && content[at + 1] == '>':
                AddMark(OperandKind.DictionaryEnd, 2);
                break;
            case (byte)'<':
                ReadHexadecimals();
                break;
            case (byte)'%':
                while (at < content.Length && content[at] is not ((byte)'\r' or (byte)'\n'))
                    at++;
                break;
            default:
                at++;
                break;
        }
    }

    private void AddMark(OperandKind kind, int length)
    {
        operands.Add(new Operand(kind, 0, at, length, false));
        at += length;
    }

    private void ReadNumber()
    {
        var start = at;
        var (isNegative, digits, decimals, isAfterPoint) = (false, 0L, 0, false);
        for (; at < content.Length && content[at] is (byte)'-' or (byte)'+'; at++)
            isNegative = content[at] == '-';
        for (; at < content.Length; at++)
        {
            var next = content[at];
            if (next is >= (byte)'0' and <= (byte)'9')
            {
                // What a number has beyond fifteen digits is less than any page shows.
                if (digits < 100_000_000_000_000)
                {
                    digits = (digits * 10) + (next - '0');
                    decimals += isAfterPoint ? 1 : 0;
                }
                else if (!isAfterPoint)
                    decimals--;
            }
            else if (next == '.' && !isAfterPoint)
                isAfterPoint = true;
            else
                break;
        }
        // The rest of what is no number: 12-3, 1.2.3.
        while (at < content.Length && content[at] is (>= (byte)'0' and <= (byte)'9') or (byte)'-' or (byte)'.')
            at++;
        var value = decimals >= 0 ? digits / PowersOfTen[decimals] : digits * Math.Pow(10, -decimals);
        operands.Add(new Operand(OperandKind.Number, isNegative ? -value : value, start, at - start, false));
    }

    private void ReadName()
    {
        var start = ++at;
        var isEscaped = false;
        for (; at < content.Length && Bytes.IsRegular(content[at]); at++)
            isEscaped |= content[at] == '#';
        if (!isEscaped)
        {
            operands.Add(new Operand(OperandKind.Name, 0, start, at - start, false));
            return;
        }
        var first = operands.Unpacked;
        for (var index = start; index < at; index++)
        {
            if (content[index] == '#' && index + 2 < at && Bytes.HexValue(content[index + 1]) is >= 0 and var high && Bytes.HexValue(content[index + 2]) is >= 0 and var low)
            {
                operands.Unpack((byte)((high << 4) | low));
                index += 2;
            }
            else
                operands.Unpack(content[index]);
        }
        operands.Add(new Operand(OperandKind.Name, 0, first, operands.Unpacked - first, true));
    }

    private void ReadText()
    {
        var start = ++at;
        var depth = 1;
        for (; at < content.Length; at++)
        {
            var next = content[at];
            if (next is (byte)'\\' or (byte)'\r')
            {
                ReadEscapedText(start, depth);
                return;
            }
            depth += next == '(' ? 1 : next == ')' ? -1 : 0;
            if (depth == 0)
                break;
        }
        operands.Add(new Operand(OperandKind.Text, 0, start, at - start, false));
        at++;
    }

    /// <summary>Reads on at the first escape of a text.</summary>
    private void ReadEscapedText(int start, int depth)
    {
        var first = operands.Unpacked;
        foreach (var plain in content[start..at])
            operands.Unpack(plain);
        for (; at < content.Length; at++)
        {
            var next = content[at];
            if (next == '\\')
                ReadEscape();
            else if (next == '\r')
            {
                // An end of line is one line feed, however it is written.
                operands.Unpack((byte)'\n');
                at += at + 1 < content.Length && content[at + 1] == '\n' ? 1 : 0;
            }
            else
            {
                depth += next == '(' ? 1 : next == ')' ? -1 : 0;
                if (depth == 0)
                    break;
                operands.Unpack(next);
            }
        }
        operands.Add(new Operand(OperandKind.Text, 0, first, operands.Unpacked - first, true));
        at++;
    }

    /// <summary>Reads what follows a backslash, and stays on its last byte.</summary>
    private void ReadEscape()
    {
        if (++at >= content.Length)
            return;
        var next = content[at];
        switch (next)
        {
            case (byte)'n':
                operands.Unpack((byte)'\n');
                break;
            case (byte)'r':
                operands.Unpack((byte)'\r');
                break;
            case (byte)'t':
                operands.Unpack((byte)'\t');
                break;
            case (byte)'b':
                operands.Unpack((byte)'\b');
                break;
            case (byte)'f':
                operands.Unpack((byte)'\f');
                break;
            case (byte)'\n':
                break;
            case (byte)'\r':
                at += at + 1 < content.Length && content[at + 1] == '\n' ? 1 : 0;
                break;
            case >= (byte)'0' and <= (byte)'7':
                var value = next - '0';
                for (var digits = 1; digits < 3 && at + 1 < content.Length && content[at + 1] is >= (byte)'0' and <= (byte)'7'; digits++)
                    value = (value << 3) | (content[++at] - '0');
                operands.Unpack((byte)value);
                break;
            default:
                operands.Unpack(next);
                break;
        }
    }

    private void ReadHexadecimals()
    {
        var first = operands.Unpacked;
        var half = -1;
        for (at++; at < content.Length && content[at] != '>'; at++)
        {
            if (Bytes.HexValue(content[at]) is not (>= 0 and var value))
                continue;
            if (half < 0)
            {
                half = value;
                continue;
            }
            operands.Unpack((byte)((half << 4) | value));
            half = -1;
        }
        if (half >= 0)
            operands.Unpack((byte)(half << 4));
        at++;
        operands.Add(new Operand(OperandKind.Text, 0, first, operands.Unpacked - first, true));
    }

    /// <summary>Passes over the bytes of a picture that stands in the content, after its ID operator (ISO 32000-2, 8.9.7).</summary>
    /// <param name="length">What its entries say that it has; null where it is packed.</param>
    /// <returns>The bytes.</returns>
    public ReadOnlySpan<byte> PassPicture(int? length)
    {
        // One blank parts the operator from the bytes.
        var first = at = Math.Min(content.Length, at + 1);
        if (length is { } told && told <= content.Length - at && EndsPicture(at + told) is { } after)
        {
            at = after;
            return content.Slice(first, told);
        }
        for (var index = at; index < content.Length; index++)
        {
            if (content[index] == 'E' && (index == at || Bytes.IsBlank(content[index - 1])) && EndsPicture(index) is { } end && IsContent(end))
            {
                at = end;
                return content[first..index];
            }
        }
        at = content.Length;
        return content[first..];
    }

    /// <summary>Where a picture's EI operator ends, if it stands there.</summary>
    private readonly int? EndsPicture(int from)
    {
        while (from < content.Length && Bytes.IsBlank(content[from]))
            from++;
        return from + 2 <= content.Length && content[from] == 'E' && content[from + 1] == 'I' && (from + 2 == content.Length || !Bytes.IsRegular(content[from + 2])) ? from + 2 : null;
    }

    /// <summary>Says that what follows looks like content rather than like a picture's bytes, where the letters EI can stand by chance.</summary>
    private readonly bool IsContent(int from)
    {
        foreach (var next in content[from..Math.Min(content.Length, from + 16)])
        {
            if (next is not (9 or 10 or 12 or 13 or (>= 32 and < 127)))
                return false;
        }
        return true;
    }
}
