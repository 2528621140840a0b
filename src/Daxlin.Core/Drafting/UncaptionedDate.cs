using System.Collections.Immutable;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Daxlin.Core.Capture;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Drafting;

/// <summary>An invoice's date that no caption names: "Facture FA26-9988 du 13/06/2026", or a line "Port Ellery, 14 March 2026".</summary>
internal static partial class UncaptionedDate
{
    /// <summary>A rule that finds it by the word before it, or by being the only date that is left; null if there is none.</summary>
    /// <param name="numbers">The rules that find the invoice's number; its date most often stands behind it.</param>
    /// <param name="dueDates">The rules that find the due date, which is another one.</param>
    public static JsonObject? Of(IReadOnlyList<Sample> samples, Habits reads, ImmutableArray<JsonObject> numbers, ImmutableArray<JsonObject> dueDates)
    {
        var rules = BehindNumber(samples, reads, numbers).Concat(Alone(samples, reads, dueDates)).Select(rule => FieldProbe.Typed(rule, TradeNames.InvoiceDate)).ToList();
        var values = FieldProbe.Try(samples, reads, rules);
        return rules.Where((_, index) => values[index].All(value => value is not null)).FirstOrDefault();
    }

    private static IEnumerable<JsonObject> BehindNumber(IReadOnlyList<Sample> samples, Habits reads, ImmutableArray<JsonObject> numbers)
    {
        if (numbers.IsEmpty || FieldProbe.Try(samples, reads, [numbers[0]])[0][0] is not { Trace.Places: [var place, ..] } number)
            yield break;
        var line = samples[0].Pages.SelectMany(page => page.Lines.Where(_ => page.Number == place.Page))
            .FirstOrDefault(line => line.Box.SharedHeight(place.Box) > 0 && line.Text.Contains(number.Trace.Raw, StringComparison.Ordinal));
        if (line is null)
            yield break;
        var rest = line.Text[(line.Text.IndexOf(number.Trace.Raw, StringComparison.Ordinal) + number.Trace.Raw.Length)..];
        // The word alone may stand elsewhere; behind the number it is the date's.
        if (Dated().Match(rest) is { Success: true } dated)
            yield return Matching($@"\d\W* {FormPattern.Literally(dated.Groups["word"].Value)} ?({FormOf(dated.Groups["date"].Value)})(?!\w)");
    }

    private static IEnumerable<JsonObject> Alone(IReadOnlyList<Sample> samples, Habits reads, ImmutableArray<JsonObject> dueDates)
    {
        ImmutableArray<CapturedValue?> due = dueDates.IsEmpty ? [.. samples.Select(_ => (CapturedValue?)null)] : FieldProbe.Try(samples, reads, [dueDates[0]])[0];
        var left = samples.Select((sample, index) => sample.Lines.SelectMany(line => Date().Matches(line.Text)).Select(match => match.Value)
            .Where(text => DateReader.Read(text, reads.Dates) is { IsGood: true } && text != due[index]?.Trace.Raw).Distinct().ToList()).ToList();
        if (left.TrueForAll(dates => dates.Count == 1))
            yield return Matching($@"(?<![\w.])({FormOf(left[0][0])})(?!\w)");
    }

    private static JsonObject Matching(string pattern) => new() { ["where"] = new JsonObject { ["matching"] = pattern, ["occurrence"] = "first" } };

    /// <summary>A day may have one figure or two, a month any name.</summary>
    private static string FormOf(string date) =>
        Parts().Replace(date, part => !char.IsAsciiDigit(part.Value[0]) ? part.Value.Any(char.IsLetter) ? @"\p{L}+" : FormPattern.Literally(part.Value)
            : part.Length <= 2 ? @"\d{1,2}" : $@"\d{{{part.Length}}}");

    private const string AnyDate = @"\d{1,4}[./-]\d{1,2}[./-]\d{2,4}|\d{1,2}\.? \p{L}+\.?,? \d{4}|\p{L}+ \d{1,2}, \d{4}";

    [GeneratedRegex($@"(?<![\w.])(?:{AnyDate})(?!\w)")]
    private static partial Regex Date();

    [GeneratedRegex($@"^\W*(?<word>\p{{L}}[\p{{L}}.]*(?: \p{{L}}+)?) ?(?<date>{AnyDate})(?!\w)")]
    private static partial Regex Dated();

    [GeneratedRegex(@"\d+|\p{L}+|[^\d\p{L}]+")]
    private static partial Regex Parts();
}
