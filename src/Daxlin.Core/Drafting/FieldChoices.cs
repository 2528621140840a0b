using System.Collections.Immutable;
using System.Text.Json.Nodes;
using Daxlin.Core.Capture;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Drafting;

/// <summary>The ways in which header fields and the amounts below the rows can be found.</summary>
internal static class FieldChoices
{
    /// <summary>The rules that were found for a header field; its usual captions for one that only other invoices may have.</summary>
    public static ImmutableArray<DraftWay> OfHeader(string name, ImmutableArray<JsonObject> found, SampleLanguage language)
    {
        if (found.IsEmpty && name is TradeNames.DueDate or TradeNames.PurchaseOrder)
            return [plan => plan.With(name, Unseen(name, language))];
        return [.. found.Select(rule => (DraftWay)(plan => plan.With(name, WithoutType(rule))))];
    }

    /// <summary>A field that the samples do not show, by its usual captions.</summary>
    private static JsonObject Unseen(string name, SampleLanguage language)
    {
        JsonArray Cue() => new([.. language.Unseen(name).Select(caption => (JsonNode)caption)]);
        var rule = new JsonObject
        {
            ["where"] = new JsonArray(new JsonObject { ["beside"] = Cue(), ["reach"] = 150 }, new JsonObject { ["under"] = Cue(), ["reach"] = 20 }),
        };
        // "Order" stands in many a sentence; what is an order's number has figures, and a word before them at most.
        if (TradeNames.KindOf(name) == ValueKind.Text)
            rule["shape"] = @"([A-Z]+ )?\S*\d\S*";
        return rule;
    }

    /// <summary>What a probe asked for besides is no part of the template: the settled names know their types.</summary>
    private static JsonObject WithoutType(JsonObject rule)
    {
        var bare = (JsonObject)rule.DeepClone();
        bare.Remove("type");
        return bare;
    }

    /// <summary>For each amount below the rows its captions: anywhere, in the part of the page where it stands, or the last of several.</summary>
    public static IEnumerable<ImmutableArray<DraftWay>> OfTotals(
        ImmutableArray<FoundTotals?> totals, ImmutableArray<Sample> samples, Habits reads, SampleLanguage language)
    {
        var named = totals.OfType<FoundTotals>().SelectMany(one => one.Names).ToList();
        var left = named.Count == 0 ? 0 : Math.Floor(named.Min(one => one.Stated.Box.Left)) - 4;
        foreach (var name in new[] { TradeNames.Subtotal, TradeNames.Discount, TradeNames.Freight, TradeNames.Tax, TradeNames.Total })
        {
            var found = named.Where(one => one.Name == name && !(name == TradeNames.Tax && one.Stated.HasRate)).Select(one => one.Stated.Caption).Distinct().ToList();
            var unseen = found.Count > 0 || name is not (TradeNames.Discount or TradeNames.Freight) ? [] : language.Unseen(name);
            var captions = found.Concat(unseen).ToList();
            if (captions.Count == 0)
                continue;
            var page = samples[0].Pages[^1];
            var cue = captions.Count == 1 ? HeaderDraft.CueFor(captions[0]) : new JsonArray([.. captions.Select(caption => (JsonNode)caption)]);
            var within = new JsonObject { ["left"] = left, ["top"] = 0, ["right"] = Math.Ceiling(page.Width), ["bottom"] = Math.Ceiling(page.Height) };
            JsonObject[] where =
            [
                new() { ["beside"] = cue.DeepClone() },
                new() { ["beside"] = cue.DeepClone(), ["within"] = within },
                new() { ["beside"] = cue.DeepClone(), ["occurrence"] = "last" },
                new() { ["beside"] = cue.DeepClone(), ["within"] = within.DeepClone(), ["occurrence"] = "last" },
            ];
            var rules = where.Select(one => new JsonObject { ["where"] = one }).ToList();
            // Those that find what is stated on each sample go first.
            var values = FieldProbe.Try(samples, reads, [.. rules.Select(rule => FieldProbe.Typed(rule, name))]);
            var hits = values.Select(found => found.Where((value, sample) => IsStated(totals[sample], name, value)).Count()).ToList();
            yield return [.. rules.Select((rule, index) => (rule, hits: hits[index])).OrderByDescending(one => one.hits).Where((one, index) => one.hits > 0 || found.Count == 0 || index == 0)
                .Select(one => (DraftWay)(plan => plan.With(name, one.rule)))];
        }
    }

    private static bool IsStated(FoundTotals? totals, string name, CapturedValue? value) =>
        totals?.Names.FirstOrDefault(one => one.Name == name).Stated is { } stated && value?.Number is { } number && Math.Abs(number) == Math.Abs(stated.Amount);
}
