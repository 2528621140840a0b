using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.Capture;
using Daxlin.Core.Checks;
using Daxlin.Core.Values;

namespace Daxlin.Core.Readings;

/// <summary>A value of which two recognisers read different things.</summary>
/// <param name="Name">As ties name it: <c>lines[3].amount</c>.</param>
/// <param name="Value">What is taken for the time being.</param>
/// <param name="Others">What else it may be.</param>
/// <param name="Page">On which it is printed.</param>
internal sealed record ReadingDoubt(string Name, CapturedValue Value, ImmutableArray<CapturedValue> Others, int Page)
{
    public const string Code = "reading-doubtful";

    /// <summary>All that it may be, what is taken first.</summary>
    public ImmutableArray<CapturedValue> All => [Value, .. Others];

    /// <summary>Under how many ways of reading all sums hold; null where no sum contains it.</summary>
    public int? Ways { get; init; }

    /// <example>Row 3, amount: read as 1,204.50 EUR and as 1,284.50 EUR on page 1, and no sum says which. Look at the print and enter what it says, or accept this if it says 1,204.50 EUR.</example>
    public Finding ToFinding(Currency currency)
    {
        var why = Ways switch
        {
            null when Value.Kind.IsFigure() => "and no sum says which",
            null => "and nothing says which",
            0 => "and the sums come out with neither",
            _ => "and the sums come out with more than one",
        };
        return Finding.Hold(Code, string.Create(CultureInfo.InvariantCulture,
            $"{ValueNames.SpokenFirst(Name)}: read as {string.Join(" and as ", All.Select(value => Shown(value, currency)))} on page {Page}, {why}. Look at the print and enter what it says, or accept this if it says {Shown(Value, currency)}."), Name) with
        { Readings = [.. Others.Select(other => other.Value)] };
    }

    /// <summary>A value as a sentence shows it.</summary>
    public static string Shown(CapturedValue value, Currency currency) => Shown(value.Kind, value.Value, currency);

    /// <param name="value">In its settled form.</param>
    public static string Shown(ValueKind kind, string value, Currency currency) =>
        kind is ValueKind.Money or ValueKind.Price && decimal.TryParse(value, NumberStyles.Number, CultureInfo.InvariantCulture, out var number) ? currency.Show(number) : $"“{value}”";
}
