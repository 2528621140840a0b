using System.Collections.Immutable;
using Daxlin.Core.Json;

namespace Daxlin.Core.Templates.Json;

/// <summary>Reads the <c>rowsUnder</c> of a block: lists that stand under its rows.</summary>
internal static class RowsUnderReader
{
    public static ImmutableArray<RowsUnderRule> ReadAll(JsonPlace? place, FaultList faults)
    {
        if (place is null)
            return [];
        var rules = (place.IsArray ? place.Items : [place]).Select(item => Read(item, faults)).OfType<RowsUnderRule>().ToImmutableArray();
        foreach (var twice in rules.GroupBy(rule => rule.Name).Where(group => group.Count() > 1))
            faults.Add(place, $"Two lists are named “{twice.Key}”.");
        return rules;
    }

    private static RowsUnderRule? Read(JsonPlace place, FaultList faults)
    {
        if (!faults.IsObjectOf(place, "name", "matching", "each", "columns", "required", "addUp", "flat"))
            return null;
        var name = faults.RequiredText(place, "name");
        if (name.Length > 0)
            SharedParts.CheckName(name, place.Find("name")!, faults);
        var columns = ColumnReader.ReadAll(place, faults);
        if (place.Find("matching") is null)
            faults.Add(place, "The key “matching” is missing: the pattern of a line that belongs to the list.");
        var line = faults.Pattern(place.Find("matching"));
        var each = place.Find("each") is { } within ? faults.Pattern(within) : line;
        if (line is null || each is null)
            return null;
        ColumnReader.CheckGroups(place.Find("each") ?? place.Find("matching")!, each, columns, faults);
        var addUp = place.Find("addUp") is { } sums ? faults.Texts(sums) : [];
        foreach (var column in addUp.Where(column => !columns.Any(own => own.Name == column)))
            faults.Add(place.Find("addUp")!, $"The list “{name}” has no column “{column}” to add up.");
        return new RowsUnderRule(
            name, line, each, columns, faults.Flag(place.Find("required"), false), addUp,
            faults.OneOf(place.Find("flat"), FlatForm.Joined, ("joined", FlatForm.Joined), ("repeated", FlatForm.Repeated)));
    }
}
