using System.Collections.Immutable;
using Daxlin.Core.Json;

namespace Daxlin.Core.Templates.Json;

/// <summary>Reads the <c>row</c> of a block: what makes a row.</summary>
internal static class RowRuleReader
{
    /// <summary>What a fault shows as the usual way to say it.</summary>
    private const string Example = "{ \"begins\": { \"filled\": \"quantity\" } }";

    public static RowRule? Read(JsonPlace block, ImmutableArray<ColumnRule> columns, FaultList faults)
    {
        if (block.Find("row") is not { } row)
        {
            faults.Add(block, "The key “row” is missing: what begins a row.");
            return null;
        }
        if (!faults.IsObjectOf(row, "begins", "matching", "fields", "only"))
            return null;
        var kinds = row.Members.Where(member => member.Key != "only").ToList();
        if (kinds is not [var (kind, value)])
        {
            faults.Add(row, $"Say one thing that makes a row: {Example}, or a pattern: {{ \"matching\": … }}, or header “fields”.");
            return null;
        }
        return kind switch
        {
            "matching" => faults.Pattern(value) is { } pattern ? new IsMatch(pattern) : null,
            "fields" => ReadFields(value, columns, faults),
            _ => ReadBegins(value, columns, faults),
        };
    }

    private static RowRule? ReadBegins(JsonPlace begins, ImmutableArray<ColumnRule> columns, FaultList faults)
    {
        if (!faults.IsObjectOf(begins, "filled", "matching", "gap", "ruling"))
            return null;
        if (begins.Find("gap") is { } gap)
        {
            faults.IsObjectOf(begins, "gap");
            return new BeginsAfterGap(faults.Points(gap, 0));
        }
        if (begins.Find("ruling") is { } ruling)
        {
            faults.IsObjectOf(begins, "ruling");
            if (!faults.Flag(ruling, true))
                faults.Add(ruling, "Leave “ruling” out, or say true.");
            return new BeginsBelowRuling();
        }
        var form = begins.Find("matching") is { } matching ? faults.Pattern(matching) : null;
        if (begins.Find("filled") is null)
        {
            if (form is null)
                faults.Add(begins, $"Say what begins a row: {Example}, a pattern, a gap in points, or a ruling.");
            return form is null ? null : new BeginsMatching(form);
        }
        var filled = faults.RequiredText(begins, "filled");
        if (filled.Length > 0 && !columns.Any(column => column.Name == filled && column.IsPlaced))
            faults.Add(begins, columns.Any(column => column.Name == filled) ? $"The column “{filled}” has no place of its own on the page, so no row can begin in it." : $"There is no column “{filled}”.");
        return new BeginsFilled(filled, form);
    }

    private static IsFields? ReadFields(JsonPlace place, ImmutableArray<ColumnRule> columns, FaultList faults)
    {
        if (!place.IsObject)
        {
            faults.Add(place, "An object in braces is wanted here: { \"description\": \"subject\", \"amount\": \"subtotal\" }.");
            return null;
        }
        foreach (var (column, value) in place.Members.Where(member => !columns.Any(column => column.Name == member.Key)))
            faults.Add(value, $"There is no column “{column}”.");
        return new IsFields([.. place.Members.Select(member => KeyValuePair.Create(member.Key, faults.Text(member.Value)))]);
    }
}
