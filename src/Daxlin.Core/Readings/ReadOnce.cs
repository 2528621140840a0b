using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.Capture;
using Daxlin.Core.Checks;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Readings;

/// <summary>Tells of values that only one recogniser read, where nothing else proves them.</summary>
/// <remarks>Figures within sums that hold, and account numbers whose check digits come out, are proved. Words of descriptions are read once, unless there is a figure in them: nothing is paid by them.</remarks>
internal static class ReadOnce
{
    public const string Code = "reading-single";

    public static IEnumerable<Finding> Of(ImmutableArray<Page> pages, CapturedInvoice captured)
    {
        var once = pages.Where(page => page.IsRecognised).ToDictionary(page => page.Number, page => page.Words.Where(IsOpen).Select(word => page.AsSeen(word.Box)).ToList());
        var tied = InvoiceChecks.TiesOf(captured).Where(tie => tie.Holds).SelectMany(tie => tie.Members).ToHashSet();
        foreach (var (name, value) in captured.AllValues)
        {
            if (tied.Contains(name) || !IsAsked(name, value) || captured.Findings.Any(finding => finding.Code == ReadingDoubt.Code && finding.About.Contains(name)))
                continue;
            if (value.Trace.Places.FirstOrDefault(place => once.GetValueOrDefault(place.Page)?.Exists(place.Box.HoldsCenterOf) == true) is { Page: > 0 } place)
            {
                yield return Finding.Hold(
                    Code, string.Create(CultureInfo.InvariantCulture, $"{ValueNames.SpokenFirst(name)}: {ReadingDoubt.Shown(value, captured.Template.Reads.Currency)} on page {place.Page} was not read alike by two recognisers. Look at the print, and accept this if it says so."), name);
            }
        }
    }

    /// <summary>Read by one, and by the other not at all. A word of letters alone that one recogniser is sure of needs no second reading: no word is another by a letter, as a figure is, but for the shortest.</summary>
    private static bool IsOpen(Word word) => word.Reading is { } reading && word.Text.Any(char.IsLetterOrDigit)
        && (!reading.IsTwice || reading.Others.Any(other => !other.Any(char.IsLetterOrDigit)))
        && (word.Text.Length <= ShortWord || word.Text.Any(char.IsAsciiDigit) || !word.Text.Any(char.IsLower));

    /// <summary>Units and codes: "pc" may be "pe".</summary>
    private const int ShortWord = 3;

    private static bool IsAsked(string name, CapturedValue value) => value.Kind switch
    {
        ValueKind.Iban => false,
        ValueKind.Text => !name.Contains('[', StringComparison.Ordinal) ? name != TradeNames.VendorName : value.Value.Length <= ShortWord || value.Value.Any(char.IsAsciiDigit) || name.EndsWith(".itemCode", StringComparison.Ordinal),
        _ => true,
    };
}
