using System.Collections.Immutable;
using System.Text.Json;
using Daxlin.Core.Pages;

namespace Daxlin.Core.Templates.Json;

/// <summary>Reads the <c>fields</c> of a template.</summary>
internal static class FieldReader
{
    /// <summary>How far to the side of a cue a value may stand unless the template says so: the width of a page.</summary>
    private const double UsualReachAcross = 600;

    /// <summary>How far below or above a cue a value may stand unless the template says so: some three lines.</summary>
    private const double UsualReachDown = 40;

    public static ImmutableArray<FieldRule> ReadAll(JsonPlace document, FaultList faults)
    {
        if (document.Find("fields") is not { } fields)
        {
            faults.Add(document, "The key “fields” is missing.");
            return [];
        }
        if (!fields.IsObject || fields.Members.Length > SharedParts.Most)
        {
            faults.Add(fields, $"An object of at most {SharedParts.Most} fields is wanted here.");
            return [];
        }
        return [.. fields.Members.Select(member => Read(member.Key, member.Value, faults))];
    }

    private static FieldRule Read(string name, JsonPlace place, FaultList faults)
    {
        SharedParts.CheckName(name, place, faults);
        faults.IsObjectOf(place, "where", "type", "shape", "tidy", "required");
        var where = ImmutableArray<Whereabouts>.Empty;
        if (place.Find("where") is not { } list)
            faults.Add(place, "The key “where” is missing: where the value is.");
        else
            where = [.. (list.IsArray ? list.Items : [list]).Select(item => ReadWhereabouts(item, faults)).OfType<Whereabouts>()];
        return new FieldRule(
            name,
            SharedParts.ReadKind(place.Find("type"), name, faults),
            where,
            faults.Pattern(place.Find("shape")),
            SharedParts.ReadTidy(place.Find("tidy"), faults),
            faults.Flag(place.Find("required"), TradeNames.IsRequiredField(name)));
    }

    private static Whereabouts? ReadWhereabouts(JsonPlace place, FaultList faults)
    {
        if (!faults.IsObjectOf(place, "beside", "under", "above", "before", "at", "matching", "always", "occurrence", "case", "reach"))
            return null;
        var kinds = place.Members.Count(member => member.Key is not ("occurrence" or "case" or "reach"));
        if (kinds != 1)
        {
            faults.Add(place, "Exactly one of beside, under, above, before, at, matching or always is wanted here.");
            return null;
        }
        if (place.Find("always") is { } always)
            return new Always(faults.Text(always));
        if (place.Find("at") is { } at)
            return ReadAt(at, faults);
        var occurrence = ReadOccurrence(place.Find("occurrence"), faults);
        if (place.Find("matching") is { } matching)
            return faults.Pattern(matching) is { } pattern ? new Matching(pattern, occurrence) : null;

        var exactCase = faults.OneOf(place.Find("case"), false, ("exact", true), ("any", false));
        var (side, cue) = place.Find("beside") is { } beside ? (Side.Beside, beside)
            : place.Find("under") is { } under ? (Side.Under, under)
            : place.Find("above") is { } above ? (Side.Above, above)
            : (Side.Before, place.Find("before")!);
        var reach = faults.Points(place.Find("reach"), side is Side.Beside or Side.Before ? UsualReachAcross : UsualReachDown);
        return new ByCue(side, SharedParts.ReadCue(cue, faults, exactCase)!, occurrence, reach);
    }

    private static At? ReadAt(JsonPlace place, FaultList faults)
    {
        if (!faults.IsObjectOf(place, "page", "left", "top", "right", "bottom"))
            return null;
        var page = place.Find("page") is { IsString: true, Text: "last" } ? -1 : Math.Max(1, faults.Count(place.Find("page"), 1, 500));
        var box = new Box(Edge("left"), Edge("top"), Edge("right"), Edge("bottom"));
        if (box.Width <= 0 || box.Height <= 0)
            faults.Add(place, "A place has a left and right, a top and bottom in points, each smaller than the other.");
        return new At(page, box);

        double Edge(string key)
        {
            if (place.Find(key) is null)
                faults.Add(place, $"The key “{key}” is missing.");
            return faults.Points(place.Find(key), 0);
        }
    }

    private static int ReadOccurrence(JsonPlace? place, FaultList faults) => place switch
    {
        null => 0,
        { Kind: JsonTokenType.Number } => faults.Count(place, 0, 1000),
        _ => faults.OneOf(place, 0, ("first", 1), ("last", -1)),
    };
}
