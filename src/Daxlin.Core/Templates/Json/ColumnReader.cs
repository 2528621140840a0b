using System.Collections.Immutable;
using Daxlin.Core.Json;

namespace Daxlin.Core.Templates.Json;

/// <summary>Reads the <c>columns</c> of a block or of a list under its rows.</summary>
internal static class ColumnReader
{
    private static readonly string[] Sources = ["heading", "edges", "unheaded", "partOf", "always", "lookUp"];
    private static readonly string[] Habits = ["type", "shape", "fold", "tidy", "hyphens", "dash", "required", "untied", "kept"];

    public static ImmutableArray<ColumnRule> ReadAll(JsonPlace block, FaultList faults)
    {
        if (block.Find("columns") is not { IsObject: true } place || place.Members.Length > SharedParts.Most)
        {
            faults.Add(block, $"The key “columns” is wanted here, an object of at most {SharedParts.Most} columns.");
            return [];
        }
        var columns = place.Members.Select(member => Read(member.Key, member.Value, faults)).ToImmutableArray();
        foreach (var (key, value) in place.Members)
        {
            if (value.Find("partOf") is { } partOf && !columns.Any(column => column.Name == partOf.Text && column.Source is not PartOfColumn))
                faults.Add(partOf, $"There is no column “{partOf.Text}” that “{key}” could be part of.");
            if (value.Find("lookUp")?.Find("with") is { } with && !columns.Any(column => column.Name == with.Text))
                faults.Add(with, $"There is no column “{with.Text}” to look “{key}” up with.");
        }
        return columns;
    }

    private static ColumnRule Read(string name, JsonPlace place, FaultList faults)
    {
        SharedParts.CheckName(name, place, faults);
        faults.IsObjectOf(place, [.. Sources, .. Habits]);
        var sources = place.Members.Where(member => Sources.Contains(member.Key)).ToList();
        var isPinned = sources.Count == 2 && sources.Exists(source => source.Key == "heading") && sources.Exists(source => source.Key == "edges");
        if (isPinned)
            sources = [sources.Find(source => source.Key == "heading")];
        if (sources.Count > 1)
            faults.Add(place, $"A column comes from one of {string.Join(", ", Sources)}, not from {sources[0].Key} and {sources[1].Key}.");
        var kept = faults.Flag(place.Find("kept"), true);
        var required = faults.Flag(place.Find("required"), kept && TradeNames.IsRequiredColumn(name));
        return new ColumnRule(
            name,
            SharedParts.ReadKind(place.Find("type"), name, faults),
            sources.Count == 0 ? new PatternGroup()
                : isPinned ? new UnderHeading(new Cue(faults.Texts(sources[0].Value)), ReadEdges(place.Find("edges")!, faults) as BetweenEdges)
                : ReadSource(sources[0].Key, sources[0].Value, faults),
            faults.Pattern(place.Find("shape")),
            faults.OneOf(place.Find("fold"), Fold.None, ("none", Fold.None), ("down", Fold.Down), ("allDown", Fold.AllDown), ("up", Fold.Up), ("around", Fold.Around)),
            TidyReader.ReadAll(place.Find("tidy"), faults),
            faults.OneOf(place.Find("hyphens"), false, ("kept", false), ("joined", true)),
            faults.OneOf(place.Find("dash"), false, ("nothing", false), ("zero", true)),
            required,
            place.Find("required") is not null && !required,
            SharedParts.ReadUntied(place, faults),
            kept);
    }

    private static ColumnSource ReadSource(string source, JsonPlace place, FaultList faults)
    {
        switch (source)
        {
            case "heading":
                return new UnderHeading(new Cue(faults.Texts(place)));
            case "edges":
                return ReadEdges(place, faults);
            case "unheaded":
                if (!faults.Flag(place, true))
                    faults.Add(place, "Leave “unheaded” out, or say true.");
                return new BetweenNeighbours();
            case "partOf":
                return new PartOfColumn(faults.Text(place));
            case "always":
                return new ConstantColumn(faults.Text(place));
            default:
                faults.IsObjectOf(place, "block", "match", "with", "take");
                return new LookedUp(
                    faults.RequiredText(place, "block"), faults.RequiredText(place, "match"),
                    faults.RequiredText(place, "with"), faults.RequiredText(place, "take"));
        }
    }

    public static ColumnSource ReadEdges(JsonPlace place, FaultList faults)
    {
        if (place.IsArray && place.Items.Length == 2)
        {
            var (left, right) = (faults.Points(place.Items[0], 0), faults.Points(place.Items[1], 0));
            if (left < right)
                return new BetweenEdges(left, right);
        }
        faults.Add(place, "Edges are the left and the right bound in points: [120, 260].");
        return new BetweenNeighbours();
    }

    /// <summary>Faults columns that stand nowhere on the page, or in places that cannot be told from one another.</summary>
    public static void CheckPlaced(JsonPlace place, ImmutableArray<ColumnRule> columns, FaultList faults)
    {
        foreach (var column in columns.Where(column => column.Source is PatternGroup))
            faults.Add(place.Find(column.Name)!, "A column needs a heading, edges, or another column that it is part of; “unheaded” stands between its neighbours.");
        if (columns.Any(column => column.Source is BetweenNeighbours) && !columns.Any(column => column.Heading is not null))
            faults.Add(place, "A column without a heading stands between others that have one; none here has.");
    }

    /// <summary>Faults columns that the pattern has no group for.</summary>
    public static void CheckGroups(
        JsonPlace row, System.Text.RegularExpressions.Regex pattern, ImmutableArray<ColumnRule> columns, FaultList faults)
    {
        var groups = pattern.GetGroupNames();
        foreach (var column in columns.Where(column => column.Source is PatternGroup && !groups.Contains(column.Name)))
            faults.Add(row, $"The pattern has no group for the column “{column.Name}”: (?<{column.Name}>…).");
    }
}
