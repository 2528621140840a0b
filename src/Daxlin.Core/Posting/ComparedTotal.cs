using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.Values;

namespace Daxlin.Core.Posting;

/// <summary>What a batch was said to come to in one currency, beside what its invoices come to.</summary>
/// <param name="Stated">Null if nothing was stated.</param>
/// <param name="Invoices">How many invoices there are.</param>
/// <param name="Sum">Credit notes taken off.</param>
public sealed record ComparedTotal(string Currency, StatedTotal? Stated, int Invoices, decimal Sum)
{
    /// <summary>One for each currency that was stated or captured, by its code.</summary>
    public static ImmutableArray<ComparedTotal> Of(IReadOnlyCollection<StatedTotal> stated, IReadOnlyCollection<(string Currency, int Invoices, decimal Sum)> captured) =>
    [
        .. stated.Select(total => total.Currency).Union(captured.Select(total => total.Currency)).Order(StringComparer.Ordinal).Select(currency =>
        {
            var own = captured.Where(total => total.Currency == currency).ToList();
            return new ComparedTotal(currency, stated.FirstOrDefault(total => total.Currency == currency), own.Sum(total => total.Invoices), own.Sum(total => total.Sum));
        }),
    ];

    /// <summary>One for each that was stated, in their order; what was captured in other currencies is left out.</summary>
    public static ImmutableArray<ComparedTotal> OfStated(IReadOnlyCollection<StatedTotal> stated, IReadOnlyCollection<(string Currency, int Invoices, decimal Sum)> captured) =>
        [.. stated.SelectMany(total => Of([total], captured).Where(compared => compared.Stated is not null))];

    /// <summary>What does not agree, in figures; empty if all does or nothing was stated.</summary>
    /// <example>12 invoices in EUR were stated, 11 captured (1 less); 1,240.50 EUR were stated, the invoices come to 1,204.50 EUR (36.00 EUR less).</example>
    public string Says
    {
        get
        {
            var parts = new List<string>();
            if (Stated?.Invoices is { } wanted && wanted != Invoices)
                parts.Add($"{Counted(wanted)} in {Currency} {(wanted == 1 ? "was" : "were")} stated, {Text(Invoices)} captured ({Text(Math.Abs(Invoices - wanted))} {(Invoices > wanted ? "more" : "less")})");
            if (Stated?.Sum is { } amount && amount != Sum)
            {
                var of = Values.Currency.Find(Currency)!;
                parts.Add($"{of.Show(amount)} were stated, the invoices come to {of.Show(Sum)} ({of.Show(Math.Abs(Sum - amount))} {(Sum > amount ? "more" : "less")})");
            }
            return parts.Count == 0 ? "" : string.Join("; ", parts) + ".";
        }
    }

    /// <summary>Stated totals as the history tells them: "12 invoices over 1,240.50 EUR; any number of invoices over 90.00 GBP".</summary>
    public static string Told(IEnumerable<StatedTotal> totals) => string.Join("; ", totals.Select(total =>
        (total.Invoices is { } count ? Counted(count) : "any number of invoices") + (total.Sum is { } sum ? $" over {Values.Currency.Find(total.Currency)!.Show(sum)}" : $" in {total.Currency}")));

    private static string Counted(int count) => $"{Text(count)} {(count == 1 ? "invoice" : "invoices")}";

    private static string Text(int number) => number.ToString(CultureInfo.InvariantCulture);
}
