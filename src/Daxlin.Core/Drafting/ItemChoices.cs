using System.Collections.Immutable;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Daxlin.Core.Capture;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Drafting;

/// <summary>The ways in which the block of item rows can be.</summary>
internal static partial class ItemChoices
{
    /// <summary>Where the block ends, what stands under its rows, how text folds, what is a heading, what begins a row.</summary>
    public static IEnumerable<ImmutableArray<DraftWay>> Of(
        FoundItems items, FoundItems? second, ImmutableArray<FoundTotals?> totals, ImmutableArray<Sample> samples)
    {
        var captions = totals.OfType<FoundTotals>().SelectMany(one => one.Names).ToList();
        var closes = captions.OrderBy(one => one.Stated.Page).ThenBy(one => one.Stated.Box.Top).Where(one => one.Name is TradeNames.Subtotal or TradeNames.Total)
            .Select(one => one.Stated.Caption).Distinct().ToImmutableArray();
        var first = captions.OrderBy(one => one.Stated.Page).ThenBy(one => one.Stated.Box.Top).Select(one => one.Stated.Caption).Take(1).ToImmutableArray();
        var fromFirst = first.AddRange(closes.Except(first));
        ImmutableArray<ImmutableArray<string>> ways = [closes, fromFirst, closes[..Math.Min(1, closes.Length)], ImmutableArray<string>.Empty];
        yield return [.. ways
            .Select(cues => (DraftWay)(plan => plan with { Items = plan.Items! with { Closes = cues } })),
            .. ways.Take(1).Select(cues => (DraftWay)(plan => ClosedByWhatFollows(plan with { Items = plan.Items! with { Closes = cues } }, samples)))];
        if (second is not null)
            yield return [plan => plan with { Second = null }, plan => WithSecond(plan, second)];
        yield return [.. RowsUnderDraft.Options(samples), plan => plan with { Items = plan.Items! with { RowsUnder = null } }];
        var sections = items.Plan.Columns.Where(column => column.Rule["heading"] is not null).Take(3).Select(column => column.Name).ToList();
        // Headings that stand apart go before text that wraps; headings that might be such text go behind it.
        (string Fold, SectionDraft.Kind Section)[] folds =
        [
            ("down", SectionDraft.Kind.None), ("down", SectionDraft.Kind.Apart), ("around", SectionDraft.Kind.Apart), ("up", SectionDraft.Kind.Apart),
            ("around", SectionDraft.Kind.None), ("up", SectionDraft.Kind.None),
            ("down", SectionDraft.Kind.Few), ("around", SectionDraft.Kind.Few), ("up", SectionDraft.Kind.Few),
            ("allDown", SectionDraft.Kind.None), ("", SectionDraft.Kind.None),
        ];
        yield return [.. from way in folds
                         from section in way.Section == SectionDraft.Kind.None ? (IEnumerable<string?>)[null] : sections
                         select (DraftWay)(plan =>
                         {
                             var other = plan with { Items = plan.Items! with { Fold = way.Fold, Section = section } };
                             return section is null || SectionDraft.Are(way.Section, other, samples) ? other : plan;
                         })];
        var begins = new List<JsonObject>();
        foreach (var column in new[] { TradeNames.Amount, TradeNames.Quantity, TradeNames.UnitPrice, "position", TradeNames.ItemCode })
        {
            if (!items.Plan.Columns.Any(one => one.Name == column && one.Rule["partOf"] is null))
                continue;
            var rule = ItemsDraft.Filled(column);
            if (column == "position")
                rule["matching"] = @"^\d+\.?$";
            begins.Add(rule);
        }
        begins.Add(new JsonObject { ["ruling"] = true });
        yield return [.. begins.Select(one => (DraftWay)(plan => plan with { Items = plan.Items! with { Begins = one } }))];
        yield return [plan => plan with { Items = plan.Items! with { CodeFolds = false } }, plan => plan with { Items = plan.Items! with { CodeFolds = true } }];
        if (!items.Plan.Columns.Any(column => column.Name == TradeNames.Unit) && items.Plan.Columns.Any(column => column.Name == TradeNames.Quantity))
            yield return [plan => plan, WithUnitGlued];
    }

    /// <summary>Closed as well by the words that stand right below the rows and are none: a note, the headings of the tax summary.</summary>
    private static DraftPlan ClosedByWhatFollows(DraftPlan plan, ImmutableArray<Sample> samples)
    {
        var cues = new List<string>();
        foreach (var invoice in DraftTrial.Take(plan, samples))
        {
            if (invoice.Captured.Lines is not [.., var last] || last.Cells.SelectMany(cell => cell.Trace.Places).ToList() is not { Count: > 0 } places)
                continue;
            var (page, bottom) = (places.Max(place => place.Page), places.Max(place => place.Box.Bottom));
            var follows = invoice.Captured.LeftOut.FirstOrDefault(line => line.Why == LeftOutLine.NotAccountedFor && line.Place.Page >= page && line.Place.Box.Top > bottom - 1);
            if (follows is not null && LeadingWords().Match(follows.Text).Value.Trim() is { Length: >= 5 } cue)
                cues.Add(cue);
        }
        return plan with { Items = plan.Items! with { Closes = [.. plan.Items.Closes, .. cues.Distinct().Except(plan.Items.Closes)] } };
    }

    /// <summary>The first block ends where the second one's title or headings stand.</summary>
    private static DraftPlan WithSecond(DraftPlan plan, FoundItems second)
    {
        var lines = second.Headings.Page.Lines;
        var title = lines.LastOrDefault(line => line.Box.Bottom < second.Headings.Box.Top && second.Headings.Box.Top - line.Box.Bottom < 25 && !line.Text.Any(char.IsAsciiDigit));
        var cue = title?.Text ?? second.Headings.All[0].Text;
        return plan with
        {
            Items = plan.Items! with { Closes = [cue, .. plan.Items.Closes] },
            Second = second.Plan with { Closes = plan.Items.Closes, Fold = plan.Items.Fold },
        };
    }

    private static DraftPlan WithUnitGlued(DraftPlan plan)
    {
        var columns = plan.Items!.Columns.Select(column =>
        {
            if (column.Name != TradeNames.Quantity || column.Rule["tidy"] is not null)
                return column;
            var rule = (JsonObject)column.Rule.DeepClone();
            rule["tidy"] = new JsonArray(new JsonObject { ["splitUnit"] = TradeNames.Unit });
            return column with { Rule = rule };
        });
        return plan with { Items = plan.Items with { Columns = [.. columns] } };
    }

    [GeneratedRegex(@"^[^\d:|]+")]
    private static partial Regex LeadingWords();
}
