using System.Collections.Immutable;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Daxlin.Core.Capture;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Drafting;

/// <summary>Finds the item rows: their headings, their columns, what begins a row.</summary>
internal static partial class ItemsDraft
{
    private static readonly ImmutableArray<string> MoneyColumns = [TradeNames.Amount, TradeNames.UnitPrice, TradeNames.Quantity];

    public static FoundItems? Of(IReadOnlyList<Sample> samples, Habits reads) =>
        (Headings.Find(samples.SelectMany(sample => sample.Pages), Vocabulary.Columns, IsItemTable) is { } headings ? Of(samples, reads, headings) : null)
        ?? (Headings.FindByFigures(samples.SelectMany(sample => sample.Pages), Vocabulary.Columns, reads) is { } above ? Of(samples, reads, above) : null);

    /// <summary>Item rows of another shape, further down: services after the goods.</summary>
    public static FoundItems? Second(IReadOnlyList<Sample> samples, Habits reads, FoundItems first)
    {
        var own = first.Headings.All.Select(heading => Vocabulary.Key(heading.Text)).ToHashSet();
        foreach (var sample in samples)
        {
            foreach (var other in Headings.FindAll(sample.Pages, Vocabulary.Columns, IsItemTable))
            {
                if (other.All.Count(heading => own.Contains(Vocabulary.Key(heading.Text))) * 2 < other.All.Length && Of(samples, reads, other) is { Proved: > 0 } second)
                    return second;
            }
        }
        return null;
    }

    /// <summary>The rows under some headings; null if no row with an amount stands there.</summary>
    public static FoundItems? Of(IReadOnlyList<Sample> samples, Habits reads, Headings headings)
    {
        var begins = BeginsIn(headings.All);
        var rows = RowProbe.Of(samples, reads, headings.All, begins);
        if (rows.IsEmpty)
            return null;
        var (names, proved, _) = ColumnNaming.Of(headings.All, rows, reads);
        var amountColumn = names.IndexOf(TradeNames.Amount);
        var items = rows.Where(row => IsItem(row, names, reads)).ToImmutableArray();
        // Figures far off their headings stand in other columns, or in none, before the columns have types.
        if (items.IsEmpty)
            items = [.. rows.Where(row => IsRow(row, names, reads))];
        if (items.IsEmpty || amountColumn < 0)
            return null;
        return new FoundItems(
            headings, names,
            [.. samples.Select((_, sample) => items.Where(row => row.Sample == sample).Select(row => Figures.Read(row.Texts[amountColumn], reads)?.Number ?? 0).ToImmutableArray())],
            [.. samples.Select((_, sample) => items.LastOrDefault(row => row.Sample == sample) is { } last ? last.Place : (PlaceOnPage?)null)],
            proved, items.Length, PlanOf(headings.All, names, items, reads));
    }

    private static bool IsItemTable(ImmutableArray<Heading> headings) =>
        headings.Count(heading => !heading.Meanings.IsEmpty) >= 3 && headings.Any(heading => heading.Meanings.RankAs(TradeNames.Amount) is not null)
        && headings.Any(heading => heading.Meanings.RankAs(TradeNames.Description) is not null || heading.Meanings.RankAs(TradeNames.Quantity) is not null || heading.Meanings.RankAs(TradeNames.UnitPrice) is not null);

    /// <summary>Every row has an amount: the rightmost heading that can be one, or the rightmost of all.</summary>
    private static int BeginsIn(ImmutableArray<Heading> headings) => Enumerable.Range(0, headings.Length)
        .OrderByDescending(index => headings[index].Meanings.RankAs(TradeNames.Amount) is not null).ThenByDescending(index => headings[index].Box.Right).First();

    /// <summary>A row with figures in two columns, or with a text beside its amount: sums of the rows have an amount alone.</summary>
    private static bool IsItem(ProbedRow row, ImmutableArray<string?> names, Habits reads)
    {
        if (names.IndexOf(TradeNames.Amount) is not (>= 0 and var amount) || Figures.Read(row.Texts[amount], reads) is null)
            return false;
        var figures = MoneyColumns.Count(name => names.IndexOf(name) is >= 0 and var column && Figures.Read(row.Texts[column], reads) is not null);
        var hasQuantity = names.Contains(TradeNames.Quantity);
        return figures >= (hasQuantity && names.Contains(TradeNames.UnitPrice) ? 3 : 2) || (names.Count(name => name is not null) <= 2 && figures >= 1);
    }

    private static bool IsRow(ProbedRow row, ImmutableArray<string?> names, Habits reads)
    {
        if (names.IndexOf(TradeNames.Amount) is not (>= 0 and var amount) || Figures.Read(row.Texts[amount], reads) is null)
            return false;
        var others = row.Texts.Where((_, column) => column != amount).ToList();
        return others.Exists(text => Figures.Read(text, reads) is not null) || others.Count(text => text.Length > 0) >= 2;
    }

    private static ItemsPlan PlanOf(ImmutableArray<Heading> headings, ImmutableArray<string?> names, ImmutableArray<ProbedRow> items, Habits reads)
    {
        var columns = ImmutableArray.CreateBuilder<ColumnPlan>();
        var isArticle = ArticleColumn(names, items);
        for (var index = 0; index < headings.Length; index++)
        {
            var rule = new JsonObject { ["heading"] = headings[index].Text };
            var texts = items.Select(row => row.Texts[index]).Where(text => text.Length > 0).ToList();
            if (index == isArticle)
            {
                rule["kept"] = false;
                columns.Add(new ColumnPlan("article", rule, Folds: true));
                columns.Add(new ColumnPlan(TradeNames.ItemCode, PartOf("article", @"^(\S+)"), Folds: false));
                columns.Add(new ColumnPlan(TradeNames.Description, PartOf("article", @"^\S+ (.+)$"), Folds: false));
                continue;
            }
            // "10+5" per cent are taken off one after the other.
            if (names[index] == TradeNames.DiscountPercent && texts.Exists(text => Discounts().IsMatch(text)))
            {
                (rule["kept"], rule["required"]) = (false, false);
                columns.Add(new ColumnPlan("less", rule, Folds: false));
                columns.Add(new ColumnPlan(TradeNames.DiscountPercent, PartBy("less", 1), Folds: false));
                columns.Add(new ColumnPlan("discountPercent2", PartBy("less", 2), Folds: false));
                continue;
            }
            // "27,500 /job" is a price with its unit.
            if (names[index] == TradeNames.UnitPrice && texts.Exists(text => text.Contains('/', StringComparison.Ordinal)) && !names.Contains(TradeNames.Unit))
            {
                (rule["kept"], rule["type"]) = (false, "text");
                columns.Add(new ColumnPlan("priceAndUnit", rule, Folds: false));
                columns.Add(new ColumnPlan(TradeNames.UnitPrice, PartOf("priceAndUnit", @"^[^/\s]+"), Folds: false));
                columns.Add(new ColumnPlan(TradeNames.Unit, PartOf("priceAndUnit", @"/\s*(\S+)$"), Folds: false));
                continue;
            }
            var isCode = names[index] == TradeNames.TaxRate && texts.Count > 0 && texts.All(text => text.Length <= 2 && text.All(char.IsLetter));
            var name = isCode ? "taxCode" : names[index] ?? OwnName(headings[index].Text, index, columns);
            if (isCode || names[index] is null or "position")
            {
                rule["kept"] = false;
                rule["required"] = false;
            }
            if (name == TradeNames.Quantity && texts.Any(text => Figures.Read(text, reads)?.Unit.Length > 0) && !names.Contains(TradeNames.Unit))
                rule["tidy"] = new JsonArray(new JsonObject { ["splitUnit"] = TradeNames.Unit });
            if (name is TradeNames.DiscountPercent or TradeNames.PriceBasis || (name == TradeNames.Unit && texts.Count < items.Length))
                rule["required"] = false;
            columns.Add(new ColumnPlan(name, rule, Folds: name == TradeNames.Description));
        }
        return new ItemsPlan(columns.ToImmutable(), Filled(TradeNames.Amount), "down", [], null);
    }

    /// <summary>A column that holds code and description both; -1 for none.</summary>
    private static int ArticleColumn(ImmutableArray<string?> names, ImmutableArray<ProbedRow> items)
    {
        var (code, description) = (names.IndexOf(TradeNames.ItemCode), names.IndexOf(TradeNames.Description));
        var column = description >= 0 ? description : code >= 0 ? code
            : Enumerable.Range(0, names.Length).Where(index => names[index] is null).FirstOrDefault(index => items.All(row => MixedCode().IsMatch(row.Texts[index])), -1);
        if (column < 0 || (description >= 0 && code >= 0))
            return -1;
        var texts = items.Select(row => row.Texts[column]).Where(text => text.Length > 0).ToList();
        // "A562-36 Anti-slip matting" on every row; or codes alone, whose description then stands below them.
        return texts.Count > 0 && texts.All(text => CodeAhead().IsMatch(text)) && (description < 0 || texts.Exists(text => text.Contains(' ', StringComparison.Ordinal))) ? column : -1;
    }

    /// <summary>The block of a draft that found no item rows.</summary>
    public static ItemsPlan NotFound { get; } = new(
        [
            new ColumnPlan(TradeNames.Description, new JsonObject { ["heading"] = "say the heading of the descriptions" }, Folds: true),
            new ColumnPlan(TradeNames.Amount, new JsonObject { ["heading"] = "say the heading of the amounts" }, Folds: false),
        ],
        Filled(TradeNames.Amount), "down", [], null);

    public static JsonObject Filled(string column) => new() { ["filled"] = column };

    private static JsonObject PartBy(string column, int part) =>
        new() { ["partOf"] = column, ["tidy"] = new JsonArray(new JsonObject { ["part"] = part, ["by"] = "+" }) };

    private static JsonObject PartOf(string column, string take) =>
        new() { ["partOf"] = column, ["tidy"] = new JsonArray(new JsonObject { ["take"] = take }) };

    /// <summary>A name of its own for a column that nothing is known of: from its heading, if that makes one.</summary>
    private static string OwnName(string heading, int index, IEnumerable<ColumnPlan> taken)
    {
        var words = new string([.. heading.Select(c => char.IsAsciiLetterOrDigit(c) ? c : ' ')]).Split(' ', StringSplitOptions.RemoveEmptyEntries);
        var name = string.Concat(words.Select((word, at) => at == 0 ? word.ToLowerInvariant() : char.ToUpperInvariant(word[0]) + word[1..].ToLowerInvariant()));
        return name.Length is 0 or > 30 || !char.IsAsciiLetterLower(name[0]) || taken.Any(column => column.Name == name)
            || TradeNames.Columns.Concat(TradeNames.Fields).Any(settled => IsNear(settled, name)) ? $"column{index + 1}" : name;
    }

    /// <summary>Near misses of settled names are faults in a template.</summary>
    private static bool IsNear(string settled, string name) =>
        settled.Contains(name, StringComparison.OrdinalIgnoreCase) || name.Contains(settled, StringComparison.OrdinalIgnoreCase) || Math.Abs(settled.Length - name.Length) <= 2 && settled[0] == name[0];

    [GeneratedRegex(@"^(?=\S*\d)(?=\S*\p{Lu})[A-Z0-9][A-Z0-9./-]{3,}")]
    private static partial Regex MixedCode();

    [GeneratedRegex(@"^\d+(?:[.,]\d+)?(?: ?\+ ?\d+(?:[.,]\d+)?)+ ?%?$")]
    internal static partial Regex Discounts();

    [GeneratedRegex(@"^(?=\S*\d)[A-Z0-9][A-Z0-9./-]*\b")]
    private static partial Regex CodeAhead();
}
