using System.Collections.Immutable;
using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Daxlin.Core.Capture;
using Daxlin.Core.Checks;
using Daxlin.Core.Corrections;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;
using Daxlin.Core.Templates.Json;
using Daxlin.Core.Values;

namespace Daxlin.Core.Drafting;

/// <summary>A change of a template after which what persons corrected again and again is captured as they said.</summary>
/// <remarks>
/// A value is looked for on the pages, and every way to find it again is tried, as for one that is pointed at; a way counts only if
/// it gives just what was entered on each of the invoices. Struck rows are left out by the words that all of them begin with, if
/// then just those rows are gone. For a column no change is known: a person moves its edges.
/// </remarks>
/// <param name="Says">What is changed, as a part of a sentence: the due date is looked for beside “Payable by” first.</param>
/// <param name="Document">The changed template.</param>
public sealed record TaughtChange(string Says, string Document)
{
    private static readonly JsonSerializerOptions Written = new() { WriteIndented = true, Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping };

    /// <summary>A value is printed as so many words at most; a value may be printed at many places, of which so many are tried.</summary>
    private const int MostWords = 6;
    private const int MostPlaces = 5;

    /// <param name="document">The template that captured the invoices.</param>
    /// <param name="samples">The pages of each invoice of <paramref name="repeated"/>, in the same order.</param>
    /// <returns>Null if no change is known, or none gives what was said.</returns>
    public static TaughtChange? For(RepeatedCorrection repeated, string document, IReadOnlyList<Sample> samples)
    {
        if (TemplateReader.Check(document).Template is not { } template)
            return null;
        return repeated.What switch
        {
            CorrectedWhat.Entered when ValueNames.ColumnOf(repeated.Name) is null => OfField(repeated, document, template, samples),
            CorrectedWhat.Struck => OfRows(repeated, document, template, samples),
            CorrectedWhat.Passed => OfPassed(repeated, document, template, samples),
            _ => null,
        };
    }

    private static TaughtChange? OfField(RepeatedCorrection repeated, string document, Template template, IReadOnlyList<Sample> samples)
    {
        var (name, wanted) = (repeated.Name, repeated.Of.Select(once => once.Value).ToList());
        var kind = KindsOfValues.OfField(template, name);
        var places = repeated.Of[0].Place is { } place ? [place] : PlacesOf(wanted[0], kind, template.Reads, samples[0]).Take(MostPlaces);
        foreach (var way in places.SelectMany(at => Pointing.Ways(samples[0], at, name, kind, template.Reads, [.. samples.Skip(1)])))
        {
            if (!way.Values.SequenceEqual(wanted.Skip(1)))
                continue;
            // What the field says of its tidying and shape may be right for the new place, or only for the old one.
            foreach (var keepsRest in new[] { true, false })
            {
                var changed = WithWay(document, name, way.Rule, keepsRest);
                if (TemplateReader.Check(changed).Template is { } next
                    && samples.Select(sample => InvoiceCapture.Capture(sample.Pages, next).Find(name)?.Value).SequenceEqual(wanted))
                    return new TaughtChange($"the {TradeNames.Spoken(name)} is looked for {way.Says} first", changed);
            }
        }
        return null;
    }

    private static IEnumerable<PlaceOnPage> PlacesOf(string value, ValueKind kind, Habits reads, Sample sample)
    {
        foreach (var line in PrintedLine.Of(sample.Pages))
        {
            for (var first = 0; first < line.Words.Length; first++)
            {
                var (text, box) = (line.Words[first].Text, line.Words[first].Box);
                for (var last = first; last < Math.Min(line.Words.Length, first + MostWords); last++)
                {
                    if (last > first)
                        (text, box) = (text + " " + line.Words[last].Text, box.Union(line.Words[last].Box));
                    if (SettledForm.Read(text, kind, reads, isPrinted: true) is { IsGood: true } reading && reading.Value == value)
                        yield return new PlaceOnPage(line.Page, box);
                }
            }
        }
    }

    private static string WithWay(string document, string name, string rule, bool keepsRest)
    {
        var (root, own) = (JsonNode.Parse(document)!.AsObject(), JsonNode.Parse(rule)!.AsObject());
        var fields = (root["fields"] ??= new JsonObject()).AsObject();
        if (fields[name] is JsonObject before)
        {
            JsonArray ways = [own["where"]!.DeepClone()];
            foreach (var way in before["where"] is JsonArray several ? several : [before["where"]?.DeepClone()])
                ways.Add(way?.DeepClone());
            if (keepsRest)
                own = before.DeepClone().AsObject();
            else if (before["required"] is { } required)
                own["required"] = required.DeepClone();
            own["where"] = ways;
        }
        fields[name] = own;
        return root.ToJsonString(Written);
    }

    private static TaughtChange? OfRows(RepeatedCorrection repeated, string document, Template template, IReadOnlyList<Sample> samples)
    {
        var lines = repeated.Of.Select((once, at) => PrintedLine.Of(samples[at].Pages).FirstOrDefault(line => line.Page == once.Place?.Page && line.Words.Any(word => word.Box.SharedHeight(once.Place.Value.Box) > 0 && word.Box.SharedWidth(once.Place.Value.Box) > 0))).ToList();
        if (lines.Contains(null))
            return null;
        var shared = lines[0]!.Words.Select(word => word.Text)
            .TakeWhile((word, at) => lines.TrueForAll(line => line!.Words.Length > at && line.Words[at].Text == word)).ToList();
        // One that says nothing but a figure or a mark leaves out what it should not.
        if (!shared.Exists(word => word.Count(char.IsLetter) > 2))
            return null;
        var pattern = "^" + string.Join(' ', shared.Select(Regex.Escape)) + (char.IsLetterOrDigit(shared[^1][^1]) ? @"\b" : "");
        var root = JsonNode.Parse(document)!.AsObject();
        if (root["blocks"]?.AsArray().FirstOrDefault(block => (string?)block?["name"] == repeated.Name) is not JsonObject own)
            return null;
        JsonArray patterns = own["leaveOut"] is JsonArray several ? several.DeepClone().AsArray() : own["leaveOut"] is { } one ? [one.DeepClone()] : [];
        patterns.Add(pattern);
        own["leaveOut"] = patterns;
        var changed = root.ToJsonString(Written);
        if (TemplateReader.Check(changed).Template is not { } next)
            return null;
        for (var at = 0; at < samples.Count; at++)
        {
            var before = RowsIn(template, samples[at], repeated.Name);
            var gone = before.Except(RowsIn(next, samples[at], repeated.Name)).ToList();
            if (gone is not [var row] || row.Page != repeated.Of[at].Place!.Value.Page || row.Box.SharedHeight(repeated.Of[at].Place!.Value.Box) <= 0)
                return null;
        }
        return new TaughtChange($"lines that begin with “{string.Join(' ', shared)}” are no rows of {repeated.Name}", changed);
    }

    private static List<PlaceOnPage> RowsIn(Template template, Sample sample, string block)
    {
        var invoice = InvoiceCapture.Capture(sample.Pages, template);
        return [.. invoice.Lines.Concat(invoice.Taxes).Concat(invoice.Others).Where(row => row.Block == block)
            .Select(row => row.Cells.SelectMany(cell => cell.Trace.Places).FirstOrDefault())];
    }

    private static TaughtChange? OfPassed(RepeatedCorrection repeated, string document, Template template, IReadOnlyList<Sample> samples)
    {
        var root = JsonNode.Parse(document)!.AsObject();
        var column = ValueNames.ColumnOf(repeated.Name);
        var rules = column is null ? [root["fields"]?[repeated.Name]]
            : (root["blocks"]?.AsArray() ?? []).Select(block => block?["columns"]?[column]).ToList();
        foreach (var rule in rules.OfType<JsonObject>())
            rule["untied"] = "allowed";
        var changed = root.ToJsonString(Written);
        if (TemplateReader.Check(changed).Template is not { } next)
            return null;
        return samples.All(sample => IsHeld(template, sample) && !IsHeld(next, sample))
            ? new TaughtChange($"the {TradeNames.Spoken(column ?? repeated.Name)} may pass although no sum holds it", changed) : null;

        bool IsHeld(Template by, Sample sample) => InvoiceChecks.Check(InvoiceCapture.Capture(sample.Pages, by)).Findings
            .Any(finding => finding.Code == "amount-untied" && finding.About.Any(name => ValueNames.ColumnOfValue(name) == repeated.Name));
    }
}
