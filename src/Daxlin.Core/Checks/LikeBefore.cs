using System.Globalization;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Checks;

/// <summary>Tells whether an invoice is one that was taken in before although its number is another.</summary>
/// <remarks>
/// A misread or mistyped number makes another invoice of the same one. Of the same vendor, currency and total it is like it if
/// the date is the same, too; or if the numbers are one slip apart. A slip from one figure to another is none where the later
/// date has the higher number: a yearly charge that comes as 1001 and then as 1002 is two invoices.
/// </remarks>
public static class LikeBefore
{
    /// <summary>The code of its finding.</summary>
    public const string Code = "like-before";

    /// <summary>Invoices of the same key have the same vendor, currency and total, and are of one kind. Empty if that is not known.</summary>
    /// <param name="vendor">Its key.</param>
    public static string Key(string vendor, string currency, decimal? total, bool isCreditNote) => vendor.Length == 0 || total is null or 0 ? ""
        : string.Create(CultureInfo.InvariantCulture, $"{SeenBefore.Squash(vendor)}|{currency}|{total.Value:0.##########}|{(isCreditNote ? "credit" : "invoice")}");

    /// <summary>Says that two invoices of one <see cref="Key"/> may be the same.</summary>
    public static bool AreAlike(string number, DateOnly? date, string other, DateOnly? otherDate)
    {
        if (date is not null && date == otherDate)
            return true;
        var (a, b) = (SeenBefore.Squash(number), SeenBefore.Squash(other));
        if (a == b || !IsOneSlip(a, b))
            return false;
        return !(IsOneFigure(a, b) && date is { } day && otherDate is { } otherDay && Math.Sign(day.CompareTo(otherDay)) == Math.Sign(string.CompareOrdinal(a, b)));
    }

    /// <param name="day">That of both; empty if they have it not in common, but nearly the number.</param>
    /// <param name="place">How the other one is named: <c>invoice 12 in the batch March (approved)</c>.</param>
    public static Finding ToFinding(string vendor, string number, string amount, string day, string other, string place) => Finding.Hold(
        Code,
        $"{vendor} sent {amount} {(day.Length > 0 ? $"of {day}" : "under nearly the same number")} before as {other}: {place}; here the number is {number}. One of the two numbers may be misread, or the same was billed twice.",
        TradeNames.InvoiceNumber, TradeNames.Total);

    /// <summary>One character more or less, another one in its place, or two neighbours swapped.</summary>
    private static bool IsOneSlip(string a, string b)
    {
        if (Math.Abs(a.Length - b.Length) > 1)
            return false;
        var start = 0;
        while (start < a.Length && start < b.Length && a[start] == b[start])
            start++;
        var (restA, restB) = (a[start..], b[start..]);
        return restA.Length == restB.Length
            ? restA.Length > 0 && (restA[1..] == restB[1..] || (restA.Length > 1 && restA[0] == restB[1] && restA[1] == restB[0] && restA[2..] == restB[2..]))
            : restA.Length > restB.Length ? restA[1..] == restB : restB[1..] == restA;
    }

    private static bool IsOneFigure(string a, string b) =>
        a.Length == b.Length && a.Zip(b).Where(pair => pair.First != pair.Second).ToList() is [var (first, second)] && char.IsAsciiDigit(first) && char.IsAsciiDigit(second);
}
