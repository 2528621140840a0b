using System.Collections.Immutable;

namespace Daxlin.Core.Templates.Json;

/// <summary>Faults names that are slips of settled ones: under "unitprice" a price is captured, and no sum checks it.</summary>
internal static class NameFaults
{
    /// <summary>Names this long may be two letters off and still be meant; shorter ones one; "tax" and "iban" are as they are.</summary>
    private const int Long = 7;
    private const int Short = 4;

    public static void OfFields(IEnumerable<KeyValuePair<string, JsonPlace>> fields, FaultList faults) =>
        Check(fields, TradeNames.Fields, faults);

    public static void OfColumns(IEnumerable<KeyValuePair<string, JsonPlace>> columns, FaultList faults) =>
        Check(columns, TradeNames.Columns, faults);

    /// <summary>Faults columns of a tax summary that are none of its own and that nothing refers to.</summary>
    /// <param name="used">Columns that others are looked up or taken from.</param>
    public static void OfTaxColumns(IEnumerable<KeyValuePair<string, JsonPlace>> columns, ImmutableArray<ColumnRule> rules, IReadOnlySet<string> used, FaultList faults)
    {
        foreach (var (name, place) in columns)
        {
            if (TradeNames.TaxColumns.Contains(name) || used.Contains(name) || rules.Any(rule => rule.Name == name && !rule.Kept))
                continue;
            var meant = Slip(name, TradeNames.TaxColumns) ?? name switch
            {
                _ when name.EndsWith("rate", StringComparison.OrdinalIgnoreCase) => TradeNames.Rate,
                _ when name.EndsWith("amount", StringComparison.OrdinalIgnoreCase) => TradeNames.Amount,
                _ when name.EndsWith("base", StringComparison.OrdinalIgnoreCase) => TradeNames.Base,
                _ => null,
            };
            faults.Add(place, meant is null
                ? $"The tax summary has the columns {string.Join(", ", TradeNames.TaxColumns)}; no sum checks “{name}”. “kept”: false leaves it out of the rows."
                : $"The tax summary has no column “{name}”; “{meant}” is meant, or no sum checks it.");
        }
    }

    /// <summary>Faults the name of a block that is nearly that of the tax summary.</summary>
    public static void OfBlock(string name, JsonPlace place, FaultList faults)
    {
        if (name != BlockRule.Taxes && (name == "tax" || Slip(name, [BlockRule.Taxes]) is not null))
            faults.Add(place, $"A block “{name}” holds item rows; “{BlockRule.Taxes}” is meant, the tax summary, or another name.");
    }

    private static void Check(IEnumerable<KeyValuePair<string, JsonPlace>> named, IReadOnlyCollection<string> settled, FaultList faults)
    {
        foreach (var (name, place) in named)
        {
            if (Slip(name, settled) is { } meant)
                faults.Add(place, $"“{name}” is no settled name, and “{meant}” is; if it is meant, no sum checks it under this name. A value of your own needs a name further from it.");
        }
    }

    /// <summary>The settled name that another differs from by capitals or by a letter or two; null if there is none, or it is one itself.</summary>
    public static string? Slip(string name, IReadOnlyCollection<string> settled) =>
        settled.Contains(name) ? null : settled.FirstOrDefault(known =>
            known.Equals(name, StringComparison.OrdinalIgnoreCase)
            || (known.Length >= Short && !IsNumbered(name, known) && Distance(known.ToLowerInvariant(), name.ToLowerInvariant()) <= MostSlips(name, known)));

    /// <summary>"weight" is two letters off "freight" and a word of its own; a slip keeps the first letter, mostly.</summary>
    private static int MostSlips(string name, string known) =>
        known.Length >= Long && name.Length > 0 && char.ToLowerInvariant(name[0]) == char.ToLowerInvariant(known[0]) ? 2 : 1;

    /// <summary>"total2" is a second one of its own, no slip.</summary>
    private static bool IsNumbered(string name, string known) => name.TrimEnd("0123456789".ToCharArray()) == known;

    /// <summary>How many letters one must add, drop, change or swap with their neighbour to make one name of the other (Damerau, 1964).</summary>
    private static int Distance(string from, string to)
    {
        var costs = new int[from.Length + 1, to.Length + 1];
        for (var i = 0; i <= from.Length; i++)
        {
            for (var j = 0; j <= to.Length; j++)
            {
                if (i == 0 || j == 0)
                {
                    costs[i, j] = i + j;
                    continue;
                }
                costs[i, j] = Math.Min(
                    Math.Min(costs[i - 1, j], costs[i, j - 1]) + 1, costs[i - 1, j - 1] + (from[i - 1] == to[j - 1] ? 0 : 1));
                if (i > 1 && j > 1 && from[i - 1] == to[j - 2] && from[i - 2] == to[j - 1])
                    costs[i, j] = Math.Min(costs[i, j], costs[i - 2, j - 2] + 1);
            }
        }
        return costs[from.Length, to.Length];
    }
}
