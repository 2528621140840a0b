using System.Collections.Immutable;
using System.Text.Json.Nodes;
using Daxlin.Core.Capture;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Drafting;

/// <summary>Finds the cues that tell a vendor's invoices from all others at hand.</summary>
internal static class RecognitionDraft
{
    /// <summary>Cues that stand on every sample and, together, on no invoice of another vendor.</summary>
    public static (ImmutableArray<JsonNode> Must, DraftNote Note) Of(
        ImmutableArray<Sample> samples, IReadOnlyCollection<Sample> others, string? name, ImmutableDictionary<string, ImmutableArray<JsonObject>> header, Headings? headings)
    {
        var cues = Texts(samples, name, header, headings).Where(text => samples.All(sample => IsOn(text, sample))).Distinct().ToList();
        if (cues.Count == 0)
            cues.Add(samples[0].Lines.First().Text);
        // The fewest cues that keep the others out; each is a risk that the vendor changes it.
        var must = new List<string> { cues[0] };
        foreach (var cue in cues.Skip(1))
        {
            var taken = Count(must);
            if (taken == 0)
                break;
            if (Count([.. must, cue]) < taken)
                must.Add(cue);
        }
        var wrong = Count(must);
        var says = string.Join(" and ", must.Select(text => $"“{text}”")) + (others.Count == 0 ? "; there are no invoices of other vendors to hold it against"
            : wrong == 0 ? $"; on none of {others.Count} invoices of other vendors" : $"; on {wrong} of {others.Count} invoices of other vendors, too");
        return ([.. must.Select(text => (JsonNode)text)], new DraftNote("recognise", others.Count > 0 && wrong == 0 ? Certainty.Certain : Certainty.Guess, says));

        int Count(IReadOnlyCollection<string> texts) => others.Count(other => texts.All(text => IsOn(text, other)));
    }

    private static bool IsOn(string text, Sample sample) => sample.Pages.Any(page => new Cue([text]).IsOn(page));

    /// <summary>The vendor's name; the account and the tax number, which no other vendor has; the headings of the rows.</summary>
    private static IEnumerable<string> Texts(
        ImmutableArray<Sample> samples, string? name, ImmutableDictionary<string, ImmutableArray<JsonObject>> header, Headings? headings)
    {
        if (name is not null)
            yield return name;
        foreach (var field in new[] { TradeNames.VendorTaxId, TradeNames.Iban })
        {
            if (header.GetValueOrDefault(field, []) is [var rule, ..] && FieldProbe.Try(samples, HabitsDraft.OfNone, [rule])[0].OfType<CapturedValue>().Select(value => value.Value).Distinct().ToList() is [var only])
                yield return only;
        }
        // A name that was said and is drawn as a picture: what stands out on the page.
        if (VendorDraft.Of(samples) is { } printed)
            yield return printed;
        foreach (var heading in headings?.All.OrderByDescending(one => one.Text.Length) ?? Enumerable.Empty<Heading>())
            yield return heading.Text;
    }
}
