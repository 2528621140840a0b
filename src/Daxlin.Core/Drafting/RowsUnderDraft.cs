using System.Collections.Immutable;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Daxlin.Core.Capture;
using Daxlin.Core.Checks;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Drafting;

/// <summary>Finds lists under the rows: deliveries, readings, serial numbers.</summary>
/// <remarks>
/// Their lines repeat with other figures: "Meter 352 21280 to 21309", "Meter 509 12831 to 13510". What is the same in all of
/// them stays in the pattern, the figures are its values.
/// </remarks>
internal static partial class RowsUnderDraft
{
    /// <summary>A list has so many lines of one form at least, over all samples.</summary>
    private const int LeastLines = 2;

    private static readonly ImmutableArray<string> Folds = ["down", "around", "up"];

    /// <summary>So far right of the rows' left edge at least, in points.</summary>
    private const double Indent = 4;

    /// <summary>The lists that the lines which a plan cannot account for may be.</summary>
    public static IEnumerable<DraftWay> Options(ImmutableArray<Sample> samples)
    {
        yield return plan => WithForm(plan, samples, FormOfWords, addsUp: false);
        yield return plan => WithForm(plan, samples, FormOfEnd, addsUp: true);
    }

    private static DraftPlan WithForm(DraftPlan plan, ImmutableArray<Sample> samples, Func<string, string?> formOf, bool addsUp)
    {
        var lines = new HashSet<string>();
        // Whichever way the text folds, the capture itself says what is none of it.
        foreach (var fold in Folds)
            lines.UnionWith(DraftTrial.Take(plan with { Items = plan.Items! with { RowsUnder = null, Section = null, Fold = fold } }, samples).SelectMany(LinesUnderRows));
        // A label with a colon and a value is no text that wrapped: "Serial no: K6905".
        lines.UnionWith(DraftTrial.Take(plan with { Items = plan.Items! with { RowsUnder = null, Section = null, Fold = "" } }, samples)
            .SelectMany(LinesUnderRows).Where(line => LabelAndValue().IsMatch(line)));
        // Text that wraps alike in several rows has the same figures in each: "the yard's list of 12 January".
        var form = lines.Select(formOf).OfType<string>().GroupBy(one => one).Where(group => group.Count() >= LeastLines).MaxBy(group => group.Count())?.Key;
        if (form is null)
            return plan;
        var columns = new JsonObject();
        foreach (Match name in GroupName().Matches(form))
            columns[name.Groups[1].Value] = name.Groups[1].Value == TradeNames.Quantity ? new JsonObject { ["type"] = "number" } : new JsonObject();
        var list = new JsonObject { ["name"] = "details", ["matching"] = form, ["columns"] = columns };
        // What ends in a number may be text: "in tins of 5 l". A list of parts comes to the row's own quantity.
        if (addsUp)
            list["addUp"] = new JsonArray(TradeNames.Quantity);
        var with = plan with { Items = plan.Items! with { RowsUnder = list } };
        var ties = addsUp ? DraftTrial.Take(with, samples).SelectMany(invoice => invoice.Ties).OfType<RowsUnderAddUp>().ToList() : [];
        return addsUp && (ties.Count == 0 || ties.Exists(tie => !tie.Holds)) ? plan : with;
    }

    /// <summary>What stands between the rows of an invoice and below them; what stands above the first is a heading.</summary>
    private static IEnumerable<string> LinesUnderRows(CheckedInvoice invoice)
    {
        var left = invoice.Captured.LeftOut.Where(line => line.Why == LeftOutLine.NotAccountedFor).ToList();
        if (invoice.Captured.Lines is not [var first, ..] || first.Cells.SelectMany(cell => cell.Trace.Places).ToList() is not { Count: > 0 } places)
            return [];
        var (page, top) = (places.Min(place => place.Page), places.Min(place => place.Box.Top));
        var above = left.Where(line => line.Place.Page < page || (line.Place.Page == page && line.Place.Box.Bottom <= top)).Select(line => FormOfWords(line.Text)).ToHashSet();
        // A heading begins where the rows do; a list is indented, under their text.
        var edge = places.Min(place => place.Box.Left) + Indent;
        return left.Where(line => line.Place.Box.Left > edge && !above.Contains(FormOfWords(line.Text))).Select(line => line.Text);
    }

    /// <summary>A line's words as they are, its parts with figures open to others of their kind: numbers to numbers, codes to what has a figure in it.</summary>
    /// <remarks>A word without a figure is no value of any: "B5 tarred" and "12 tarred" make no list in which "tarred tarred", text that wraps, would be a row.</remarks>
    private static string? FormOfWords(string line)
    {
        var count = 0;
        var words = line.Split(' ').Select(word => !word.Any(char.IsAsciiDigit) ? Regex.Escape(word)
            : $"(?<value{(++count == 1 ? "" : count)}>{(word.All(letter => char.IsAsciiDigit(letter) || letter is '.' or ',') ? @"[\d.,]+" : @"\S*\d\S*")})").ToList();
        return count == 0 || count == words.Count ? null : $"^{string.Join(' ', words)}$";
    }

    /// <summary>A line that ends in a number and a unit.</summary>
    private static string? FormOfEnd(string line) =>
        EndsInUnit().IsMatch(line) ? @"^(?<text>.+) (?<quantity>-?[\d.,]+) ?(?<unit>\p{L}{1,5})$" : null;

    [GeneratedRegex(@"^\p{L}.* -?[\d.,]+ ?\p{L}{1,5}$")]
    private static partial Regex EndsInUnit();

    [GeneratedRegex(@"^\p{L}[\p{L} ./]*: ?\S*\d\S*$")]
    private static partial Regex LabelAndValue();

    [GeneratedRegex(@"\(\?<([a-z0-9]+)>")]
    private static partial Regex GroupName();
}
