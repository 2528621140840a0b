using System.Collections.Immutable;
using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Daxlin.Core.Capture;
using Daxlin.Core.Checks;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;
using Daxlin.Core.Templates.Json;
using Daxlin.Core.Values;

namespace Daxlin.Core.Drafting;

/// <summary>A person points at something of the item rows and says what it is; here is what the template then says and gives.</summary>
/// <remarks>
/// As with single values, each way to say it is put into the template and tried by the capture on all invoices at hand; those
/// under which the most is proved and the least in doubt go first. Only the first block of item rows is changed.
/// </remarks>
public static class RowPointing
{
    private static readonly JsonSerializerOptions Json = new() { WriteIndented = true, Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping };

    /// <summary>So many ways are offered; a person reads no more.</summary>
    private const int MostWays = 6;

    /// <summary>So many invoices are drafted from where a block is made anew.</summary>
    private const int MostSamples = 3;

    /// <param name="shown">The invoice that was pointed at.</param>
    /// <param name="place">Where, as a person sees the page; null for <see cref="RowMeaning.Rows"/>.</param>
    /// <param name="column">The column's name, for <see cref="RowMeaning.Column"/> and <see cref="RowMeaning.Placed"/>.</param>
    /// <param name="template">A template document; its block of item rows may be missing or faulty, since it is what is being said.</param>
    /// <param name="others">Other invoices of the vendor.</param>
    /// <returns>The best first; none if nothing stands there.</returns>
    public static ImmutableArray<RowWay> Ways(
        Sample shown, PlaceOnPage? place, RowMeaning what, string? column, string template, Habits reads, IReadOnlyList<Sample> others)
    {
        var pointed = place is { } at ? PointedWords.At(shown, at) : null;
        if (pointed is null && what != RowMeaning.Rows)
            return [];
        ImmutableArray<Sample> samples = [shown, .. others];
        var root = JsonNode.Parse(template)!.AsObject();
        var candidates = what switch
        {
            RowMeaning.Headings => FromHeadings(pointed!, root, reads, samples),
            RowMeaning.Column => WithColumn(pointed!, root, column!),
            RowMeaning.Placed => WithPlaced(pointed!, root, column!),
            RowMeaning.Opens => [Changed(root, block => block["opens"] = Cue(pointed!), $"the rows open with “{pointed!.Text}”")],
            RowMeaning.Closes => WithClosing(pointed!, root),
            RowMeaning.Section => WithSection(root),
            RowMeaning.LeaveOut => WithLeftOut(pointed!, root),
            _ => WithRows(root, shown),
        };
        var patterns = new PatternCache();
        var ways = new List<(RowWay Way, (int, int, int, int) Score, string Rows)>();
        foreach (var (document, says) in candidates)
        {
            var text = document.ToJsonString(Json) + "\n";
            if (TemplateReader.Check(text, patterns) is not { Template: { } changed })
                continue;
            ImmutableArray<CheckedInvoice> invoices = [.. samples.Select(sample => InvoiceChecks.Check(InvoiceCapture.Capture(sample.Pages, changed)))];
            if (what == RowMeaning.Section && !IsSection(invoices[0], pointed!))
                continue;
            var way = new RowWay(
                text, says, invoices[0].Captured.Lines.Length, invoices.Count(invoice => invoice.IsClear),
                invoices.Sum(invoice => invoice.Findings.Count(finding => finding.Severity == Severity.Hold)));
            ways.Add((way, DraftTrial.ScoreOf(invoices, 0), RowsOf(invoices)));
        }
        return [.. ways.OrderByDescending(one => one.Score)
            // Ways that give the same rows are one to a person; the first is the plainest.
            .DistinctBy(one => what == RowMeaning.Rows ? one.Rows : one.Way.Template)
            .Take(MostWays).Select(one => one.Way)];
    }

    private static string RowsOf(ImmutableArray<CheckedInvoice> invoices) => string.Join('\n', invoices.SelectMany(invoice => invoice.Captured.Lines)
        .Select(line => string.Join('|', line.Cells.Select(cell => $"{cell.Name}={cell.Value}"))));

    /// <summary>A document with its block of item rows changed.</summary>
    private static (JsonObject Document, string Says) Changed(JsonObject root, Action<JsonObject> change, string says)
    {
        var document = (JsonObject)root.DeepClone();
        var blocks = document["blocks"] as JsonArray ?? [];
        if (blocks.Parent is null)
            document["blocks"] = blocks;
        var block = blocks.OfType<JsonObject>().FirstOrDefault(one => (string?)one["name"] != BlockRule.Taxes && one["columns"] is JsonObject);
        if (block is null)
        {
            block = new JsonObject { ["name"] = "goods", ["columns"] = new JsonObject(), ["row"] = new JsonObject { ["begins"] = ItemsDraft.Filled(TradeNames.Amount) }, ["required"] = true };
            blocks.Insert(0, block);
        }
        change(block);
        return (document, says);
    }

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

    /// <summary>The column under a heading, in the place that it has among the other columns.</summary>
    private static IEnumerable<(JsonObject, string)> WithColumn(PointedWords pointed, JsonObject root, string column)
    {
        var headings = Headings.At(pointed.Page, pointed.Line, Vocabulary.Columns).All;
        var whole = headings.FirstOrDefault(heading => heading.Box.SharedWidth(pointed.Box) > 0.5 * pointed.Box.Width && heading.Box.SharedHeight(pointed.Box) > 0);
        foreach (var text in new[] { pointed.Text, whole?.Text }.OfType<string>().Select(text => text.TrimEnd(':', ' ')).Distinct())
            yield return Changed(root, block => block["columns"] = WithHeading((JsonObject)block["columns"]!, column, text, headings, pointed.Box.Left), $"the {TradeNames.Spoken(column)} under “{text}”");
    }

    private static JsonObject WithHeading(JsonObject columns, string column, string heading, ImmutableArray<Heading> headings, double left)
    {
        // What the heading said before, or the column, stays: its folding, its tidying.
        var old = columns.FirstOrDefault(pair => pair.Value?["heading"] is { } said && Spellings(said).Contains(Vocabulary.Key(heading)));
        var rule = (JsonObject)((old.Value ?? columns[column])?.DeepClone() ?? new JsonObject());
        foreach (var source in new[] { "edges", "unheaded", "partOf", "always", "lookUp" })
            rule.Remove(source);
        rule["heading"] = heading;
        return Inserted(columns, [column, old.Key ?? ""], column, rule, headings, left);
    }

    /// <summary>Columns with one put where it stands from left to right; a headed column that nothing is known of keeps its place.</summary>
    private static JsonObject Inserted(JsonObject columns, IEnumerable<string> without, string column, JsonObject rule, ImmutableArray<Heading> headings, double left)
    {
        var made = new JsonObject();
        foreach (var (name, value) in columns.Where(pair => !without.Contains(pair.Key)))
        {
            if (!made.ContainsKey(column) && LeftOf(value, headings) > left)
                made[column] = rule;
            made[name] = value?.DeepClone();
        }
        if (!made.ContainsKey(column))
            made[column] = rule;
        return made;
    }

    private static double? LeftOf(JsonNode? column, ImmutableArray<Heading> headings) =>
        column?["edges"] is JsonArray { Count: 2 } edges ? (double)edges[0]!
            : column?["heading"] is { } said ? headings.FirstOrDefault(heading => Spellings(said).Contains(Vocabulary.Key(heading.Text)))?.Box.Left : null;

    private static HashSet<string> Spellings(JsonNode cue) =>
        [.. (cue is JsonArray list ? list.SelectMany(one => one is JsonArray inner ? inner : [one?.DeepClone()]) : [cue.DeepClone()]).Select(one => Vocabulary.Key((string?)one ?? ""))];

    /// <summary>A column without a heading: between its neighbours, or from the gap on its left to that on its right.</summary>
    private static IEnumerable<(JsonObject, string)> WithPlaced(PointedWords pointed, JsonObject root, string column)
    {
        var (line, page) = (pointed.Line, pointed.Page);
        var (before, after) = (pointed.First == 0 ? 0 : line.Words[pointed.First - 1].Box.Right, pointed.First + pointed.Count < line.Words.Length ? line.Words[pointed.First + pointed.Count].Box.Left : page.Width);
        // Half a gap belongs to each of its neighbours, and a wide one is no reason for a wide column.
        var (left, right) = (pointed.Box.Left - Math.Min(20, (pointed.Box.Left - before) / 2), pointed.Box.Right + Math.Min(20, (after - pointed.Box.Right) / 2));
        yield return Changed(
            root,
            block => block["columns"] = Inserted(
                (JsonObject)block["columns"]!, [column], column, new JsonObject { ["edges"] = new JsonArray(Math.Floor(left), Math.Ceiling(right)) }, HeadingsOf(block, page), pointed.Box.Left),
            $"the {TradeNames.Spoken(column)} from {Math.Floor(left)} to {Math.Ceiling(right)} points");
        yield return Changed(
            root,
            block => block["columns"] = Inserted(
                (JsonObject)block["columns"]!, [column], column, new JsonObject { ["unheaded"] = true }, HeadingsOf(block, page), pointed.Box.Left),
            $"the {TradeNames.Spoken(column)} between its neighbours, wherever they stand");
    }

    /// <summary>Where the headings of a block are printed on a page.</summary>
    private static ImmutableArray<Heading> HeadingsOf(JsonObject block, Page page)
    {
        var said = ((JsonObject)block["columns"]!).Select(pair => pair.Value?["heading"]).OfType<JsonNode>().SelectMany(Spellings).ToHashSet();
        return [.. page.Lines.Select(line => Headings.At(page, line, Vocabulary.Columns).All).MaxBy(headings => headings.Count(heading => said.Contains(Vocabulary.Key(heading.Text))))];
    }

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
        var columns = Changed(root, _ => { }, "").Document["blocks"]!.AsArray().OfType<JsonObject>().First(block => block["columns"] is JsonObject)["columns"]!.AsObject()
            .Where(pair => pair.Value?["heading"] is not null || pair.Value?["edges"] is not null).Take(4).Select(pair => pair.Key).ToList();
        return columns.Select(column => Changed(
            root,
            block => block["carry"] = new JsonObject { [TradeNames.Section] = new JsonObject { ["beginsIn"] = column } },
            $"a heading for the rows below it, where it begins in the column {TradeNames.Spoken(column)}"));
    }

    private static bool IsSection(CheckedInvoice invoice, PointedWords pointed) => invoice.Captured.Lines
        .Select(line => line.Find(TradeNames.Section)).OfType<CapturedValue>()
        .Any(section => section.Trace.Places.Any(place => place.Page == pointed.Page.Number && place.Box.SharedWidth(pointed.Box) > 0 && place.Box.SharedHeight(pointed.Box) > 0));

    /// <summary>A line that is none of the rows: by its first words, or by its form.</summary>
    private static IEnumerable<(JsonObject, string)> WithLeftOut(PointedWords pointed, JsonObject root)
    {
        foreach (var (text, end, says) in new[]
        {
            (Cue(pointed).ToString(), "", "lines that begin with “{0}” are none of the rows"),
            (pointed.Line.Text, "$", "lines of the form “{0}” are none of the rows"),
        })
        {
            var pattern = "^" + Regex.Replace(Regex.Escape(text).Replace(@"\ ", " ", StringComparison.Ordinal), @"\d+", @"\d+") + end;
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
        var columns = Changed(root, _ => { }, "").Document["blocks"]!.AsArray().OfType<JsonObject>().First(block => block["columns"] is JsonObject)["columns"]!.AsObject();
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
