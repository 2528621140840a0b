using System.Globalization;

namespace Daxlin.Core.Checks;

/// <summary>Tells whether an invoice was taken in before, so that none is posted twice.</summary>
public static class SeenBefore
{
    /// <summary>The code of its finding.</summary>
    public const string Code = "seen-before";

    /// <summary>The code of its finding if the very same file came before.</summary>
    public const string SameFile = "same-file";

    /// <summary>Two numbers are the same if their letters and figures are: "RE-2026/014" and "re 2026 014".</summary>
    public static string Key(string vendor, string invoiceNumber) =>
        Squash(vendor) + "|" + Squash(invoiceNumber);

    /// <param name="invoiceNumber">As printed on both.</param>
    /// <param name="other">How the other one is named: <c>invoice 12 in the batch March (approved)</c>.</param>
    public static Finding ToFinding(string vendor, string invoiceNumber, string other) => Finding.Hold(
        Code, $"{vendor} sent the invoice number {invoiceNumber} before: {other}.", Templates.TradeNames.InvoiceNumber);

    /// <summary>Letters and figures only, in capitals and in their plain form.</summary>
    public static string Squash(string text) => string.Concat(text.Where(char.IsLetterOrDigit).Select(Plain));

    /// <summary>A letter or figure in its plain form: digits of any script and letters as wide as a Chinese one are those that are meant.</summary>
    /// <example>"٤٧１" is 471.</example>
    private static char Plain(char c) => CharUnicodeInfo.GetDecimalDigitValue(c) is var digit and >= 0 ? (char)('0' + digit)
        : char.ToUpperInvariant(c is >= FirstWide and <= LastWide ? (char)(c - FirstWide + '!') : c);

    private const char FirstWide = '\uFF01';
    private const char LastWide = '\uFF5E';
}
