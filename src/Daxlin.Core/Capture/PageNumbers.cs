using System.Collections.Immutable;
using System.Globalization;
using System.Text.RegularExpressions;
using Daxlin.Core.Checks;
using Daxlin.Core.Pages;

namespace Daxlin.Core.Capture;

/// <summary>Tells from printed page numbers that pages of an invoice are missing.</summary>
/// <remarks>
/// "Page 2 of 3" on the last page says that there is one more. Said only where all numbered pages agree on how many there are
/// and none has another's number: an attachment with pages of its own is no part of the count.
/// </remarks>
internal static partial class PageNumbers
{
    public static IEnumerable<Finding> Missing(ImmutableArray<Page> pages)
    {
        var numbered = pages.Select(NumberOn).OfType<(int Number, int Of)>().ToList();
        if (numbered.Count == 0 || numbered.Select(one => one.Of).Distinct().Count() > 1 || numbered.Select(one => one.Number).Distinct().Count() < numbered.Count)
            yield break;
        var of = numbered[0].Of;
        // A page without its number may be one of those that seem to be missing.
        if (of <= pages.Length || numbered.Exists(one => one.Number > of || one.Number < 1))
            yield break;
        var missing = Enumerable.Range(1, of).Except(numbered.Select(one => one.Number)).ToList();
        yield return Finding.Hold(
            "pages-missing",
            $"The pages are numbered up to {Text(of)}, and there {(pages.Length == 1 ? "is 1" : $"are {Text(pages.Length)}")}: "
            + $"{(missing.Count == 1 ? "page" : "pages")} {string.Join(", ", missing.Take(5).Select(Text))}{(missing.Count > 5 ? " …" : "")} {(missing.Count == 1 ? "is" : "are")} not in the file.",
            "pages");
    }

    /// <summary>The number that a page says it has, and of how many; null if it says none, or several.</summary>
    private static (int Number, int Of)? NumberOn(Page page)
    {
        (int, int)? found = null;
        foreach (var line in page.Lines)
        {
            foreach (Match match in Numbered().Matches(line.Text))
            {
                var said = (Number(match, "page"), Number(match, "of"));
                if (found is not null && found != said)
                    return null;
                found = said;
            }
        }
        return found;
    }

    private static int Number(Match match, string group) => int.Parse(match.Groups[group].ValueSpan, CultureInfo.InvariantCulture);

    private static string Text(int number) => number.ToString(CultureInfo.InvariantCulture);

    [GeneratedRegex(
        @"(?<![\p{L}])(?:page|seite|pagina|página|blad|side|sida|sivu|blatt)\s*(?:no\.?|nr\.?)?\s*:?\s*(?<page>\d{1,3})\s*(?:of|von|van|de|sur|di|av|af|/|-)\s*(?<of>\d{1,3})(?!\d|[.,/]\d)",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant, 2000)]
    private static partial Regex Numbered();
}
