using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.Capture;
using Daxlin.Core.Checks;
using Daxlin.Core.Pages;

namespace Daxlin.Core.Readings;

/// <summary>Tells of ink on a scan that nobody has read where it may be part of what was captured: under a stamp, a pen's stroke, a stain, words vanish without a trace.</summary>
/// <remarks>
/// Ink beside a value of the header, or over it, may be the rest of it; ink between the first row of a list and the last may be of a row or be one. What stands elsewhere,
/// a logo or a signature at the foot, is nobody's.
/// </remarks>
/// <example>Row 3: ink at “Rope 8 mm” on page 1 could not be read.</example>
internal static class UnreadPrint
{
    public const string Code = "ink-unread";

    /// <summary>Ink nearer than this part of the type's size to a value may be part of it; words stand as far apart.</summary>
    private const double Near = 0.5;

    public static IEnumerable<Finding> Of(ImmutableArray<Page> pages, CapturedInvoice captured)
    {
        foreach (var page in pages.Where(page => !page.Unread.IsEmpty))
        {
            var left = page.Unread.ToList();
            var values = captured.AllValues.SelectMany(one => one.Value.Trace.Places.Where(place => place.Page == page.Number).Select(place => (one.Name, one.Value, Box: page.AsRead(place.Box)))).ToList();
            foreach (var (name, value, box) in values)
            {
                if (left.RemoveAll(ink => IsNear(ink, box)) > 0)
                {
                    yield return Finding.Hold(
                        Code, string.Create(CultureInfo.InvariantCulture, $"{ValueNames.SpokenFirst(name)}: there is ink beside or over {ReadingDoubt.Shown(value, captured.Template.Reads.Currency)} on page {page.Number} that could not be read. Look at the print and enter what it says, or accept this if it says so."), name);
                }
            }
            foreach (var list in values.Where(one => ValueNames.Parse(one.Name)?.List is not null).ToLookup(one => ValueNames.Parse(one.Name)!.Value.List!))
            {
                var rows = Box.Around(list.Select(one => one.Box));
                if (left.RemoveAll(rows.HoldsCenterOf) > 0)
                {
                    yield return Finding.Hold(
                        Code, string.Create(CultureInfo.InvariantCulture, $"Among the rows of {list.Key} on page {page.Number} there is ink that could not be read, beside what was captured. Look at the print and enter what is missing, or accept this if nothing is."), list.Key);
                }
            }
        }
    }

    private static bool IsNear(Box ink, Box value) =>
        ink.SharedHeight(value) > 0.2 * Math.Min(ink.Height, value.Height) && ink.Left < value.Right + (Near * value.Height) && ink.Right > value.Left - (Near * value.Height);
}
