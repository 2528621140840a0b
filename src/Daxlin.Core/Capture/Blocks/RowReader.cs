using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.Checks;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Capture.Blocks;

/// <summary>Turns the printed cells of a row into typed values.</summary>
internal static class RowReader
{
    public static (CapturedLine Line, ImmutableArray<Finding> Findings) Read(
        BlockRule block, int number, IReadOnlyDictionary<string, Printed> printed, Habits habits)
    {
        var cells = ImmutableArray.CreateBuilder<CapturedValue>();
        var findings = ImmutableArray.CreateBuilder<Finding>();
        foreach (var column in block.Columns)
        {
            if (!column.Kept)
                continue;
            var text = printed.GetValueOrDefault(column.PartOf ?? column.Name);
            if (text is not null && !Printed.IsDash(text.Text))
            {
                var (tidied, reading) = text.Read(column.Tidy, column.Kind, habits);
                if (reading.IsGood)
                {
                    var trace = new Trace(text.Places, $"column {column.Name}", text.Text, 1);
                    cells.Add(new CapturedValue(column.Name, column.Kind, reading.Value, reading.Number, trace));
                    continue;
                }
                if (tidied.Length > 0)
                {
                    findings.Add(Finding.Hold(
                        "value-unreadable",
                        $"Row {Row(block, number)}: the {TradeNames.Spoken(column.Name)} “{tidied}” {reading.Fault}.",
                        About(block, number, column.Name)));
                    continue;
                }
            }
            if (column.Required)
            {
                findings.Add(Finding.Hold(
                    "value-missing",
                    $"Row {Row(block, number)} has no {TradeNames.Spoken(column.Name)}.",
                    About(block, number, column.Name)));
            }
        }
        foreach (var carry in block.Carry)
        {
            if (printed.GetValueOrDefault(carry.Column) is { } text)
            {
                cells.Add(new CapturedValue(
                    carry.Column, ValueKind.Text, text.Text, null, new Trace(text.Places, "carried from above", text.Text, 1)));
            }
        }
        return (new CapturedLine(block.Name, number, cells.ToImmutable()), findings.ToImmutable());
    }

    /// <summary>How findings and ties name a cell: <c>lines[3].amount</c>.</summary>
    public static string About(BlockRule block, int number, string column) => string.Create(
        CultureInfo.InvariantCulture, $"{(block.IsTaxSummary ? "taxes" : "lines")}[{number}].{column}");

    private static string Row(BlockRule block, int number) =>
        number.ToString(CultureInfo.InvariantCulture) + (block.IsTaxSummary ? " of the taxes" : "");
}
