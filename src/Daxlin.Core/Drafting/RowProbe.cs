using System.Collections.Immutable;
using System.Text.Json.Nodes;
using Daxlin.Core.Capture;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Drafting;

/// <summary>Captures what stands under headings, before anyone knows what they mean.</summary>
internal static class RowProbe
{
    public static ImmutableArray<ProbedRow> Of(IReadOnlyList<Sample> samples, Habits reads, ImmutableArray<Heading> headings, int begins)
    {
        var columns = new JsonObject();
        for (var index = 0; index < headings.Length; index++)
        {
            var column = new JsonObject { ["heading"] = headings[index].Text, ["type"] = "text" };
            // A discount's column is often printed only where there is one.
            if (headings[index].Meanings.RankAs(TradeNames.DiscountPercent) is not null || headings[index].Meanings.IsEmpty)
                column["required"] = false;
            columns[$"probe{index}"] = column;
        }
        var block = new JsonObject
        {
            ["name"] = "probe",
            ["list"] = "probe",
            ["columns"] = columns,
            ["row"] = new JsonObject { ["begins"] = new JsonObject { ["filled"] = $"probe{begins}" } },
        };
        if ((DraftPlan.Of(reads) with { Taxes = block }).Template() is not { } template)
            return [];
        var rows = ImmutableArray.CreateBuilder<ProbedRow>();
        for (var sample = 0; sample < samples.Count; sample++)
        {
            foreach (var line in InvoiceCapture.Capture(samples[sample].Pages, template).Others)
            {
                var places = line.Find($"probe{begins}")?.Trace.Places ?? [];
                if (!places.IsEmpty)
                    rows.Add(new ProbedRow(sample, [.. headings.Select((_, index) => line.Find($"probe{index}")?.Trace.Raw ?? "")], places[0]));
            }
        }
        return Items(rows.ToImmutable(), reads);
    }

    /// <summary>Rows with figures in nearly as many columns as the fullest has: sums, notes and the page's foot have one or none.</summary>
    private static ImmutableArray<ProbedRow> Items(ImmutableArray<ProbedRow> rows, Habits reads)
    {
        var counts = rows.Select(row => row.Texts.Count(text => Figures.Read(text, reads) is not null)).ToList();
        var least = counts.Count == 0 ? 0 : Math.Max(2, counts.Max() - 2);
        var items = rows.Where((_, index) => counts[index] >= least).ToImmutableArray();
        return items.IsEmpty ? rows : items;
    }
}
