using System.Collections.Immutable;
using System.Text.Json.Nodes;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Drafting;

/// <summary>The block of item rows in the making.</summary>
/// <param name="Columns">In reading order.</param>
/// <param name="Begins">What begins a row.</param>
/// <param name="Fold">How text columns wrap: down, around, up; empty for not at all.</param>
/// <param name="Closes">Cues that close it.</param>
/// <param name="Section">The column in which headings between the rows begin, or null.</param>
internal sealed record ItemsPlan(
    ImmutableArray<ColumnPlan> Columns, JsonObject Begins, string Fold, ImmutableArray<string> Closes, string? Section)
{
    /// <summary>Lines of dashes stand between the rows.</summary>
    public bool HasRulesOfMarks { get; init; }

    /// <summary>The code wraps with its row, or stands beside its figures at another height.</summary>
    public bool CodeFolds { get; init; }

    /// <summary>The list under each row, or null.</summary>
    public JsonObject? RowsUnder { get; init; }

    public JsonObject Block(JsonObject? taxes)
    {
        var columns = new JsonObject();
        foreach (var column in Columns)
        {
            var rule = (JsonObject)column.Rule.DeepClone();
            if (Fold.Length > 0 && (column.Folds || (CodeFolds && column.Name == TradeNames.ItemCode && rule["partOf"] is null)))
                rule["fold"] = Fold;
            columns[column.Name] = rule;
        }
        // A letter on the row stands for a rate that the summary says.
        if (columns.ContainsKey("taxCode") && taxes?["columns"]?["code"] is not null)
        {
            columns[TradeNames.TaxRate] = new JsonObject
            {
                ["lookUp"] = new JsonObject { ["block"] = BlockRule.Taxes, ["match"] = "code", ["with"] = "taxCode", ["take"] = "rate" },
            };
        }
        var block = new JsonObject { ["name"] = "goods" };
        if (!Closes.IsEmpty)
            block["closes"] = new JsonArray([.. Closes.Select(cue => (JsonNode)cue)]);
        block["columns"] = columns;
        block["row"] = new JsonObject { ["begins"] = Begins.DeepClone() };
        if (RowsUnder is not null)
            block["rowsUnder"] = new JsonArray(RowsUnder.DeepClone());
        if (HasRulesOfMarks)
            block["leaveOut"] = new JsonArray(@"^[-=_.*~]+$");
        block["required"] = true;
        if (Section is not null)
            block["carry"] = new JsonObject { [TradeNames.Section] = new JsonObject { ["beginsIn"] = Section } };
        return block;
    }
}
