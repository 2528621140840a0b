using System.Text.RegularExpressions;

namespace Daxlin.Core.Posting;

/// <summary>Makes text harmless that a spreadsheet would run as a formula.</summary>
/// <remarks>
/// Vendors write what they like into a description; "=HYPERLINK(…)" must stay text. Such a cell gets an apostrophe in
/// front, as spreadsheets themselves mark text. Negative amounts begin with a minus too, but are plain numbers and stay.
/// A file may be opened with another delimiter than it was written with, so that "rope;=cmd" becomes two cells: what
/// follows a semicolon, a tab or a bar is made harmless in the same way.
/// </remarks>
public static partial class HarmlessCell
{
    public static string Of(string text)
    {
        var inside = BehindDelimiter().Replace(text, "'");
        return inside.Length > 0 && inside[0] is '=' or '+' or '-' or '@' or '\t' or '\r' or '\n' && !IsPlainNumber(inside) ? "'" + inside : inside;
    }

    /// <summary>The text that <see cref="Of"/> made harmless: the apostrophe goes again that keeps a formula from running. Others stay: "'t Anker".</summary>
    public static string Back(string cell) => cell.Length > 1 && cell[0] == '\'' && Of(cell[1..]) == cell ? cell[1..] : cell;

    /// <summary>Where a formula would begin behind another delimiter.</summary>
    [GeneratedRegex(@"(?<=[;|\t]\s*)(?=[=+@]|-(?!\d))", RegexOptions.CultureInvariant)]
    private static partial Regex BehindDelimiter();

    private static bool IsPlainNumber(string text) => text.Length > 1 && text[0] is '-'
        && char.IsAsciiDigit(text[1]) && text.Skip(1).All(c => char.IsAsciiDigit(c) || c == '.');
}
