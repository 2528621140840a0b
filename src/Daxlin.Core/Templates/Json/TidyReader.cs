using System.Collections.Frozen;
using System.Collections.Immutable;
using System.Text.RegularExpressions;
using Daxlin.Core.Json;
using Daxlin.Core.Templates.Tidy;

namespace Daxlin.Core.Templates.Json;

/// <summary>Reads the <c>tidy</c> steps of a field or column.</summary>
internal static partial class TidyReader
{
    private const string Known = "take, drop, replace with, part by, after, upTo, keep, case, translate, line, join, splitUnit or negate";

    public static ImmutableArray<TidyStep> ReadAll(JsonPlace? place, FaultList faults)
    {
        if (place is null)
            return [];
        if (!place.IsArray)
        {
            faults.Add(place, "A list of steps in brackets is wanted here.");
            return [];
        }
        return [.. place.Items.Select(step => Read(step, faults)).OfType<TidyStep>()];
    }

    private static TidyStep? Read(JsonPlace step, FaultList faults)
    {
        if (!step.IsObject || step.Members.IsEmpty)
        {
            faults.Add(step, $"A step is an object in braces, one of {Known}.");
            return null;
        }
        var (name, value) = (step.Members[0].Key, step.Members[0].Value);
        switch (name)
        {
            case "take":
                faults.IsObjectOf(step, "take");
                return faults.Pattern(value) is { } pattern ? new Take(pattern) : null;
            case "drop":
                faults.IsObjectOf(step, "drop");
                WarnOfPatterns(value, name, faults);
                return new Drop(faults.Texts(value));
            case "replace" or "with":
                faults.IsObjectOf(step, "replace", "with");
                WarnOfPatterns(step.Find("replace"), "replace", faults);
                return new Replace(faults.RequiredText(step, "replace"), faults.Text(step.Find("with")));
            case "part" or "by":
                faults.IsObjectOf(step, "part", "by");
                WarnOfPatterns(step.Find("by"), "by", faults);
                return new Part(faults.Position(step.Find("part") ?? step), step.Find("by") is { } by ? faults.Text(by) : " ");
            case "after" or "upTo":
                faults.IsObjectOf(step, "after", "upTo");
                WarnOfPatterns(step.Find("after"), "after", faults);
                WarnOfPatterns(step.Find("upTo"), "upTo", faults);
                return new Cut(faults.Text(step.Find("after")), faults.Text(step.Find("upTo")));
            case "keep":
                faults.IsObjectOf(step, "keep");
                return new KeepOnly(faults.OneOf(value, true, ("digits", true), ("letters", false)));
            case "case":
                faults.IsObjectOf(step, "case");
                return new ChangeCase(faults.OneOf(
                    value, LetterCase.Upper, ("upper", LetterCase.Upper), ("lower", LetterCase.Lower), ("title", LetterCase.Title)));
            case "translate" or "else":
                faults.IsObjectOf(step, "translate", "else");
                return ReadTranslate(step, faults);
            case "line":
                faults.IsObjectOf(step, "line");
                return new OneLine(faults.Position(value));
            case "join":
                faults.IsObjectOf(step, "join");
                return new JoinLines(faults.Text(value));
            case "splitUnit":
                faults.IsObjectOf(step, "splitUnit");
                var column = faults.Text(value);
                SharedParts.CheckName(column, value, faults);
                return new SplitUnit(column);
            case "negate":
                faults.IsObjectOf(step, "negate");
                return faults.Flag(value, true) ? new Negate() : null;
            default:
                faults.Add(value, $"The step “{name}” is unknown; known are {Known}.");
                return null;
        }
    }

    /// <summary>Warns of what looks like a pattern where a step takes the text as it stands.</summary>
    private static void WarnOfPatterns(JsonPlace? place, string step, FaultList faults)
    {
        foreach (var item in place is null ? [] : place.IsArray ? place.Items : [place])
        {
            if (item.IsString && LooksLikePattern().IsMatch(item.Text))
                faults.Warn(item, $"“{item.Text}” looks like a pattern, and “{step}” takes plain text as it stands; “take” is the step for patterns.");
        }
    }

    [GeneratedRegex(@"\\[dDsSwWbB.]|\[[^\]]+\]|^\^.|.\$$|[.)\]][*+]|\(\?", RegexOptions.CultureInvariant, 2000)]
    private static partial Regex LooksLikePattern();

    private static Translate? ReadTranslate(JsonPlace step, FaultList faults)
    {
        if (step.Find("translate") is not { IsObject: true } list || list.Members.Length > 1000)
        {
            faults.Add(step, "A list in braces is wanted here: { \"translate\": { \"A\": \"19\", \"B\": \"7\" } }.");
            return null;
        }
        foreach (var twice in list.Members.GroupBy(entry => entry.Key.Trim(), StringComparer.OrdinalIgnoreCase).Where(group => group.Count() > 1))
            faults.Add(list, $"“{twice.Key}” stands here twice.");
        return new Translate(
            list.Members.DistinctBy(entry => entry.Key.Trim(), StringComparer.OrdinalIgnoreCase)
                .ToFrozenDictionary(entry => entry.Key.Trim(), entry => faults.Text(entry.Value), StringComparer.OrdinalIgnoreCase),
            step.Find("else") is { } other ? faults.Text(other) : null);
    }
}
