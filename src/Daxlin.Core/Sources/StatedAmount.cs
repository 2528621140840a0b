using Daxlin.Core.Values;

namespace Daxlin.Core.Sources;

/// <summary>Reads an amount of which nobody says whether a point or a comma stands before its decimals.</summary>
internal static class StatedAmount
{
    /// <summary>Reads it in both ways.</summary>
    /// <returns>The amount; or why there is none, as the end of a sentence. “1.204” may be 1204 or 1.204: neither is taken.</returns>
    /// <example>1,204.50 and 1.204,50 and 1204.5 are all 1204.50 EUR.</example>
    public static (decimal? Amount, string Fault) Read(string text, Currency currency)
    {
        Reading[] readings =
        [
            NumberReader.Read(text, new Habits(currency, DateOrder.YearFirst, '.', ",' ")),
            NumberReader.Read(text, new Habits(currency, DateOrder.YearFirst, ',', ".' ")),
        ];
        var good = readings.Where(reading => reading is { IsGood: true, Number: not null }).ToList();
        if (good.Count == 0)
            return (null, "is no amount");
        var found = good.ConvertAll(reading => reading.Number!.Value).Distinct().ToList();
        if (found.Count > 1)
            return (null, $"may be {found[0]} or {found[1]}: write it with its decimals");
        if (good[0].Mark is { Length: > 0 } mark && !currency.CanBePrintedAs(mark))
            return (null, $"is in {mark}, not in {currency.Code}");
        return found[0].Scale > currency.MinorDigits && decimal.Round(found[0], currency.MinorDigits) != found[0] ? (null, $"has more decimals than {currency.Code} has") : (found[0], "");
    }
}
