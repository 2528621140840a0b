using System.Collections.Immutable;
using System.Text.RegularExpressions;
using Daxlin.Core.Values;

namespace Daxlin.Core.Templates.Json;

/// <summary>The parts that fields and columns have in common.</summary>
internal static partial class SharedParts
{
    /// <summary>The most fields, columns or blocks of one kind that a template may have.</summary>
    public const int Most = 100;

    public static ValueKind ReadKind(JsonPlace? place, string name, FaultList faults) => faults.OneOf(
        place, TradeNames.KindOf(name),
        ("text", ValueKind.Text), ("whole", ValueKind.Whole), ("number", ValueKind.Number), ("money", ValueKind.Money),
        ("percent", ValueKind.Percent), ("date", ValueKind.Date), ("iban", ValueKind.Iban), ("currency", ValueKind.Currency));

    public static ImmutableArray<TidyStep> ReadTidy(JsonPlace? place, FaultList faults)
    {
        if (place is null)
            return [];
        if (!place.IsArray)
        {
            faults.Add(place, "A list of steps in brackets is wanted here.");
            return [];
        }
        return [.. place.Items.Select(step => ReadStep(step, faults)).OfType<TidyStep>()];
    }

    private static TidyStep? ReadStep(JsonPlace step, FaultList faults)
    {
        if (!faults.IsObjectOf(step, "take", "drop", "replace", "with"))
            return null;
        if (step.Find("take") is { } take)
            return faults.Pattern(take) is { } pattern ? new Take(pattern) : null;
        if (step.Find("drop") is { } drop)
            return new Drop(faults.Texts(drop));
        if (step.Find("replace") is not null)
            return new Replace(faults.RequiredText(step, "replace"), faults.Text(step.Find("with")));
        faults.Add(step, "A step is one of take, drop, or replace with.");
        return null;
    }

    public static Cue? ReadCue(JsonPlace? place, FaultList faults, bool exactCase = false) =>
        place is null ? null : new Cue(faults.Texts(place), exactCase);

    public static void CheckName(string name, JsonPlace place, FaultList faults)
    {
        if (!FieldName().IsMatch(name))
            faults.Add(place, $"“{name}” is no name for a value: a small letter, then letters and figures, as deliveryNote.");
    }

    [GeneratedRegex("^[a-z][A-Za-z0-9]{0,49}$")]
    private static partial Regex FieldName();
}
