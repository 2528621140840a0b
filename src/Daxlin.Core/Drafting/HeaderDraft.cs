using System.Collections.Immutable;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Daxlin.Core.Capture;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Drafting;

/// <summary>Finds header fields by their captions and by their form.</summary>
/// <remarks>
/// Each caption that stands on the samples is tried beside and under, by the capture itself. What finds a fitting value on
/// the most samples goes first, then the plainest caption.
/// </remarks>
internal static partial class HeaderDraft
{
    private static readonly ImmutableArray<string> ByCaption =
        [TradeNames.InvoiceNumber, TradeNames.InvoiceDate, TradeNames.DueDate, TradeNames.PurchaseOrder];

    /// <summary>The fields that are looked for.</summary>
    public static ImmutableArray<string> Names { get; } = [.. ByCaption, TradeNames.Iban, TradeNames.VendorTaxId];

    /// <summary>The text of a value that holds one part with figures among words: "No 553" is 553.</summary>
    private static readonly JsonArray OnlyPartWithFigures = [new JsonObject { ["take"] = @"\S*\d\S*" }];

    private static readonly JsonArray OnlyDate =
        [new JsonObject { ["take"] = @"\d{1,4}[./-]\d{1,2}[./-]\d{2,4}|\d{1,2}(?:st|nd|rd|th)?[ .-]+\p{L}+[ .-]+\d{2,4}|\p{L}+ \d{1,2},? \d{4}" }];

    /// <summary>A caption within a sentence goes behind all that begin a cell: "from the date of invoice".</summary>
    private const int InSentence = 30;

    private static bool BeginsCell(Caption caption) =>
        caption.FirstWord == 0 || TextLine.IsCellGap(caption.Line.Words[caption.FirstWord - 1], caption.Line.Words[caption.FirstWord])
        || caption.Line.Words[caption.FirstWord - 1].Text.EndsWith(':') || !caption.Line.Words[caption.FirstWord - 1].Text.Any(char.IsLetter);

    /// <summary>For each field its rules, best first; none for a field that was not found.</summary>
    public static ImmutableDictionary<string, ImmutableArray<JsonObject>> Of(IReadOnlyList<Sample> samples, Habits reads)
    {
        var captions = samples.SelectMany(sample => sample.Pages).SelectMany(CaptionsOn).ToList();
        var found = ImmutableDictionary.CreateBuilder<string, ImmutableArray<JsonObject>>();
        foreach (var name in ByCaption)
        {
            var tries = captions.Where(caption => caption.Meanings.RankAs(name) is not null)
                .GroupBy(caption => caption.Text).Select(group => (Text: group.Key, Rank: group.Min(caption => caption.Meanings.RankAs(name)!.Value + (BeginsCell(caption) ? 0 : InSentence))))
                .SelectMany(caption => RulesFor(name, caption.Text).Select(rule => (Rule: rule.Json, Rank: (caption.Rank * 4) + rule.Rank)))
                .ToList();
            var values = FieldProbe.Try(samples, reads, [.. tries.Select(one => one.Rule)]);
            var good = tries.Select((one, index) => (one.Rule, one.Rank, Hits: values[index].Count(value => Fits(name, value)), Figures: values[index].Count(value => value?.Value.Any(char.IsAsciiDigit) == true), Different: values[index].OfType<CapturedValue>().Select(value => value.Value).Distinct().Count()))
                .Where(one => one.Hits > 0)
                .OrderByDescending(one => one.Hits)
                .ThenByDescending(one => one.Figures)
                // What is the same on every sample is the vendor's or the buyer's, not the invoice's.
                .ThenByDescending(one => name != TradeNames.InvoiceNumber || one.Hits < 2 || one.Different > 1)
                .ThenBy(one => one.Rank)
                .Select(one => one.Rule).ToImmutableArray();
            if (!good.IsEmpty)
                found[name] = [.. good.Take(4)];
        }
        if (!found.ContainsKey(TradeNames.InvoiceDate) && UncaptionedDate.Of(samples, reads, found.GetValueOrDefault(TradeNames.InvoiceNumber, []), found.GetValueOrDefault(TradeNames.DueDate, [])) is { } date)
            found[TradeNames.InvoiceDate] = [date];
        if (!found.ContainsKey(TradeNames.PurchaseOrder) && OrderBesideYours(samples, reads) is { } order)
            found[TradeNames.PurchaseOrder] = [order];
        if (IbanOf(samples) is { } iban)
            found[TradeNames.Iban] = [iban];
        if (TaxNumberDraft.Of(samples) is { } taxId)
            found[TradeNames.VendorTaxId] = [taxId];
        return found.ToImmutable();
    }

    /// <summary>A number that other captions give better: "Date" must not be taken for the invoice's number.</summary>
    private static bool Fits(string name, CapturedValue? value)
    {
        if (value is null)
            return false;
        if (TradeNames.KindOf(name) == ValueKind.Date)
            return true;
        var text = value.Value;
        return text.Length <= 30 && !text.Contains(": ", StringComparison.Ordinal) && text.Split(' ').Length <= 3
            && (text.Any(char.IsAsciiDigit) || (name == TradeNames.PurchaseOrder && text.All(char.IsAsciiLetterUpper) && Vocabulary.Fields.MeaningsOf(text).IsEmpty))
            && !DateReader.Read(text, DateOrder.DayFirst).IsGood && !DateReader.Read(text, DateOrder.MonthFirst).IsGood;
    }

    private static IEnumerable<(JsonObject Json, int Rank)> RulesFor(string name, string caption)
    {
        var tidy = TradeNames.KindOf(name) == ValueKind.Date ? OnlyDate : OnlyPartWithFigures;
        foreach (var (side, rank) in new[] { ("beside", 0), ("under", 1) })
        {
            yield return (Rule(name, side, caption, null, false), rank);
            yield return (Rule(name, side, caption, null, true), rank + 2);
            // A purchase order is often two words: "PO 204".
            if (name != TradeNames.PurchaseOrder)
                yield return (Rule(name, side, caption, tidy, false), rank + 12);
        }
    }

    private static JsonObject Rule(string name, string side, string caption, JsonArray? tidy, bool isFirst)
    {
        var where = new JsonObject { [side] = CueFor(caption) };
        if (isFirst)
            where["occurrence"] = "first";
        var rule = new JsonObject { ["where"] = where };
        if (tidy is not null)
            rule["tidy"] = tidy.DeepClone();
        return FieldProbe.Typed(rule, name);
    }

    /// <summary>The cue for a caption: a credit note calls itself otherwise in it.</summary>
    public static JsonNode CueFor(string caption)
    {
        foreach (var (invoice, creditNotes) in Vocabulary.CreditNotes)
        {
            var at = caption.IndexOf(invoice, StringComparison.OrdinalIgnoreCase);
            if (at >= 0 && (at + invoice.Length == caption.Length || !char.IsLetter(caption[at + invoice.Length])))
                return new JsonArray([caption, .. creditNotes.Take(1).Select(word => (JsonNode)(caption[..at] + word + caption[(at + invoice.Length)..]))]);
        }
        return caption;
    }

    /// <summary>Captions of one line, and those set on two lines, one word over the other.</summary>
    private static IEnumerable<Caption> CaptionsOn(Page page)
    {
        for (var index = 0; index < page.Lines.Length; index++)
        {
            var line = page.Lines[index];
            foreach (var caption in Vocabulary.Fields.On(line))
                yield return caption;
            for (var below = index + 1; below < page.Lines.Length && page.Lines[below].Box.Top - line.Box.Bottom < line.Words[0].Size; below++)
            {
                foreach (var upper in line.Cells)
                {
                    foreach (var lower in page.Lines[below].Cells)
                    {
                        if (Math.Abs(upper.Box.Left - lower.Box.Left) > 3 || lower.Box.Top < upper.Box.Top)
                            continue;
                        var text = upper.Text + " " + lower.Text.TrimEnd(':');
                        if (Vocabulary.Fields.MeaningsOf(text) is { IsEmpty: false } meanings)
                            yield return new Caption(text, meanings, line, upper.Box.Union(lower.Box), 0, upper.Words.Length);
                    }
                }
            }
        }
    }

    /// <summary>
    /// What stands beside "Against your" or "Vos références" is the buyer's own number, most often that of the order. Only where
    /// nothing else is called so.
    /// </summary>
    private static JsonObject? OrderBesideYours(IReadOnlyList<Sample> samples, Habits reads)
    {
        var captions = samples.SelectMany(sample => sample.Lines).SelectMany(line => line.Cells)
            .Where(cell => cell.Words.Length <= MostWordsOfYours && !cell.Text.Any(char.IsAsciiDigit)
                && cell.Words.ToArray().Any(word => Vocabulary.Yours.Contains(word.Text)) && Vocabulary.Fields.MeaningsOf(cell.Text).IsEmpty)
            .Select(cell => cell.Text.TrimEnd(':', ' ')).Distinct().ToList();
        if (captions.Count != 1)
            return null;
        var rules = RulesFor(TradeNames.PurchaseOrder, captions[0]).Select(rule => rule.Json).ToList();
        var values = FieldProbe.Try(samples, reads, rules);
        return rules.Where((_, index) => values[index].All(value => Fits(TradeNames.PurchaseOrder, value) && value!.Value.Any(char.IsAsciiDigit))).FirstOrDefault();
    }

    private const int MostWordsOfYours = 3;

    /// <summary>An account number has check digits, so it is told by its form alone; how many characters it has is its country's.</summary>
    private static JsonObject? IbanOf(IReadOnlyList<Sample> samples)
    {
        foreach (var match in samples.SelectMany(sample => sample.Lines).SelectMany(line => IbanStart().Matches(line.Text)))
        {
            for (var length = match.Length; length >= 15; length--)
            {
                var text = match.Value[..length].TrimEnd();
                if (text.Length == length && ValueReader.Read(text, ValueKind.Iban, HabitsDraft.OfNone).IsGood)
                {
                    var characters = text.Count(c => c != ' ');
                    return new JsonObject { ["where"] = new JsonObject { ["matching"] = $@"\b({text[..2]}\d\d(?: ?[A-Z0-9]){{{characters - 4}}})(?:[^A-Z0-9]|$)" } };
                }
            }
        }
        return null;
    }

    [GeneratedRegex(@"\b[A-Z]{2}\d\d(?: ?[A-Z0-9]){11,30}")]
    private static partial Regex IbanStart();
}
