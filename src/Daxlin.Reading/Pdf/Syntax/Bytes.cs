namespace Daxlin.Reading.Pdf.Syntax;

/// <summary>Kinds of bytes (ISO 32000-2, 7.2.3).</summary>
internal static class Bytes
{
    public static bool IsBlank(byte value) => value is 0 or 9 or 10 or 12 or 13 or 32;

    public static bool IsDelimiter(byte value) => value is (byte)'(' or (byte)')' or (byte)'<' or (byte)'>' or (byte)'[' or (byte)']' or (byte)'{' or (byte)'}' or (byte)'/' or (byte)'%';

    public static bool IsRegular(byte value) => !IsBlank(value) && !IsDelimiter(value);

    /// <returns>-1 for what is no hexadecimal digit.</returns>
    public static int HexValue(byte digit) => digit switch
    {
        >= (byte)'0' and <= (byte)'9' => digit - '0',
        >= (byte)'a' and <= (byte)'f' => digit - 'a' + 10,
        >= (byte)'A' and <= (byte)'F' => digit - 'A' + 10,
        _ => -1,
    };
}
