using System.Collections.Immutable;
using System.Globalization;
using System.Text.RegularExpressions;
using Daxlin.Core.Checks;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;
using Daxlin.Core.Templates.Tidy;
using Daxlin.Core.Values;

namespace Daxlin.Core.Capture.Blocks;

/// <summary>Turns the printed cells of a row into typed values.</summary>
internal sealed partial class RowReader(BlockRule block, int number, Habits habits)
{
    private readonly ImmutableArray<CapturedValue>.Builder cells =
        ImmutableArray.CreateBuilder<CapturedValue>(block.Columns.Length + block.Carry.Length);
    private ImmutableArray<Finding> findings = [];

    public static (CapturedLine Line, ImmutableArray<Finding> Findings) Read(BlockRule block, int number, RowDraft draft, Habits habits)
    {
        var reader = new RowReader(block, number, habits);
        foreach (var column in block.Columns)
            reader.ReadColumn(column, draft.Cells.GetValueOrDefault((column.Source as PartOfColumn)?.Column ?? column.Name));
        foreach (var carry in block.Carry)
        {
            if (draft.Cells.GetValueOrDefault(carry.Column) is { } text)
                reader.Add(carry.Column, ValueKind.Text, Reading.Of(text.Text), new Trace(text.Places, "carried from above", text.Text, 1));
        }
        ImmutableArray<RowsUnder> under = block.RowsUnder.IsEmpty ? [] : [.. block.RowsUnder
            .Select(rule => new RowsUnder(rule.Name, rule.Flat, reader.ReadUnder(rule, draft)))
            .Where(list => !list.Rows.IsEmpty)];
        foreach (var rule in block.RowsUnder.Where(rule => rule.Required && !under.Any(list => list.Name == rule.Name)))
            reader.findings = reader.findings.Add(Finding.Hold("list-missing", $"Row {reader.Row} has no {TradeNames.Spoken(rule.Name)} under it.", About(block, number, rule.Name)));
        return (new CapturedLine(block.Name, number, reader.cells.DrainToImmutable()) { Under = under, PassedOver = PassedOver(block, draft) }, reader.findings);
    }

    private static ImmutableArray<KeyValuePair<string, string>> PassedOver(BlockRule block, RowDraft draft) => block.Columns.All(column => column.Kept) ? [] :
        [.. from column in block.Columns
            where !column.Kept && draft.Cells.ContainsKey(column.Name)
            select KeyValuePair.Create(column.Name, draft.Cells[column.Name].Text)];

    private void ReadColumn(ColumnRule column, Printed? text)
    {
        if (column.Source is ConstantColumn constant)
            text = new Printed(constant.Value, []);
        // A looked-up column is filled when all blocks are read; what it is looked up with must be there by then.
        if (column.Source is LookedUp || (!column.Kept && !LookUps.LooksUpWith(block, column)))
            return;
        if (text is not null && Printed.IsDash(text.Text))
        {
            if (column.DashIsZero)
            {
                Add(column.Name, column.Kind, Reading.Of(0m), TraceOf(column, text));
                return;
            }
        }
        else if (text is not null && TryRead(column, text))
        {
            return;
        }
        if (column.Required)
        {
            findings = findings.Add(Finding.Hold(
                "value-missing", $"Row {Row} has no {TradeNames.Spoken(column.Name)}.", About(column.Name)));
        }
    }

    /// <summary>False if nothing is left of the text to read.</summary>
    private bool TryRead(ColumnRule column, Printed text)
    {
        var (tidied, reading) = text.Read(column.Tidy, column.Kind, habits);
        if (reading.IsGood && column.Shape is { } shape && !MatchesWhole(shape, tidied))
        {
            findings = findings.Add(Finding.Hold(
                "value-unreadable", $"Row {Row}: the {TradeNames.Spoken(column.Name)} “{tidied}” does not have the shape {shape}.", About(column.Name)));
            return true;
        }
        if (reading.IsGood)
        {
            Add(column.Name, column.Kind, reading, TraceOf(column, text));
            if (column.Name == TradeNames.Unit)
                DoubtUnit(tidied, RateOrDecimal());
            else
                DoubtRate(column, text.Text);
            AddUnit(column, text);
            return true;
        }
        if (tidied.Length == 0)
            return false;
        findings = findings.Add(Finding.Hold(
            "value-unreadable",
            $"Row {Row}: the {TradeNames.Spoken(column.Name)} “{tidied}” {reading.Fault}.{HelpWith(column, tidied)}",
            About(column.Name)));
        return true;
    }

    private static bool MatchesWhole(Regex shape, string text) => shape.Match(text) is { Success: true, Index: 0 } match && match.Length == text.Length;

    /// <summary>The key that would help with a bare number that has letters beside it.</summary>
    private static string HelpWith(ColumnRule column, string text) =>
        column.Kind == ValueKind.Number && SplitUnit.Parts(text).Unit.Length > 0
            ? " “splitUnit” parts a unit from its number; money is of the type “price” or “money”." : "";

    /// <summary>The unit that a step parts from the number goes to its own column, unless that has a place of its own.</summary>
    private void AddUnit(ColumnRule column, Printed text)
    {
        if (column.Tidy.OfType<SplitUnit>().FirstOrDefault() is not { } split || block.Columns.Any(other => other.Name == split.Column))
            return;
        var before = column.Tidy.TakeWhile(step => step != split).Aggregate(text.Text, (rest, step) => step.Apply(rest));
        if (SplitUnit.Parts(before).Unit is { Length: > 0 } unit)
        {
            Add(split.Column, ValueKind.Text, Reading.Of(unit), new Trace(text.Places, $"split from column {column.Name}", text.Text, 1));
            DoubtUnit(unit, SecondFigure());
        }
    }

    /// <summary>A rate or another figure that got among the words of a unit may be missing elsewhere.</summary>
    private void DoubtUnit(string unit, Regex strange)
    {
        if (strange.Match(unit) is not { Success: true } figure)
            return;
        findings = findings.Add(Finding.Hold(
            "unit-doubtful", $"Row {Row}: the unit “{unit}” holds the figure {figure.Value.Trim()}, which may be another column's.", About(TradeNames.Unit)));
    }

    /// <summary>A rate beside the number of a column that is read as none, and that no other column takes, is lost.</summary>
    private void DoubtRate(ColumnRule column, string text)
    {
        if (column.Kind is not (ValueKind.Whole or ValueKind.Number or ValueKind.Price or ValueKind.Money) || !text.Contains('%', StringComparison.Ordinal) || column.Tidy.Any(step => step is SplitUnit)
            || block.Columns.Any(other => other.Source is PartOfColumn part && part.Column == column.Name))
            return;
        findings = findings.Add(Finding.Hold(
            "rate-beside", $"Row {Row}: beside the {TradeNames.Spoken(column.Name)} stands a rate, “{text}”, that no column takes.", About(column.Name)));
    }

    /// <summary>Units may hold whole numbers, as in "box of 12", but no rates and no decimals.</summary>
    [GeneratedRegex(@"[\d.,]+\s?%|(?<!\S)\d+[.,]\d+(?!\S)", RegexOptions.CultureInvariant, 2000)]
    private static partial Regex RateOrDecimal();

    /// <summary>Behind a number and its unit a second number is one too many: "5 kg 19".</summary>
    [GeneratedRegex(@"[\d.,]+\s?%|(?<!\S)\d+[.,]\d+(?!\S)|(?<!\S)\d+$", RegexOptions.CultureInvariant, 2000)]
    private static partial Regex SecondFigure();

    private ImmutableArray<CapturedLine> ReadUnder(RowsUnderRule rule, RowDraft draft)
    {
        var rows = ImmutableArray.CreateBuilder<CapturedLine>();
        foreach (var line in draft.Under.Where(entry => entry.Rule == rule).Select(entry => entry.Line))
        {
            foreach (Match match in rule.Each.Matches(line.Text))
            {
                var row = new RowReader(block, number, habits);
                foreach (var column in rule.Columns)
                    row.ReadColumn(column, TextOf(column, line, match));
                findings = findings.AddRange(row.findings);
                rows.Add(new CapturedLine(rule.Name, rows.Count + 1, row.cells.DrainToImmutable()));
            }
        }
        return rows.ToImmutable();
    }

    private static Printed? TextOf(ColumnRule column, TextLine line, Match match) =>
        match.Groups[(column.Source as PartOfColumn)?.Column ?? column.Name] is { Success: true, Length: > 0 } group
            ? LineSpan.Of(line, group.Index, group.Length) : null;

    private static Trace TraceOf(ColumnRule column, Printed text) =>
        new(text.Places, column.Says, text.Text, 1) { Steps = text.StepsOf(column.Tidy) };

    private void Add(string name, ValueKind kind, Reading reading, Trace trace) =>
        cells.Add(new CapturedValue(name, kind, reading.Value, reading.Number, trace));

    private string About(string column) => About(block, number, column);

    /// <summary>How findings and ties name a cell: <c>lines[3].amount</c>.</summary>
    public static string About(BlockRule block, int number, string column) =>
        string.Create(CultureInfo.InvariantCulture, $"{block.List}[{number}].{column}");

    private string Row => RowName(block, number);

    /// <summary>A row as a finding names it: "3", "3 of the taxes".</summary>
    public static string RowName(BlockRule block, int number) =>
        number.ToString(CultureInfo.InvariantCulture) + (block.HoldsItems ? "" : $" of the {block.List}");
}
