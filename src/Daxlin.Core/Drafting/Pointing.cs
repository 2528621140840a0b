using System.Collections.Immutable;
using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Daxlin.Core.Capture;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Drafting;

/// <summary>A person points at a value and says what it is; here are the ways to find it again.</summary>
/// <remarks>
/// Words to the left, above, below and to the right may be its caption, its own form may be one, and so may its place. Each
/// way is tried by the capture: it must find the value itself, and what it finds on other invoices is its proof.
/// </remarks>
public static class Pointing
{
    private static readonly JsonSerializerOptions Json = new() { Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping };

    /// <summary>A caption above or below its value is no further than so many points from it.</summary>
    private const double FarthestCaption = 40;

    /// <summary>A caption has so many words at most.</summary>
    private const int MostWords = 5;

    /// <param name="shown">The invoice that was pointed at.</param>
    /// <param name="place">Where the value stands on it, as a person sees the page.</param>
    /// <param name="field">What it is: a settled name, or one of the template's own.</param>
    /// <param name="kind">What kind of value it is, for a name of the template's own.</param>
    /// <param name="known">The field's rule in the template, if there is one: a credit note's total stands beside other words, and what finds the invoices' must stay.</param>
    /// <returns>The ways that find the value, those first that find one on the most of the other invoices; none if no word stands there.</returns>
    public static ImmutableArray<PointedWay> Ways(
        Sample shown, PlaceOnPage place, string field, ValueKind kind, Habits reads, IReadOnlyList<Sample> others, JsonObject? known = null)
    {
        if (PointedWords.At(shown, place) is not { } pointed)
            return [];
        shown = shown.Upright;
        var box = pointed.Box;
        var rules = Candidates(pointed, shown.Pages.Length).DistinctBy(rule => rule.Json.ToJsonString()).ToList();
        if (known?["where"] is { } where)
        {
            rules.AddRange([.. rules.Where(rule => rule.Json["where"]!["always"] is null)
                .Select(rule => rule with { Json = Added(known, where, rule.Json["where"]!), Says = $"{rule.Says}, where what the template says finds nothing" })]);
        }
        // A caption moves with its value; a place does not, and a form may be another value's, too.
        rules = [.. rules.OrderByDescending(rule => rule.IsCaption)];
        foreach (var (rule, _, _) in rules)
        {
            if (TradeNames.KindOf(field) == ValueKind.Text && kind != ValueKind.Text)
                rule["type"] = kind.Word();
        }
        var probes = rules.Select(rule => FieldProbe.Typed(rule.Json, field)).ToList();
        var own = FieldProbe.Try([shown], reads, probes);
        var found = others.Count == 0 ? [.. rules.Select(_ => ImmutableArray<CapturedValue?>.Empty)] : FieldProbe.Try(others, reads, probes);
        return [.. rules.Select((rule, index) => (rule, index))
            .Where(one => own[one.index][0]?.Trace.Places is [var at, ..] && at.Page == place.Page && at.Box.SharedWidth(box) > 0.5 * Math.Min(at.Box.Width, box.Width) && at.Box.SharedHeight(box) > 0)
            .Select(one => new PointedWay(one.rule.Json.ToJsonString(Json), one.rule.Says, [.. found[one.index].Select(value => value?.Value)]))
            .OrderByDescending(way => way.Fits)
            // What finds nothing anywhere else is no way, unless there is no other.
            .Where((way, index) => index == 0 || way.Fits > 0 || others.Count == 0)];
    }

    private static IEnumerable<Candidate> Candidates(PointedWords pointed, int pages)
    {
        var (page, line, first, count) = pointed;
        var (text, box) = (pointed.Text, pointed.Box);
        // Beside: the words before it in its cell, or the cell to the left.
        foreach (var caption in CaptionsBefore(line, first))
        {
            yield return new Candidate(Where(new JsonObject { ["beside"] = HeaderDraft.CueFor(caption) }), $"beside “{caption}”", IsCaption: true);
            yield return new Candidate(Where(new JsonObject { ["beside"] = HeaderDraft.CueFor(caption), ["occurrence"] = "last" }), $"beside “{caption}”, the last place", IsCaption: true);
        }
        // Under and above: the nearest cells that share some width with it.
        var cells = page.Lines.SelectMany(CaptionsOf).Where(cell => cell.Text.Any(char.IsLetter) && cell.Box.SharedWidth(box) > 0).ToList();
        foreach (var cell in cells.Where(cell => cell.Box.Bottom <= box.Top + 1 && box.Top - cell.Box.Bottom < FarthestCaption).OrderByDescending(cell => cell.Box.Bottom).Take(2))
            yield return new Candidate(Where(new JsonObject { ["under"] = HeaderDraft.CueFor(Bare(cell.Text)) }), $"under “{Bare(cell.Text)}”", IsCaption: true);
        foreach (var cell in cells.Where(cell => cell.Box.Top >= box.Bottom - 1 && cell.Box.Top - box.Bottom < FarthestCaption).OrderBy(cell => cell.Box.Top).Take(1))
            yield return new Candidate(Where(new JsonObject { ["above"] = Bare(cell.Text) }), $"above “{Bare(cell.Text)}”", IsCaption: true);
        if (first + count < line.Words.Length)
        {
            var behind = TextLine.TextOf(line.Words.AsSpan()[(first + count)..Math.Min(line.Words.Length, first + count + 3)]);
            yield return new Candidate(Where(new JsonObject { ["before"] = Bare(behind) }), $"before “{Bare(behind)}”", IsCaption: true);
        }
        // By its form: letters stay, runs of figures are open.
        if (text.Any(char.IsAsciiDigit))
        {
            yield return new Candidate(Where(new JsonObject { ["matching"] = $@"(?:^|\s)({FormPattern.WithFigures(text)})(?:\s|$)" }), $"by its form, as “{text}”", IsCaption: false);
        }
        // At its place: a little room on all sides.
        var number = page.Number == pages && pages > 1 ? (JsonNode)"last" : page.Number;
        yield return new Candidate(Where(new JsonObject
        {
            ["at"] = new JsonObject
            {
                ["page"] = number,
                ["left"] = Math.Floor(box.Left) - 3,
                ["top"] = Math.Floor(box.Top) - 2,
                ["right"] = Math.Ceiling(box.Right) + 30,
                ["bottom"] = Math.Ceiling(box.Bottom) + 2,
            },
        }), $"at this place on page {page.Number}", IsCaption: false);
        yield return new Candidate(Where(new JsonObject { ["always"] = text }), $"always “{text}”, wherever it stands", IsCaption: false);
    }

    /// <param name="IsCaption">Says that printed words beside it lead to it.</param>
    private sealed record Candidate(JsonObject Json, string Says, bool IsCaption);

    /// <summary>The rule with one more of its whereabouts, the last.</summary>
    private static JsonObject Added(JsonObject known, JsonNode where, JsonNode another)
    {
        var rule = (JsonObject)known.DeepClone();
        rule["where"] = new JsonArray([.. (where is JsonArray several ? several : [where.DeepClone()]).Select(one => one?.DeepClone()), another.DeepClone()]);
        return rule;
    }

    /// <summary>What stands together on a line as captions do, which may be set wide: "INVOICE  NUMBER".</summary>
    private static IEnumerable<(string Text, Box Box)> CaptionsOf(TextLine line)
    {
        for (var start = 0; start < line.Words.Length;)
        {
            var end = start + 1;
            while (end < line.Words.Length && line.Words[end].Box.Left - line.Words[end - 1].Box.Right <= Vocabulary.WordGap * line.Words[end].Size)
                end++;
            var words = line.Words.AsSpan()[start..end];
            yield return (TextLine.TextOf(words), words[0].Box.Union(words[^1].Box));
            start = end;
        }
    }

    private static IEnumerable<string> CaptionsBefore(TextLine line, int first)
    {
        if (first == 0)
            yield break;
        // Words that stand together before it, and their last few.
        var start = first - 1;
        while (start > 0 && line.Words[start].Box.Left - line.Words[start - 1].Box.Right <= Vocabulary.WordGap * line.Words[start].Size)
            start--;
        for (var from = Math.Max(start, first - MostWords); from < first; from++)
        {
            var caption = Bare(TextLine.TextOf(line.Words.AsSpan()[from..first]));
            if (caption.Any(char.IsLetter))
                yield return caption;
        }
    }

    private static string Bare(string caption) => caption.Trim(' ', ':', '\u00a0');

    private static JsonObject Where(JsonObject where) => new() { ["where"] = where };
}
