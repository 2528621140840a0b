using System.Collections.Immutable;
using System.Text.RegularExpressions;
using Daxlin.Core.Pages;
using Daxlin.Core.Values;

namespace Daxlin.Core.Drafting;

/// <summary>Finds out how a vendor writes: the currency, the order of dates, the marks in numbers.</summary>
/// <remarks>
/// The figures themselves tell most of it: in "1.057,17" the last mark is the decimal one; in "1,057" alone nothing tells, so
/// other figures must. A date such as 15/01/2026 settles the order for 03/04/2026.
/// </remarks>
internal static partial class HabitsDraft
{
    private static readonly ImmutableArray<string> EuroCountries =
        [.. "AT BE CY DE EE ES FI FR GR EL HR IE IT LT LU LV MT NL PT SI SK MC SM".Split(' ')];

    private static readonly ImmutableDictionary<string, string> CountryCurrencies = new Dictionary<string, string>
    {
        ["GB"] = "GBP",
        ["SE"] = "SEK",
        ["DK"] = "DKK",
        ["NO"] = "NOK",
        ["CH"] = "CHF",
        ["LI"] = "CHF",
        ["PL"] = "PLN",
        ["CZ"] = "CZK",
        ["HU"] = "HUF",
        ["RO"] = "RON",
        ["BG"] = "BGN",
        ["IS"] = "ISK",
        ["KW"] = "KWD",
        ["BH"] = "BHD",
        ["SA"] = "SAR",
        ["AE"] = "AED",
        ["TR"] = "TRY",
        ["QA"] = "QAR",
    }.ToImmutableDictionary();

    /// <summary>For values that are read alike whoever writes them: texts, account numbers.</summary>
    public static Habits OfNone { get; } = new(Currency.Find("EUR")!, DateOrder.DayFirst, '.', ",");

    public static (Habits Habits, ImmutableArray<DraftNote> Notes) Of(IReadOnlyList<Sample> samples)
    {
        var cells = samples.SelectMany(sample => sample.Lines).SelectMany(line => line.Cells).Select(cell => cell.Text).ToList();
        var (currency, currencySays) = CurrencyOf(samples);
        var (mark, grouping, marksSay) = MarksOf(cells, currency);
        var (dates, datesSay) = DatesOf(cells, currency);
        return (
            new Habits(currency, dates, mark, grouping),
            [
                new DraftNote("reads.currency", Certainty.Guess, $"{currency.Code}: {currencySays}"),
                new DraftNote("reads.decimal", marksSay.Length > 0 ? Certainty.Certain : Certainty.Guess, marksSay.Length > 0 ? $"“{mark}” as in {marksSay}" : $"“{mark}”, which no figure settles"),
                new DraftNote("reads.dates", datesSay.Length > 0 ? Certainty.Certain : Certainty.Guess, datesSay.Length > 0 ? $"{Spoken(dates)}, as in {datesSay}" : $"{Spoken(dates)}, which no date of the samples settles"),
            ]);
    }

    /// <summary>The word of the template document for an order.</summary>
    public static string Spoken(DateOrder order) => order switch
    {
        DateOrder.MonthFirst => "month-first",
        DateOrder.YearFirst => "year-first",
        _ => "day-first",
    };

    private static (Currency, string) CurrencyOf(IReadOnlyList<Sample> samples)
    {
        var votes = new Dictionary<string, (double Weight, double Best, string Says)>();
        void Vote(string code, double weight, string says) =>
            votes[code] = !votes.TryGetValue(code, out var before) ? (weight, weight, says)
                : (before.Weight + weight, Math.Max(before.Best, weight), weight > before.Best ? says : before.Says);
        foreach (var line in samples.SelectMany(sample => sample.Lines))
        {
            for (var index = 0; index < line.Words.Length; index++)
            {
                var text = line.Words[index].Text;
                var bare = text.Trim('.', ',', ':', ';', '(', ')');
                if (bare.Length == 3 && bare.All(char.IsAsciiLetterUpper) && Currency.Find(bare) is { } known)
                {
                    var byMoney = (index > 0 && IsMoney(line.Words[index - 1].Text)) || (index + 1 < line.Words.Length && IsMoney(line.Words[index + 1].Text));
                    // A code that is also a word ("ALL", "TOP") or a unit ("CUP") stands beside money or in no place that counts.
                    Vote(known.Code, byMoney || index == line.Words.Length - 1 ? 3 : 0.5, $"“{line.Text}”");
                }
                foreach (Match sign in Sign().Matches(text))
                {
                    var code = sign.Value switch { "€" => "EUR", "£" => "GBP", "¥" or "￥" => "JPY", "$" => "USD", "₹" => "INR", _ => "" };
                    if (code.Length > 0)
                        Vote(code, 2, $"“{text}”");
                }
                if (bare is "kr" or "Kr" && index > 0 && IsMoney(line.Words[index - 1].Text))
                    Vote("SEK", 1, $"“{line.Words[index - 1].Text} {text}”");
            }
            foreach (Match country in CountryOfNumber().Matches(line.Text))
            {
                var code = EuroCountries.Contains(country.Groups[1].Value) ? "EUR" : CountryCurrencies.GetValueOrDefault(country.Groups[1].Value, "");
                if (code.Length > 0)
                    Vote(code, 0.7, $"the account or tax number “{country.Value}…”");
            }
        }
        var best = votes.OrderByDescending(vote => vote.Value.Weight).FirstOrDefault();
        return best.Key is null ? (Currency.Find("EUR")!, "nothing on the samples names a currency") : (Currency.Find(best.Key)!, best.Value.Says);
    }

    private static bool IsMoney(string text) => Money().IsMatch(text);

    private static (char Mark, string Grouping, string Says) MarksOf(List<string> cells, Currency currency)
    {
        var (point, comma, says) = (0.0, 0.0, (Point: "", Comma: ""));
        var groups = new HashSet<char>();
        var loneGroups = new HashSet<char>();
        foreach (var cell in cells)
        {
            var text = DateLike().Replace(cell, " ");
            foreach (Match match in Figure().Matches(text))
            {
                var figure = match.Value;
                var marks = figure.Where(c => !char.IsAsciiDigit(c)).ToArray();
                if (marks.Length == 0)
                    continue;
                var last = figure.LastIndexOf(marks[^1]);
                var behind = figure.Length - last - 1;
                var isMixed = marks.Distinct().Count() > 1;
                // Decimal: the last of two kinds of marks; or not followed by three digits; or behind a lone zero.
                var isDecimal = marks[^1] is '.' or ',' && (isMixed || (marks.Length == 1 && (behind != 3 || figure.StartsWith('0') || currency.MinorDigits == 3)));
                if (isDecimal)
                {
                    var weight = isMixed ? 3 : behind == 2 ? 1 : 0.3;
                    if (marks[^1] == '.')
                        (point, says.Point) = (point + weight, says.Point.Length == 0 || isMixed ? figure : says.Point);
                    else
                        (comma, says.Comma) = (comma + weight, says.Comma.Length == 0 || isMixed ? figure : says.Comma);
                    groups.UnionWith(marks[..^1]);
                }
                else if (behind == 3)
                {
                    (marks.Length > 1 ? groups : loneGroups).UnionWith(marks);
                }
            }
        }
        var isComma = comma > point || (comma == point && loneGroups.Contains('.') && !loneGroups.Contains(','));
        var mark = isComma ? ',' : '.';
        var grouping = string.Concat(groups.Concat(loneGroups).Select(c => c == '’' ? '\'' : char.IsWhiteSpace(c) ? ' ' : c).Distinct().Where(c => c != mark && ".,' ".Contains(c, StringComparison.Ordinal)).Order());
        // A blank groups only where figures of more than one mark say so; else it parts columns.
        if (grouping.Contains(' ', StringComparison.Ordinal) && !groups.Any(char.IsWhiteSpace))
            grouping = grouping.Replace(" ", "", StringComparison.Ordinal);
        if (grouping.Length == 0)
            grouping = currency.Code == "CHF" ? "'" : isComma ? ". " : ",";
        return (mark, grouping, isComma ? says.Comma : says.Point);
    }

    private static (DateOrder, string) DatesOf(List<string> cells, Currency currency)
    {
        var (day, month, year, any) = ("", "", "", false);
        foreach (var match in cells.SelectMany(cell => FiguresDate().Matches(cell)))
        {
            var (first, second, third) = (match.Groups[1].Value, int.Parse(match.Groups[2].Value, System.Globalization.CultureInfo.InvariantCulture), match.Groups[3].Value);
            if (first.Length == 4)
            {
                year = match.Value;
                continue;
            }
            var number = int.Parse(first, System.Globalization.CultureInfo.InvariantCulture);
            if (third.Length is not (2 or 4) || number is 0 or > 31 || second is 0 or > 31)
                continue;
            any = true;
            if (number > 12 && second <= 12)
                day = match.Value;
            else if (second > 12 && number <= 12)
                month = match.Value;
        }
        if (day.Length > 0 && month.Length == 0)
            return (DateOrder.DayFirst, day);
        if (month.Length > 0 && day.Length == 0)
            return (DateOrder.MonthFirst, month);
        if (!any && year.Length > 0)
            return (DateOrder.YearFirst, year);
        return (currency.Code == "USD" ? DateOrder.MonthFirst : DateOrder.DayFirst, "");
    }

    [GeneratedRegex("[€£¥￥$₹]")]
    private static partial Regex Sign();

    [GeneratedRegex(@"^\D{0,3}\d[\d.,'’]*[.,'’]\d{2,3}\D{0,2}$")]
    private static partial Regex Money();

    [GeneratedRegex(@"\b([A-Z]{2}) ?\d{2}(?=[ 0-9A-Z])")]
    private static partial Regex CountryOfNumber();

    [GeneratedRegex(@"\d{1,4}[./-]\d{1,2}[./-]\d{1,4}")]
    private static partial Regex DateLike();

    [GeneratedRegex(@"(?<![\d./-])(\d{1,4})[./-](\d{1,2})[./-](\d{2,4})(?![\d./-]\d)")]
    private static partial Regex FiguresDate();

    [GeneratedRegex(@"(?<![\d.,A-Za-z/])\d{1,3}(?:[  ]\d{3})+,\d+(?!\d)|(?<![\d.,A-Za-z/-])\d+(?:[.,'’]\d+)+(?![\d/-])")]
    private static partial Regex Figure();
}
