using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.Posting;
using Daxlin.Core.Values;

namespace Daxlin.Core.Sources;

/// <summary>What a cover sheet says that the invoices beside it come to: a table with the columns <c>currency</c>, <c>invoices</c> and <c>sum</c>, a row for each currency.</summary>
public static class CoverSheet
{
    private const string CurrencyColumn = "currency";
    private const string Invoices = "invoices";
    private const string Sum = "sum";

    private const int MostCurrencies = 50;

    /// <param name="columns">The first line.</param>
    /// <param name="rows">The others; one without anything in it says nothing.</param>
    /// <returns>What is stated; or what is wrong with it, as a sentence.</returns>
    public static (ImmutableArray<StatedTotal> Stated, string Fault) Read(IReadOnlyList<string> columns, IEnumerable<IReadOnlyList<string>> rows)
    {
        var names = columns.Select(column => column.Trim().TrimStart('\uFEFF').ToLowerInvariant()).ToList();
        if (!names.Contains(CurrencyColumn) || !names.Contains(Invoices) && !names.Contains(Sum))
            return ([], $"Its first line says its columns: {CurrencyColumn}, {Invoices} and {Sum}; one of the last two may be left out.");
        var stated = ImmutableArray.CreateBuilder<StatedTotal>();
        var number = 1;
        foreach (var row in rows)
        {
            number++;
            string Cell(string column) => names.IndexOf(column) is var at and >= 0 && at < row.Count ? row[at].Trim() : "";
            if (row.All(string.IsNullOrWhiteSpace))
                continue;
            if (Currency.Find(Cell(CurrencyColumn).ToUpperInvariant()) is not { } currency)
                return ([], $"Line {number}: “{Cell(CurrencyColumn)}” is no currency of ISO 4217; one is EUR.");
            if (stated.Any(total => total.Currency == currency.Code))
                return ([], $"Line {number}: {currency.Code} stands in it twice.");
            if (stated.Count == MostCurrencies)
                return ([], $"It has more than {MostCurrencies} currencies.");
            var (total, fault) = Of(currency, Cell(Invoices), Cell(Sum));
            if (total is null)
                return ([], $"Line {number}: {fault}");
            stated.Add(total);
        }
        return stated.Count == 0 ? ([], "It states nothing: no line follows the first.") : (stated.ToImmutable(), "");
    }

    /// <param name="invoices">How many, in digits; empty if that is not said.</param>
    /// <param name="sum">With a point or a comma before its decimals; empty if it is not said.</param>
    internal static (StatedTotal? Stated, string Fault) Of(Currency currency, string invoices, string sum)
    {
        int? count = null;
        if (invoices.Length > 0)
        {
            if (!int.TryParse(invoices, NumberStyles.None, CultureInfo.InvariantCulture, out var said))
                return (null, $"“{invoices}” is no count of invoices.");
            count = said;
        }
        decimal? amount = null;
        if (sum.Length > 0)
        {
            var (read, fault) = StatedAmount.Read(sum, currency);
            if (read is null)
                return (null, $"“{sum}” {fault}.");
            amount = read;
        }
        return count is null && amount is null ? (null, $"Neither a count nor a sum is stated in {currency.Code}.") : (new StatedTotal(currency.Code, count, amount), "");
    }
}
