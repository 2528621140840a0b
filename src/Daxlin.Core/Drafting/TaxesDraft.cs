using System.Collections.Immutable;
using System.Globalization;
using System.Text;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Daxlin.Core.Capture;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Drafting;

/// <summary>Finds the tax summary: a table with headings, or lines that read like "VAT 20 % on 136.56".</summary>
internal static partial class TaxesDraft
{
    /// <summary>Each block that may be the tax summary, or none, with amounts that hold the tax and that do not.</summary>
    public static ImmutableArray<DraftWay> Ways(
        ImmutableArray<Sample> samples, ImmutableArray<PlaceOnPage?> ends, ImmutableArray<FoundTotals?> totals, Habits reads)
    {
        var taxes = totals.OfType<FoundTotals>().SelectMany(one => one.Names).Where(one => one.Name == TradeNames.Tax).Select(one => one.Stated).ToImmutableArray();
        IEnumerable<JsonObject?> blocks = [.. Tables(samples, ends, reads), .. Lines(taxes, reads)];
        return [.. from block in blocks.Append(null)
                   from included in new[] { false, true }
                   select (DraftWay)(plan => plan with { Taxes = block, Reads = plan.Reads with { TaxIncluded = included } })];
    }

    private static IEnumerable<JsonObject> Tables(IReadOnlyList<Sample> samples, ImmutableArray<PlaceOnPage?> ends, Habits reads)
    {
        for (var index = 0; index < samples.Count; index++)
        {
            foreach (var table in Headings.FindAll(samples[index].Pages, Vocabulary.TaxTable, IsTaxTable))
            {
                if (ends[index] is { } end && (table.Page.Number < end.Page || (table.Page.Number == end.Page && table.Box.Top < end.Box.Bottom)))
                    continue;
                if (BlockOf(table, reads) is not { } block)
                    continue;
                yield return block;
                yield break;
            }
        }
    }

    private static bool IsTaxTable(ImmutableArray<Heading> headings)
    {
        var rate = headings.Any(heading => heading.Meanings.RankAs(TradeNames.Rate) is not null);
        return rate && headings.Any(heading => heading.Meanings.RankAs(TradeNames.Base) is not null || heading.Meanings.RankAs(TradeNames.Amount) is not null)
            && headings.Count(heading => !heading.Meanings.IsEmpty) >= 2;
    }

    private static JsonObject? BlockOf(Headings table, Habits reads)
    {
        // Totals often stand on the same lines, to the right: the table ends where its known headings do.
        var known = table.All.Select((heading, index) => (heading, index)).Where(one => !one.heading.Meanings.IsEmpty).ToList();
        var columns = new JsonObject();
        var last = default(Box);
        var rate = known.Where(one => one.heading.Meanings.RankAs(TradeNames.Rate) is not null).MinBy(one => one.heading.Meanings.RankAs(TradeNames.Rate)).heading;
        foreach (var name in new[] { "code", TradeNames.Rate, TradeNames.Base, TradeNames.Amount })
        {
            var best = known.Where(one => one.heading.Meanings.RankAs(name) is not null && !columns.Any(column => (string?)column.Value!["heading"] == one.heading.Text))
                .OrderBy(one => Math.Abs(one.heading.Box.CenterX - rate.Box.CenterX)).Select(one => one.heading).FirstOrDefault();
            if (best is null)
                continue;
            columns[name] = new JsonObject { ["heading"] = best.Text };
            last = last == default ? best.Box : last.Union(best.Box);
        }
        if (!columns.ContainsKey(TradeNames.Rate) || columns.Count < 2)
            return null;
        var below = table.Page.Lines.FirstOrDefault(line => line.Box.Top > table.Box.Bottom - 1 && line.Words.Any(word => word.Box.SharedWidth(last) > 0));
        if (below is null || !below.Cells.Any(cell => cell.Box.SharedWidth(last) > 0 && Figures.Read(cell.Text, reads) is not null))
            return null;
        var (left, right) = (Beyond(table.Page, table, last, isLeft: true), Beyond(table.Page, table, last, isLeft: false));
        var block = new JsonObject { ["name"] = BlockRule.Taxes };
        var within = new JsonObject();
        if (left > 0)
            within["left"] = left;
        if (right < table.Page.Width)
            within["right"] = right;
        if (within.Count > 0)
            block["within"] = within;
        // In reading order of the page, as columns of blocks are.
        block["columns"] = new JsonObject(columns.OrderBy(column => table.All.First(heading => heading.Text == (string?)column.Value!["heading"]).Box.Left)
            .Select(column => KeyValuePair.Create(column.Key, column.Value?.DeepClone())));
        block["row"] = new JsonObject { ["begins"] = new JsonObject { ["filled"] = TradeNames.Rate } };
        return block;
    }

    /// <summary>Where what stands beside the table begins; the page's edge if nothing does.</summary>
    private static double Beyond(Page page, Headings table, Box own, bool isLeft)
    {
        var beside = page.Lines.Where(line => line.Box.Bottom > table.Box.Top - 2 && line.Box.Top < table.Box.Bottom + 60).SelectMany(line => line.Cells)
            .Select(cell => cell.Box).Where(box => isLeft ? box.Right < own.Left - 8 : box.Left > own.Right + 8).ToList();
        if (beside.Count == 0)
            return isLeft ? 0 : page.Width;
        return Math.Round(isLeft ? (beside.Max(box => box.Right) + own.Left) / 2 : (beside.Min(box => box.Left) + own.Right) / 2);
    }

    private static IEnumerable<JsonObject> Lines(ImmutableArray<StatedAmount> taxes, Habits reads)
    {
        var patterns = taxes.Where(tax => tax.HasRate).Select(tax => PatternOf(tax, reads)).Distinct().ToList();
        if (patterns.Count == 0)
            yield break;
        // With the base where the words say one, and without.
        foreach (var pattern in patterns.OrderByDescending(pattern => pattern.Contains("<base>", StringComparison.Ordinal)))
        {
            var columns = new JsonObject { [TradeNames.Rate] = new JsonObject() };
            if (pattern.Contains("<code>", StringComparison.Ordinal))
                columns.Insert(0, "code", new JsonObject());
            if (pattern.Contains("<base>", StringComparison.Ordinal))
                columns[TradeNames.Base] = new JsonObject();
            columns[TradeNames.Amount] = new JsonObject { ["dash"] = "zero" };
            yield return new JsonObject { ["name"] = BlockRule.Taxes, ["columns"] = columns, ["row"] = new JsonObject { ["matching"] = pattern } };
        }
    }

    /// <summary>The line's words as a pattern, with its figures left open.</summary>
    private static string PatternOf(StatedAmount tax, Habits reads)
    {
        var number = NumberPattern(reads);
        var mark = $"(?:{string.Join('|', reads.Currency.Marks.Select(one => Regex.Escape(one)))})";
        var pattern = new StringBuilder(tax.Line.StartsWith(tax.Text, StringComparison.Ordinal) ? "^" : @"(?:^|\s)");
        var text = tax.Text;
        var hasBase = false;
        if (CodeAhead().Match(text) is { Success: true } code)
        {
            pattern.Append(@"(?<code>[A-Z0-9]) = ");
            text = text[code.Length..];
        }
        for (var at = 0; at < text.Length;)
        {
            var rate = Rate().Match(text, at);
            var other = Figure().Match(text, at);
            if (rate.Success && rate.Index == at)
            {
                pattern.Append(@"(?<rate>\d+(?:[.,]\d+)? ?%)");
                at += rate.Length;
            }
            else if (other.Success && other.Index == at)
            {
                pattern.Append(hasBase ? number : $"(?<base>(?:{mark} ?)?-?{number}-?(?: ?{mark})?)");
                hasBase = true;
                at += other.Length;
            }
            else
            {
                var next = new[] { rate, other }.Where(match => match.Success).Select(match => match.Index).DefaultIfEmpty(text.Length).Min();
                var words = text[at..next];
                // Marks beside the base belong to it.
                words = Regex.Replace(words, $"{mark} ?$", "");
                words = at > 0 ? Regex.Replace(words, $"^ ?{mark}(?= |$|\\))", "") : words;
                pattern.Append(FormPattern.Literally(words));
                at = next;
            }
        }
        var written = pattern.ToString().TrimEnd();
        return string.Create(CultureInfo.InvariantCulture, $"{written} ?(?<amount>(?:{mark} ?)?-?(?:{mark} ?)?(?:{number}|[-–])-?(?: ?{mark})?)$");
    }

    /// <summary>Strict in its groups, so that two figures beside each other are never read as one: "56 002,07 14 000,52".</summary>
    private static string NumberPattern(Habits reads)
    {
        var groups = string.Concat(reads.GroupingMarks.Select(c => c switch { '.' => @"\.", '\'' => "'’", ' ' => @"\s", _ => c.ToString() }));
        return $@"(?:\d{{1,3}}(?:[{groups}]\d{{3}})+|\d+)(?:{Regex.Escape(reads.DecimalMark.ToString())}\d+)?";
    }

    [GeneratedRegex(@"\d+(?:[.,]\d+)? ?%")]
    private static partial Regex Rate();

    [GeneratedRegex(@"-?\d[\d.,'’  ]*\d-?(?! ?%)|\d(?![\d.,]* ?%)")]
    private static partial Regex Figure();

    [GeneratedRegex(@"^[A-Z0-9] = ")]
    private static partial Regex CodeAhead();
}
