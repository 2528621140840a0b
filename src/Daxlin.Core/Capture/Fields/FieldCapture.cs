using System.Collections.Immutable;
using System.Globalization;
using System.Runtime.InteropServices;
using Daxlin.Core.Checks;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Capture.Fields;

/// <summary>Captures the values of the header: tries a field's whereabouts in order and takes the first that yields one.</summary>
public static class FieldCapture
{
    /// <summary>What a later whereabouts takes off a value's confidence.</summary>
    private const double LessPerChoice = 0.1;

    public static (CapturedValue? Value, ImmutableArray<Finding> Findings) Capture(FieldRule rule, InvoicePages pages, Habits habits, Captions captions)
    {
        string? nearMiss = null;
        string? misprint = null;
        for (var choice = 0; choice < rule.Where.Length; choice++)
        {
            var found = new List<CapturedValue>();
            foreach (var candidates in CandidatesOf(rule.Where[choice], pages))
            {
                var isNearest = true;
                foreach (var candidate in candidates)
                {
                    if (rule.Where[choice] is ByCue && captions.IsCaptionOfAnother(candidate.Text, rule))
                    {
                        nearMiss ??= $"“{candidate.Text}” stands there, which is a caption itself";
                        break;
                    }
                    var (tidied, reading) = candidate.Read(rule.Tidy, rule.Kind, habits);
                    if (reading.IsGood && (rule.Shape is null || MatchesWhole(rule.Shape, tidied)))
                    {
                        var trace = new Trace(
                            candidate.Places, rule.Where[choice].Says, candidate.Text, Math.Max(0.1, 1 - LessPerChoice * choice))
                        {
                            Steps = candidate.StepsOf(rule.Tidy),
                        };
                        found.Add(new CapturedValue(rule.Name, rule.Kind, reading.Value, reading.Number, trace));
                        break;
                    }
                    if (reading.IsMisprint || (isNearest && !reading.IsGood && MeantFor.Kind(rule.Kind, tidied)))
                        misprint ??= $"The {TradeNames.Spoken(rule.Name)} “{tidied}” {reading.Fault}.";
                    isNearest = false;
                    nearMiss ??= reading.IsGood
                        ? $"“{candidate.Text}” stands there, which does not have the shape {rule.Shape}"
                        : $"“{candidate.Text}” stands there, which {reading.Fault}";
                }
            }
            if (found.Count > 0)
                return Choose(rule, rule.Where[choice], found, habits);
        }
        // Nobody asked for the value, yet one stands there and is wrong: an account number, say, that is not the vendor's.
        if (misprint is not null)
            return (null, [Finding.Hold("value-unreadable", misprint, rule.Name)]);
        if (!rule.Required)
            return (null, []);
        var spoken = TradeNames.Spoken(rule.Name);
        var message = nearMiss is null
            ? $"The {spoken} was not found: nothing stands {string.Join(", nor ", rule.Where.Select(where => where.Says))}."
            : $"The {spoken} was not found: {nearMiss}.";
        return (null, [Finding.Hold("value-missing", message, rule.Name)]);
    }

    private static bool MatchesWhole(System.Text.RegularExpressions.Regex shape, string text) =>
        shape.Match(text) is { Success: true, Index: 0 } match && match.Length == text.Length;

    private static (CapturedValue? Value, ImmutableArray<Finding> Findings) Choose(
        FieldRule rule, Whereabouts where, List<CapturedValue> found, Habits habits)
    {
        var occurrence = where is OnPage onPage ? onPage.Occurrence : 1;
        if (occurrence < 0)
            return (found[^1], []);
        if (occurrence > found.Count)
        {
            return (null, !rule.Required ? [] :
            [
                Finding.Hold(
                    "value-missing",
                    $"The {TradeNames.Spoken(rule.Name)} was not found: place {occurrence} {where.Says} is wanted, there are {found.Count}.",
                    rule.Name),
            ]);
        }
        if (occurrence > 0)
            return (found[occurrence - 1], []);
        // A page head may repeat it with more text behind it, "F2026-014 — page 2/3".
        var value = found.Where(one => one.Kind == ValueKind.Text && SameValue.Is(one.Value, found[0].Value)).MinBy(one => one.Value.Length) ?? found[0];
        // No place was singled out, so all must agree: a total printed twice in two ways is what a person must see.
        var others = found.Where(other => !IsSame(other, value)).ToList();
        if (others.Count == 0)
            return (value, []);
        var shown = string.Join(" and ", found.DistinctBy(one => one.Value).Take(3).Select(one => Shown(one, habits)));
        return (value, [Finding.Hold(
            "value-ambiguous",
            $"The {TradeNames.Spoken(rule.Name)} stands on the invoice in different ways: {shown}.",
            rule.Name)]);
    }

    /// <summary>80.00 and 80.0 are one amount; a text is the same where the other only goes on from it.</summary>
    private static bool IsSame(CapturedValue one, CapturedValue other) => one.Value == other.Value
        || (one.Number is { } number ? number == other.Number : one.Kind == ValueKind.Text && SameValue.Is(one.Value, other.Value));

    private static string Shown(CapturedValue value, Habits habits)
    {
        var text = value.Kind == ValueKind.Money ? habits.Currency.Show(value.Number!.Value) : $"“{value.Value}”";
        return value.Trace.Places is [var place, ..] ? $"{text} on page {place.Page}" : text;
    }

    /// <summary>For each place of a whereabouts, best places first taken alone, the texts that may be the value.</summary>
    private static IEnumerable<IEnumerable<Printed>> CandidatesOf(Whereabouts where, InvoicePages pages) => where switch
    {
        ByCue cue => CueCandidates.Find(cue, pages),
        At at => [AtPlace(at, pages)],
        Matching matching => PatternCandidates(matching, pages),
        Always always => [[new Printed(always.Value, [])]],
        InName name => InNameOf(name, pages.Facts),
        OfDocument of => FactOf(of.Fact, pages) is { Length: > 0 } fact ? [[new Printed(fact, [])]] : [],
        _ => [],
    };

    private static IEnumerable<IEnumerable<Printed>> InNameOf(InName name, DocumentFacts facts) =>
        name.Pattern.Match(name.Of == NameOf.File ? facts.FileName : facts.BatchName) is { Success: true } match
            ? [[new Printed((match.Groups.Count > 1 ? match.Groups[1] : match).Value, [])]]
            : [];

    private static string FactOf(DocumentFact fact, InvoicePages pages) => fact switch
    {
        // A date with its year first is read the same by every vendor's habits.
        DocumentFact.ReceivedDate => pages.Facts.ReceivedOn?.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture) ?? "",
        DocumentFact.PageCount => pages.Pages.Length.ToString(CultureInfo.InvariantCulture),
        _ => pages.Pages.IsEmpty ? "" : pages.Pages[0].Number.ToString(CultureInfo.InvariantCulture),
    };

    private static IEnumerable<Printed> AtPlace(At at, InvoicePages pages)
    {
        if (pages.Pages.IsEmpty || at.PageNumber > pages.Pages.Length)
            yield break;
        var page = at.PageNumber < 0 ? pages.Pages[^1] : pages.Pages[at.PageNumber - 1];
        var inside = page.Lines
            .Select(line => line.Words.Where(word => at.Place.HoldsCenterOf(word.Box)).ToList())
            .Where(words => words.Count > 0)
            .Select(words => Printed.Of(page.Number, CollectionsMarshal.AsSpan(words)))
            .ToList();
        if (inside.Count > 0)
            yield return inside.Take(at.Lines > 1 ? at.Lines : int.MaxValue).Aggregate((all, more) => at.Lines > 1 ? all.Over(more) : all.With(more));
    }

    private static IEnumerable<IEnumerable<Printed>> PatternCandidates(Matching matching, InvoicePages pages)
    {
        foreach (var line in pages.PagesIn(matching.OnPages).SelectMany(page => page.Lines))
        {
            foreach (System.Text.RegularExpressions.Match match in matching.Pattern.Matches(line.Text))
            {
                var group = match.Groups.Count > 1 ? match.Groups[1] : match;
                if (group is { Success: true, Length: > 0 })
                    yield return [LineSpan.Of(line, group.Index, group.Length)];
            }
        }
    }
}
