using System.Text.RegularExpressions;
using Daxlin.Core.Json;
using Daxlin.Core.Values;

namespace Daxlin.Core.Templates.Json;

/// <summary>The parts that fields and columns have in common.</summary>
internal static partial class SharedParts
{
    /// <summary>The most fields, columns or blocks of one kind that a template may have.</summary>
    public const int Most = 100;

    public static ValueKind ReadKind(JsonPlace? place, string name, FaultList faults)
    {
        var kind = faults.OneOf(place, TradeNames.KindOf(name), ValueKinds.Words);
        // A unit price is a price, also where a template calls it a number.
        return kind == ValueKind.Number && TradeNames.KindOf(name) == ValueKind.Price ? ValueKind.Price : kind;
    }

    /// <summary>Says that an amount may pass although no sum contains it.</summary>
    public static bool ReadUntied(JsonPlace place, FaultList faults) =>
        faults.OneOf(place.Find("untied"), false, ("allowed", true), ("held", false));

    public static Cue? ReadCue(JsonPlace? place, FaultList faults) => place is null ? null : new Cue(faults.Texts(place));

    public static void CheckName(string name, JsonPlace place, FaultList faults)
    {
        if (!FieldName().IsMatch(name))
            faults.Add(place, $"“{name}” is no name for a value: a small letter, then letters and figures, as deliveryNote.");
    }

    [GeneratedRegex("^[a-z][A-Za-z0-9]{0,49}$")]
    private static partial Regex FieldName();
}
