namespace Daxlin.Core.Posting;

/// <summary>Makes text harmless that a spreadsheet would run as a formula.</summary>
/// <remarks>
/// Vendors write what they like into a description; "=HYPERLINK(…)" must stay text. Such a cell gets an apostrophe in
/// front, as spreadsheets themselves mark text. Negative amounts begin with a minus too, but are plain numbers and stay.
/// </remarks>
public static class HarmlessCell
{
    public static string Of(string text) =>
        text.Length > 0 && text[0] is '=' or '+' or '-' or '@' or '\t' or '\r' or '\n' && !IsPlainNumber(text) ? "'" + text : text;

    private static bool IsPlainNumber(string text) => text.Length > 1 && text[0] is '-'
        && char.IsAsciiDigit(text[1]) && text.Skip(1).All(c => char.IsAsciiDigit(c) || c == '.');
}
