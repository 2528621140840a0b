using System.Collections.Immutable;
using System.Globalization;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Daxlin.Core.Capture;
using Daxlin.Core.Capture.Blocks;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;
using Daxlin.Core.Templates.Json;
using Daxlin.Core.Values;

namespace Daxlin.Core.Drafting;

/// <summary>The ways to say in a template what a person points at of its item rows, untried. Only the first block of item rows is changed.</summary>
internal static class RowCandidates
{
    /// <summary>So many invoices are drafted from where a block is made anew.</summary>
    private const int MostSamples = 3;

    /// <param name="pointed">Null for <see cref="RowMeaning.Rows"/>.</param>
    /// <param name="samples">The invoice that was pointed at, then the others.</param>
    /// <returns>Whole template documents, the plainest way first, each with what was changed.</returns>
    public static IEnumerable<(JsonObject Document, string Says)> Of(
        RowMeaning what, PointedWords? pointed, string? column, string template, Habits reads, ImmutableArray<Sample> samples)
    {
        var root = JsonNode.Parse(template)!.AsObject();
        var printed = pointed is null ? ImmutableDictionary<string, Box>.Empty : PrintedHeadings(template, (string?)BlockOf(root)?["name"], pointed.Page);
        return what switch
        {
            RowMeaning.Headings => FromHeadings(pointed!, root, reads, samples),
            RowMeaning.Column => WithColumn(pointed!, root, column!, printed),
            RowMeaning.Placed => WithPlaced(pointed!, root, column!, printed),
            RowMeaning.Opens => [Changed(root, block => block["opens"] = Cue(pointed!), $"the rows open with “{pointed!.Text}”")],
            RowMeaning.Closes => WithClosing(pointed!, root),
            RowMeaning.Section => WithSection(root),
            RowMeaning.LeaveOut => WithLeftOut(pointed!, root),
            _ => WithRows(root, samples[0]),
        };
    }

    /// <summary>A document with its block of item rows changed; a document without one gets one.</summary>
    private static (JsonObject Document, string Says) Changed(JsonObject root, Action<JsonObject> change, string says)
    {
        var document = (JsonObject)root.DeepClone();
        if (document["blocks"] is not JsonArray blocks)
            document["blocks"] = blocks = [];
        if (BlockOf(document) is not { } block)
        {
            block = new JsonObject { ["name"] = "goods", ["columns"] = new JsonObject(), ["row"] = new JsonObject { ["begins"] = ItemsDraft.Filled(TradeNames.Amount) }, ["required"] = true };
            blocks.Insert(0, block);
        }
        change(block);
        return (document, says);
    }

    private static JsonObject? BlockOf(JsonObject document) =>
        (document["blocks"] as JsonArray)?.OfType<JsonObject>().FirstOrDefault(block => (string?)block["name"] != BlockRule.Taxes && block["columns"] is JsonObject);

    private static JsonObject ColumnsOf(JsonObject document) => BlockOf(document)?["columns"] as JsonObject ?? [];

    /// <summary>The block anew, from a line of headings: its columns by arithmetic, its end, its folding, as in a draft.</summary>
    private static IEnumerable<(JsonObject, string)> FromHeadings(PointedWords pointed, JsonObject root, Habits reads, ImmutableArray<Sample> samples)
    {
        samples = [.. samples.Take(MostSamples).Select(sample => sample.Upright)];
        var headings = Headings.At(pointed.Page, pointed.Line, Vocabulary.Columns);
        if (ItemsDraft.Of(samples, reads, headings) is not { } items)
            yield break;
        var totals = samples.Select((sample, index) => TotalsDraft.Of(TotalsDraft.StatedOn(sample, items.Ends[index], reads), items.Amounts[index], reads)).ToImmutableArray();
        var taxes = (root["blocks"] as JsonArray)?.OfType<JsonObject>().FirstOrDefault(block => (string?)block["name"] == BlockRule.Taxes);
        var plan = DraftPlan.Of(reads) with { Items = items.Plan, Rows = items.Rows, Taxes = taxes };
        foreach (var (name, rule) in root["fields"] as JsonObject ?? [])
            plan = plan.With(name, rule as JsonObject);
        plan = DraftTrial.Best(plan, [.. ItemChoices.Of(items, null, totals, samples)], samples);
        yield return Changed(
            root,
            block =>
            {
                var made = plan.Items!.Block(taxes);
                made["name"] = block["name"]?.DeepClone();
                block.Clear();
                foreach (var (key, value) in made)
                    block[key] = value?.DeepClone();
            },
            $"rows with {string.Join(", ", plan.Items!.Columns.Where(column => (bool?)column.Rule["kept"] != false).Select(column => TradeNames.Spoken(column.Name)))}");
    }

    /// <summary>Where the capture finds the headings of the block of item rows on a page, by column; nothing while the template has faults.</summary>
    private static ImmutableDictionary<string, Box> PrintedHeadings(string template, string? name, Page page)
    {
        var block = TemplateReader.Check(template).Template?.Blocks.FirstOrDefault(block => block.Name == name);
        var band = block is null ? null : HeadingFinder.Find(page, 0, block.Columns);
        return band is null ? ImmutableDictionary<string, Box>.Empty : band.Headings.ToImmutableDictionary(heading => heading.Rule.Name, heading => heading.Box);
    }

    /// <summary>The column under a heading, in the place that it has among the other columns.</summary>
    private static IEnumerable<(JsonObject, string)> WithColumn(PointedWords pointed, JsonObject root, string column, ImmutableDictionary<string, Box> printed)
    {
        var whole = Headings.At(pointed.Page, pointed.Line, Vocabulary.Columns).All.FirstOrDefault(heading => IsIn(pointed.Box, heading.Box));
        var before = printed.FirstOrDefault(heading => IsIn(pointed.Box, heading.Value)).Key;
        foreach (var text in new[] { pointed.Text, whole?.Text }.OfType<string>().Select(text => text.TrimEnd(':', ' ')).Distinct())
        {
            yield return Changed(
                root,
                block =>
                {
                    var columns = (JsonObject)block["columns"]!;
                    // What the heading said before, or the column, stays: its folding, its tidying.
                    var rule = (JsonObject)((columns[before ?? column] ?? columns[column])?.DeepClone() ?? new JsonObject());
                    foreach (var source in new[] { "edges", "unheaded", "partOf", "always", "lookUp" })
                        rule.Remove(source);
                    rule["heading"] = text;
                    block["columns"] = Inserted(columns, [column, before ?? column], column, rule, printed, pointed.Box.Left);
                },
                $"the {TradeNames.Spoken(column)} under “{text}”");
        }
    }

    private static bool IsIn(Box words, Box heading) => heading.SharedWidth(words) > 0.5 * words.Width && heading.SharedHeight(words) > 0;

    /// <summary>Columns with one put where it stands from left to right; one that stands nowhere on the page keeps its place.</summary>
    private static JsonObject Inserted(
        JsonObject columns, IEnumerable<string> without, string column, JsonObject rule, ImmutableDictionary<string, Box> printed, double left)
    {
        var made = new JsonObject();
        foreach (var (name, value) in columns.Where(pair => !without.Contains(pair.Key)))
        {
            var own = value?["edges"] is JsonArray { Count: 2 } edges ? (double)edges[0]! : printed.TryGetValue(name, out var box) ? box.Left : (double?)null;
            if (!made.ContainsKey(column) && own > left)
                made[column] = rule;
            made[name] = value?.DeepClone();
        }
        if (!made.ContainsKey(column))
            made[column] = rule;
        return made;
    }

    /// <summary>A column without a heading: between its neighbours, or from the gap on its left to that on its right.</summary>
    private static IEnumerable<(JsonObject, string)> WithPlaced(PointedWords pointed, JsonObject root, string column, ImmutableDictionary<string, Box> printed)
    {
        var (line, page) = (pointed.Line, pointed.Page);
        var (before, after) = (pointed.First == 0 ? 0 : line.Words[pointed.First - 1].Box.Right, pointed.First + pointed.Count < line.Words.Length ? line.Words[pointed.First + pointed.Count].Box.Left : page.Width);
        // Half a gap belongs to each of its neighbours, and a wide one is no reason for a wide column.
        var left = Math.Floor(pointed.Box.Left - Math.Min(WidestHalfGap, (pointed.Box.Left - before) / 2));
        var right = Math.Ceiling(pointed.Box.Right + Math.Min(WidestHalfGap, (after - pointed.Box.Right) / 2));
        foreach (var (rule, says) in new[]
        {
            (new JsonObject { ["edges"] = new JsonArray(left, right) }, $"from {left} to {right} points"),
            (new JsonObject { ["unheaded"] = true }, "between its neighbours, wherever they stand"),
        })
        {
            yield return Changed(
                root, block => block["columns"] = Inserted((JsonObject)block["columns"]!, [column], column, (JsonObject)rule.DeepClone(), printed, pointed.Box.Left),
                $"the {TradeNames.Spoken(column)} {says}");
        }
    }

    /// <summary>In points.</summary>
    private const double WidestHalfGap = 20;

    private static IEnumerable<(JsonObject, string)> WithClosing(PointedWords pointed, JsonObject root)
    {
        var cue = Cue(pointed);
        yield return Changed(root, block => block["closes"] = new JsonArray([cue.DeepClone(), .. Closing(block).Where(one => (string?)one != (string?)cue)]), $"the rows end with “{cue}”, or with what ended them before");
        yield return Changed(root, block => block["closes"] = new JsonArray(cue.DeepClone()), $"the rows end with “{cue}”");

        static IEnumerable<JsonNode?> Closing(JsonObject block) => block["closes"] switch
        {
            JsonArray list => list.Select(one => one?.DeepClone()),
            { } one => [one.DeepClone()],
            null => [],
        };
    }

    /// <summary>Words, without the figures behind them, which are another invoice's others.</summary>
    private static JsonValue Cue(PointedWords pointed)
    {
        var words = Regex.Match(pointed.Text, @"^[^\d]*[^\d\s:]").Value;
        return JsonValue.Create(words.Length > 0 ? words : pointed.Text);
    }

    private static IEnumerable<(JsonObject, string)> WithSection(JsonObject root)
    {
        var columns = ColumnsOf(root)
            .Where(pair => pair.Value?["heading"] is not null || pair.Value?["edges"] is not null).Take(4).Select(pair => pair.Key).ToList();
        return columns.Select(column => Changed(
            root,
            block => block["carry"] = new JsonObject { [TradeNames.Section] = new JsonObject { ["beginsIn"] = column } },
            $"a heading for the rows below it, where it begins in the column {TradeNames.Spoken(column)}"));
    }

    /// <summary>A line that is none of the rows: by its first words, or by its form.</summary>
    private static IEnumerable<(JsonObject, string)> WithLeftOut(PointedWords pointed, JsonObject root)
    {
        foreach (var (text, end, says) in new[]
        {
            (Cue(pointed).ToString(), "", "lines that begin with “{0}” are none of the rows"),
            (pointed.Line.Text, "$", "lines of the form “{0}” are none of the rows"),
        })
        {
            var pattern = "^" + FormPattern.WithAnyFigures(text) + end;
            yield return Changed(
                root, block => block["leaveOut"] = new JsonArray([.. (block["leaveOut"] as JsonArray ?? []).Select(one => one?.DeepClone()), pattern]),
                string.Format(System.Globalization.CultureInfo.InvariantCulture, says, text));
        }
    }

    private static readonly (string Fold, string Says)[] Folds =
        [("down", "text wraps below its row"), ("up", "text wraps above its row"), ("around", "text wraps above and below its row"), ("allDown", "all text below belongs to the row"), ("none", "text does not wrap")];

    /// <summary>How rows begin and how their text wraps, in all ways that the columns allow.</summary>
    private static IEnumerable<(JsonObject, string)> WithRows(JsonObject root, Sample shown)
    {
        yield return Changed(root, _ => { }, "as it is");
        var columns = ColumnsOf(root);
        var begins = new List<(JsonObject Rule, string Says)>();
        foreach (var (name, rule) in columns)
        {
            if (rule?["partOf"] is null && rule?["always"] is null && rule?["lookUp"] is null && name != TradeNames.Description)
                begins.Add((ItemsDraft.Filled(name), $"a row begins where its {TradeNames.Spoken(name)} stands"));
        }
        begins.Add((new JsonObject { ["ruling"] = true }, "rows stand between rulings"));
        // A gap as high as a line of the page's type, and a half more.
        var sizes = shown.Lines.Select(line => line.Words[0].Size).Order().ToList();
        if (sizes.Count > 0)
            begins.Add((new JsonObject { ["gap"] = Math.Round(1.5 * sizes[sizes.Count / 2]) }, "rows stand between gaps"));
        foreach (var (rule, begun) in begins)
        {
            foreach (var (fold, wraps) in Folds)
            {
                yield return Changed(
                    root,
                    block =>
                    {
                        block["row"] = new JsonObject { ["begins"] = rule.DeepClone() };
                        if (((JsonObject)block["columns"]!).FirstOrDefault(pair => pair.Value?["fold"] is not null || pair.Key == TradeNames.Description).Value is JsonObject text)
                            text["fold"] = fold;
                    },
                    $"{begun}; {wraps}");
            }
        }
    }
}
