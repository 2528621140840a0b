using System.Collections.Immutable;
using System.Text.RegularExpressions;
using Daxlin.Core.Json;

namespace Daxlin.Core.Templates.Json;

/// <summary>Reads the <c>blocks</c> of a template.</summary>
internal static class BlockReader
{
    public static ImmutableArray<BlockRule> ReadAll(JsonPlace? place, ImmutableArray<FieldRule> fields, FaultList faults)
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
        CheckReferences(place, blocks, fields, faults);
        return blocks;
    }

    private static BlockRule? Read(JsonPlace place, FaultList faults)
    {
        if (!faults.IsObjectOf(
            place, "name", "list", "opens", "closes", "pages", "within", "sideBySide", "columns", "edgesOn", "row", "carry", "rowsUnder", "leaveOut",
            "required"))
            return null;
        var name = faults.RequiredText(place, "name");
        var columns = ColumnReader.ReadAll(place, faults);
        NameFaults.OfBlock(name, place.Find("name") ?? place, faults);
        if (RowRuleReader.Read(place, columns, faults) is not { } row)
            return null;
        if (row is IsMatch { Line: var pattern })
            ColumnReader.CheckGroups(place.Find("row")!, pattern, columns, faults);
        else if (row is not IsFields && place.Find("columns") is { IsObject: true } columnsPlace)
            ColumnReader.CheckPlaced(columnsPlace, columns, faults);
        if (row is IsMatch or IsFields && place.Find("carry") is { IsObject: true } carries)
        {
            foreach (var (_, rule) in carries.Members.Where(member => member.Value.Find("beginsIn") is not null))
                faults.Add(rule, "A block of a pattern or of header fields has no columns on the page that a line could begin in; carry by “matching”.");
        }
        return new BlockRule(
            name,
            place.Find("list") is { } list ? faults.Text(list) : name == BlockRule.Taxes ? BlockRule.Taxes : BlockRule.Lines,
            SharedParts.ReadCue(place.Find("opens"), faults),
            place.Find("closes") is { } closes ? [.. faults.Texts(closes).Select(text => new Cue([text]))] : [],
            ReadPlace(place, faults),
            columns,
            row,
            faults.Pattern(place.Find("row")!.Find("only")),
            ReadCarry(place.Find("carry"), columns, faults),
            RowsUnderReader.ReadAll(place.Find("rowsUnder"), faults),
            ReadLeaveOut(place.Find("leaveOut"), faults),
            faults.Flag(place.Find("required"), name is "lines"))
        {
            EdgesOn = ReadEdgesOn(place.Find("edgesOn"), row, columns, faults),
        };
    }

    private static ImmutableArray<EdgesOnPages> ReadEdgesOn(JsonPlace? place, RowRule row, ImmutableArray<ColumnRule> columns, FaultList faults)
    {
        if (place is null)
            return [];
        if (row is IsMatch or IsFields)
            faults.Add(place, "A block of a pattern or of header fields has no columns on the page that could stand elsewhere.");
        return [.. (place.IsArray ? place.Items : [place]).Select(item => ReadEdgesOnPages(item, columns, faults)).OfType<EdgesOnPages>()];
    }

    private static EdgesOnPages? ReadEdgesOnPages(JsonPlace place, ImmutableArray<ColumnRule> columns, FaultList faults)
    {
        if (!faults.IsObjectOf(place, "pages", "columns"))
            return null;
        if (place.Find("pages") is null)
            faults.Add(place, "The key “pages” is missing: on which pages the columns stand there.");
        if (place.Find("columns") is not { IsObject: true, Members.IsEmpty: false } edges)
        {
            faults.Add(place, "The key “columns” is wanted here, with the edges of some columns: { \"amount\": [120, 260] }.");
            return null;
        }
        foreach (var (name, at) in edges.Members.Where(member => !columns.Any(column => column.Name == member.Key && column.IsPlaced)))
            faults.Add(at, columns.Any(column => column.Name == name) ? $"The column “{name}” has no place of its own on the page that could be another." : $"There is no column “{name}”.");
        return new EdgesOnPages(
            PageReader.ReadRange(place.Find("pages"), faults),
            edges.Members.Select(member => (member.Key, Edges: ColumnReader.ReadEdges(member.Value, faults) as BetweenEdges)).Where(one => one.Edges is not null)
                .ToImmutableSortedDictionary(one => one.Key, one => one.Edges!, StringComparer.Ordinal));
    }

    /// <summary>Faults names of blocks and fields that a block refers to and the template has not.</summary>
    private static void CheckReferences(
        JsonPlace place, ImmutableArray<BlockRule> blocks, ImmutableArray<FieldRule> fields, FaultList faults)
    {
        foreach (var block in blocks)
        {
            // A block whose name is a fault by itself stands nowhere.
            if (place.Items.FirstOrDefault(item => item.Find("name")?.Text == block.Name) is { } own)
                CheckNames(own, block, blocks, faults);
        }
        foreach (var block in blocks)
        {
            foreach (var lookUp in block.Columns.Select(column => column.Source).OfType<LookedUp>())
            {
                if (blocks.FirstOrDefault(other => other.Name == lookUp.Block) is not { } other)
                    faults.Add(place, $"There is no block “{lookUp.Block}” to look up in.");
                else if (new[] { lookUp.Match, lookUp.Take }.FirstOrDefault(name => !other.Columns.Any(column => column.Name == name)) is { } none)
                    faults.Add(place, $"The block “{lookUp.Block}” has no column “{none}” to look up.");
            }
            foreach (var (_, field) in (block.Row as IsFields)?.Columns ?? [])
            {
                if (!fields.Any(rule => rule.Name == field))
                    faults.Add(place, $"There is no field “{field}” to make the row of “{block.Name}” from.");
            }
        }
    }

    private static void CheckNames(JsonPlace place, BlockRule block, ImmutableArray<BlockRule> blocks, FaultList faults)
    {
        if (place.Find("columns") is not { IsObject: true } columns)
            return;
        if (block.HoldsItems)
            NameFaults.OfColumns(columns.Members, faults);
        if (!block.IsTaxSummary)
            return;
        var used = blocks.SelectMany(other => other.Columns).Select(column => column.Source).OfType<LookedUp>()
            .Where(lookUp => lookUp.Block == block.Name).SelectMany(lookUp => new[] { lookUp.Match, lookUp.Take })
            .Concat(block.Columns.Select(column => column.Source).OfType<LookedUp>().Select(lookUp => lookUp.With))
            .Concat(block.Columns.Select(column => column.Source).OfType<PartOfColumn>().Select(part => part.Column))
            .ToHashSet();
        NameFaults.OfTaxColumns(columns.Members, block.Columns, used, faults);
    }

    private static BlockPlace ReadPlace(JsonPlace block, FaultList faults)
    {
        var (left, right) = (0.0, double.PositiveInfinity);
        if (block.Find("within") is { } within && faults.IsObjectOf(within, "left", "right"))
        {
            (left, right) = (faults.Points(within.Find("left"), 0), faults.Points(within.Find("right"), double.PositiveInfinity));
            if (left >= right)
                faults.Add(within, "The left bound is to be smaller than the right one.");
        }
        var beside = block.Find("sideBySide") is not { } sides ? []
            : (sides.IsArray ? sides.Items : [sides]).Select(side => faults.Points(side, 0)).Order().ToImmutableArray();
        return new BlockPlace(PageReader.ReadRange(block.Find("pages"), faults), left, right, beside);
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
            if (!faults.IsObjectOf(rule, "matching", "beginsIn", "from"))
                continue;
            var beginsIn = rule.Find("beginsIn") is { } at ? faults.Text(at) : null;
            var pattern = faults.Pattern(rule.Find("matching"));
            var inPageHead = faults.OneOf(rule.Find("from"), false, ("pageHead", true), ("block", false));
            if (beginsIn is null && pattern is null)
                faults.Add(rule, "Say which lines are carried: by “matching”, by “beginsIn”, or by both.");
            if (inPageHead && pattern is null)
                faults.Add(rule, "What is carried from the page head is found by “matching”.");
            if (beginsIn is not null && !columns.Any(column => column.Name == beginsIn))
                faults.Add(rule.Find("beginsIn")!, $"There is no column “{beginsIn}”.");
            carry.Add(new CarryRule(name, pattern, beginsIn, inPageHead));
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
