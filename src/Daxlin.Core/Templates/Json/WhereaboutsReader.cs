using System.Text.Json;
using Daxlin.Core.Json;
using Daxlin.Core.Pages;

namespace Daxlin.Core.Templates.Json;

/// <summary>Reads one of the whereabouts of a header field.</summary>
internal static class WhereaboutsReader
{
    /// <summary>How far to the side of a cue a value may stand unless the template says so: the width of a page.</summary>
    private const double UsualReachAcross = 600;

    /// <summary>How far below or above a cue a value may stand unless the template says so: some three lines.</summary>
    private const double UsualReachDown = 40;

    /// <summary>The most lines of an address or another text block.</summary>
    private const int MostLines = 30;

    /// <summary>The key that says how many lines a value has at most.</summary>
    private const string LineLimit = "lines";

    private static readonly string[] Sides = ["beside", "under", "above", "before"];
    private static readonly string[] Others = ["at", "matching", "always", "inFileName", "inBatchName", "document"];

    public static Whereabouts? Read(JsonPlace place, FaultList faults)
    {
        string[] modifiers = ["occurrence", "case", "words", "reach", "lines", "page", "within"];
        if (!faults.IsObjectOf(place, [.. Sides, .. Others, .. modifiers]))
            return null;
        var kinds = place.Members.Where(member => !modifiers.Contains(member.Key)).ToList();
        if (kinds is not [var (kind, value)])
        {
            faults.Add(place, $"Exactly one of {string.Join(", ", Sides.Concat(Others))} is wanted here.");
            return null;
        }
        var allowed = Sides.Contains(kind) ? modifiers : kind == "matching" ? ["occurrence", "page"] : kind == "at" ? ["lines"] : [];
        foreach (var (key, stray) in place.Members.Where(member => member.Key != kind && !allowed.Contains(member.Key)))
            faults.Add(stray, $"“{key}” says nothing beside “{kind}”.");
        return kind switch
        {
            "always" => new Always(faults.Text(value)),
            "at" => ReadAt(value, ReadLines(place, faults), faults),
            "matching" => faults.Pattern(value) is { } pattern
                ? new Matching(pattern, ReadOccurrence(place.Find("occurrence"), faults), PageReader.ReadRange(place.Find("page"), faults)) : null,
            "inFileName" => faults.Pattern(value) is { } pattern ? new InName(NameOf.File, pattern) : null,
            "inBatchName" => faults.Pattern(value) is { } pattern ? new InName(NameOf.Batch, pattern) : null,
            "document" => new OfDocument(faults.OneOf(
                value, DocumentFact.ReceivedDate, ("receivedDate", DocumentFact.ReceivedDate),
                ("pageCount", DocumentFact.PageCount), ("pageNumber", DocumentFact.PageNumber))),
            _ => ReadByCue(kind, value, place, faults),
        };
    }

    private static ByCue ReadByCue(string kind, JsonPlace cue, JsonPlace place, FaultList faults)
    {
        var side = (Side)Array.IndexOf(Sides, kind);
        var exactCase = faults.OneOf(place.Find("case"), false, ("exact", true), ("any", false));
        var withinWords = faults.OneOf(place.Find("words"), false, ("part", true), ("whole", false));
        var lines = ReadLines(place, faults);
        if (lines > 1 && side == Side.Before)
            faults.Add(place.Find(LineLimit)!, "A text of several lines stands beside, under or above its cue.");
        return new ByCue(
            side,
            new Cue(faults.Texts(cue), exactCase, withinWords),
            ReadOccurrence(place.Find("occurrence"), faults),
            PageReader.ReadRange(place.Find("page"), faults),
            faults.Points(place.Find("reach"), side is Side.Beside or Side.Before ? UsualReachAcross : UsualReachDown),
            lines,
            place.Find("within") is { } within ? ReadBox(within, faults, "left", "top", "right", "bottom") : null);
    }

    private static int ReadLines(JsonPlace place, FaultList faults) => faults.Count(place.Find(LineLimit), 1, MostLines, least: 1);

    private static At? ReadAt(JsonPlace place, int lines, FaultList faults)
    {
        if (ReadBox(place, faults, "page", "left", "top", "right", "bottom") is not { } box)
            return null;
        return new At(PageReader.ReadRange(place.Find("page"), faults) is { From: var page } && place.Find("page") is not null ? page : 1, box, lines);
    }

    private static Box? ReadBox(JsonPlace place, FaultList faults, params ReadOnlySpan<string> known)
    {
        if (!faults.IsObjectOf(place, known))
            return null;
        var box = new Box(Edge("left"), Edge("top"), Edge("right"), Edge("bottom"));
        if (box.Width <= 0 || box.Height <= 0)
            faults.Add(place, "A place has a left and right, a top and bottom in points, each smaller than the other.");
        return box;

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
