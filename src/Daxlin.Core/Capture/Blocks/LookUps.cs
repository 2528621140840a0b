using System.Collections.Immutable;
using Daxlin.Core.Checks;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Capture.Blocks;

/// <summary>Fills columns that are looked up in the rows of another block: the rate that a tax code stands for in a legend.</summary>
internal static class LookUps
{
    /// <param name="rows">The rows of one list.</param>
    /// <param name="all">The rows of all lists; looked at only if a template looks anything up.</param>
    /// <param name="findings">What could not be found is added here.</param>
    public static ImmutableArray<CapturedLine> Fill(
        Template template, IReadOnlyCollection<CapturedLine> rows, IEnumerable<CapturedLine> all, ICollection<Finding> findings) =>
        !template.Blocks.Any(block => block.Columns.Any(column => column.Source is LookedUp)) ? [.. rows]
        : [.. rows.Select(row => template.Blocks.FirstOrDefault(block => block.Name == row.Block) is { } block ? Fill(block, row, all, findings) : row)];

    /// <summary>Says that a column is the key of a look-up.</summary>
    public static bool LooksUpWith(BlockRule block, ColumnRule column) =>
        block.Columns.Any(other => other.Source is LookedUp lookUp && lookUp.With == column.Name);

    private static CapturedLine Fill(
        BlockRule block, CapturedLine row, IEnumerable<CapturedLine> all, ICollection<Finding> findings)
    {
        foreach (var column in block.Columns)
        {
            if (column.Source is not LookedUp lookUp || row.Find(lookUp.With) is not { } key)
                continue;
            var found = all.Where(other => other.Block == lookUp.Block && other.Find(lookUp.Match)?.Value == key.Value)
                .Select(other => other.Find(lookUp.Take)).OfType<CapturedValue>().DistinctBy(value => value.Value).ToList();
            if (found is [var value])
            {
                var trace = value.Trace with { Whereabouts = $"looked up by {lookUp.With} “{key.Value}” in {lookUp.Block}" };
                row = row with { Cells = row.Cells.Add(value with { Name = column.Name, Trace = trace }) };
                continue;
            }
            findings.Add(Finding.Hold(
                "not-looked-up",
                $"Row {RowReader.RowName(block, row.Number)}: the {TradeNames.Spoken(column.Name)} for “{key.Value}” "
                + (found.Count == 0 ? $"is not in the block {lookUp.Block}." : $"stands in the block {lookUp.Block} in different ways."),
                RowReader.About(block, row.Number, column.Name)));
        }
        var passed = block.Columns.Where(column => !column.Kept).Select(column => column.Name).ToList();
        return passed.Count == 0 ? row : row with { Cells = row.Cells.RemoveAll(cell => passed.Contains(cell.Name)) };
    }
}
