using System.Collections.Immutable;
using System.Text.RegularExpressions;

namespace Daxlin.Core.Templates.Json;

/// <summary>Reads the <c>blocks</c> of a template.</summary>
internal static class BlockReader
{
    public static ImmutableArray<BlockRule> ReadAll(JsonPlace? place, FaultList faults)
    {
        if (place is null)
            return [];
        if (!place.IsArray || place.Items.Length > SharedParts.Most)
        {
            faults.Add(place, $"A list of at most {SharedParts.Most} blocks in brackets is wanted here.");
            return [];
        }
        var blocks = place.Items.Select(item => Read(item, faults)).OfType<BlockRule>().ToImmutableArray();
        foreach (var twice in blocks.GroupBy(block => block.Name).Where(group => group.Count() > 1))
            faults.Add(place, $"Two blocks are named “{twice.Key}”.");
        return blocks;
    }

    private static BlockRule? Read(JsonPlace place, FaultList faults)
    {
        if (!faults.IsObjectOf(place, "name", "opens", "closes", "columns", "row", "carry", "leaveOut", "required"))
            return null;
        var name = faults.RequiredText(place, "name");
        if (place.Find("columns") is not { IsObject: true } columnsPlace || columnsPlace.Members.Length > SharedParts.Most)
        {
            faults.Add(place, $"The key “columns” is wanted here, an object of at most {SharedParts.Most} columns.");
            return null;
        }
        var columns = columnsPlace.Members.Select(member => ReadColumn(member.Key, member.Value, faults)).ToImmutableArray();
        foreach (var (key, value) in columnsPlace.Members)
        {
            if (value.Find("partOf") is { } partOf && !columns.Any(column => column.Name == partOf.Text && column.PartOf is null))
                faults.Add(partOf, $"There is no column “{partOf.Text}” that “{key}” could be part of.");
        }

        var (begins, pattern) = ReadRow(place, columns, faults);
        if (pattern is null)
            CheckPlaced(columnsPlace, columns, faults);
        else
            CheckGroups(place.Find("row")!, pattern, columns, faults);
        return new BlockRule(
            name,
            SharedParts.ReadCue(place.Find("opens"), faults),
            place.Find("closes") is { } closes ? [.. faults.Texts(closes).Select(text => new Cue([text]))] : [],
            columns,
            begins,
            pattern,
            ReadCarry(place.Find("carry"), columns, faults),
            ReadLeaveOut(place.Find("leaveOut"), faults),
            faults.Flag(place.Find("required"), name is "lines"));
    }

    private static ColumnRule ReadColumn(string name, JsonPlace place, FaultList faults)
    {
        SharedParts.CheckName(name, place, faults);
        faults.IsObjectOf(place, "heading", "edges", "partOf", "type", "fold", "tidy", "required", "kept");
        var kept = faults.Flag(place.Find("kept"), true);
        return new ColumnRule(
            name,
            SharedParts.ReadKind(place.Find("type"), name, faults),
            SharedParts.ReadCue(place.Find("heading"), faults),
            ReadEdges(place.Find("edges"), faults),
            place.Find("partOf") is { } partOf ? faults.Text(partOf) : null,
            faults.OneOf(place.Find("fold"), Fold.None, ("none", Fold.None), ("down", Fold.Down), ("up", Fold.Up)),
            SharedParts.ReadTidy(place.Find("tidy"), faults),
            faults.Flag(place.Find("required"), kept && TradeNames.IsRequiredColumn(name)),
            place.Find("required") is not null && !faults.Flag(place.Find("required"), true),
            kept);
    }

    private static (double, double)? ReadEdges(JsonPlace? place, FaultList faults)
    {
        if (place is null)
            return null;
        if (place.IsArray && place.Items.Length == 2)
        {
            var (left, right) = (faults.Points(place.Items[0], 0), faults.Points(place.Items[1], 0));
            if (left < right)
                return (left, right);
        }
        faults.Add(place, "Edges are the left and the right bound in points: [120, 260].");
        return null;
    }

    private static (string? Begins, Regex? Pattern) ReadRow(JsonPlace block, ImmutableArray<ColumnRule> columns, FaultList faults)
    {
        if (block.Find("row") is not { } row)
        {
            faults.Add(block, "The key “row” is missing: what begins a row.");
            return (null, null);
        }
        if (!faults.IsObjectOf(row, "begins", "matching"))
            return (null, null);
        if (row.Find("matching") is { } matching)
        {
            if (row.Find("begins") is { } both)
                faults.Add(both, "A row begins by a filled column or matches a pattern, not both.");
            return (null, faults.Pattern(matching));
        }
        if (row.Find("begins") is not { } begins || !faults.IsObjectOf(begins, "filled"))
        {
            faults.Add(row, "Say what begins a row: { \"begins\": { \"filled\": \"quantity\" } }, or a pattern: { \"matching\": … }.");
            return (null, null);
        }
        var filled = faults.RequiredText(begins, "filled");
        if (filled.Length > 0 && !columns.Any(column => column.Name == filled && column.PartOf is null))
            faults.Add(begins, $"There is no column “{filled}” of its own.");
        return (filled, null);
    }

    private static void CheckPlaced(JsonPlace place, ImmutableArray<ColumnRule> columns, FaultList faults)
    {
        foreach (var column in columns)
        {
            if (!column.IsPlaced && column.PartOf is null)
                faults.Add(place.Find(column.Name)!, "A column needs a heading, edges, or another column that it is part of.");
        }
        var placed = columns.Where(column => column.PartOf is null).ToList();
        if (placed.Any(column => column.Edges is null) && placed.Any(column => column.Heading is null))
            faults.Add(place, "Either all columns have headings, or all have edges.");
    }

    private static void CheckGroups(JsonPlace row, Regex pattern, ImmutableArray<ColumnRule> columns, FaultList faults)
    {
        var groups = pattern.GetGroupNames();
        foreach (var column in columns.Where(column => column.PartOf is null && !groups.Contains(column.Name)))
            faults.Add(row, $"The pattern has no group for the column “{column.Name}”: (?<{column.Name}>…).");
    }

    private static ImmutableArray<CarryRule> ReadCarry(JsonPlace? place, ImmutableArray<ColumnRule> columns, FaultList faults)
    {
        if (place is null)
            return [];
        if (!place.IsObject)
        {
            faults.Add(place, "An object in braces is wanted here: { \"section\": { \"beginsIn\": \"itemCode\" } }.");
            return [];
        }
        var carry = ImmutableArray.CreateBuilder<CarryRule>();
        foreach (var (name, rule) in place.Members)
        {
            SharedParts.CheckName(name, rule, faults);
            if (!faults.IsObjectOf(rule, "matching", "beginsIn"))
                continue;
            var beginsIn = rule.Find("beginsIn") is { } at ? faults.Text(at) : null;
            var pattern = faults.Pattern(rule.Find("matching"));
            if (beginsIn is null && pattern is null)
                faults.Add(rule, "Say which lines are carried: by “matching”, by “beginsIn”, or by both.");
            if (beginsIn is not null && !columns.Any(column => column.Name == beginsIn))
                faults.Add(rule.Find("beginsIn")!, $"There is no column “{beginsIn}”.");
            carry.Add(new CarryRule(name, pattern, beginsIn));
        }
        return carry.ToImmutable();
    }

    private static ImmutableArray<Regex> ReadLeaveOut(JsonPlace? place, FaultList faults)
    {
        if (place is null)
            return [];
        var items = place.IsArray ? place.Items : [place];
        return [.. items.Select(faults.Pattern).OfType<Regex>()];
    }
}
