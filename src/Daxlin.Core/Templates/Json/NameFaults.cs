using System.Collections.Immutable;
using Daxlin.Core.Json;

namespace Daxlin.Core.Templates.Json;

/// <summary>Faults names that are slips of settled ones: under "unitprice" a price is captured, and no sum checks it.</summary>
internal static class NameFaults
{
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
            var meant = Slips.Meant(name, TradeNames.TaxColumns) ?? name switch
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
        if (name != BlockRule.Taxes && (name == "tax" || Slips.Meant(name, [BlockRule.Taxes]) is not null))
            faults.Add(place, $"A block “{name}” holds item rows; “{BlockRule.Taxes}” is meant, the tax summary, or another name.");
    }

    private static void Check(IEnumerable<KeyValuePair<string, JsonPlace>> named, IReadOnlyCollection<string> settled, FaultList faults)
    {
        foreach (var (name, place) in named)
        {
            if (Slips.Meant(name, settled) is { } meant)
                faults.Add(place, $"“{name}” is no settled name, and “{meant}” is; if it is meant, no sum checks it under this name. A value of your own needs a name further from it.");
        }
    }
}
