using System.Collections.Immutable;
using System.Text.Json.Nodes;
using Daxlin.Core.Capture;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Drafting;

/// <summary>Tries whereabouts on the samples: the capture itself says what each of them finds.</summary>
internal static class FieldProbe
{
    /// <summary>So many are tried in one template.</summary>
    private const int AtOnce = 50;

    /// <summary>For each rule, what it finds on each sample; null where it finds nothing, or two things.</summary>
    public static ImmutableArray<ImmutableArray<CapturedValue?>> Try(IReadOnlyList<Sample> samples, Habits reads, IReadOnlyList<JsonObject> rules)
    {
        var found = ImmutableArray.CreateBuilder<ImmutableArray<CapturedValue?>>(rules.Count);
        foreach (var some in rules.Chunk(AtOnce))
        {
            var plan = DraftPlan.Of(reads);
            for (var index = 0; index < some.Length; index++)
            {
                var rule = (JsonObject)some[index].DeepClone();
                rule["required"] = false;
                plan = plan.With($"probe{index}", rule);
            }
            var template = plan.Template();
            var invoices = template is null ? [] : samples.Select(sample => InvoiceCapture.Capture(sample.Pages, template)).ToList();
            for (var index = 0; index < some.Length; index++)
            {
                var name = $"probe{index}";
                found.Add([.. invoices.Select(invoice => invoice.Findings.Any(finding => finding.About.Contains(name)) ? null : invoice.Find(name))]);
            }
        }
        return found.MoveToImmutable();
    }

    /// <summary>A probe has a name of its own, so it must be told the type that the field's name would tell.</summary>
    public static JsonObject Typed(JsonObject rule, string field)
    {
        var typed = (JsonObject)rule.DeepClone();
        if (typed["type"] is null && TradeNames.KindOf(field) is not ValueKind.Text and var kind)
            typed["type"] = kind.Word();
        return typed;
    }
}
