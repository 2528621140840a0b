using System.Globalization;
using Daxlin.Core.Checks;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Posting.Ubl;

/// <summary>How figures are rounded and written in electronic invoices.</summary>
internal static class UblFigures
{
    /// <summary>To the currency's minor unit, half up, as the standard rounds.</summary>
    public static decimal Rounded(decimal amount, Currency currency) => Tie.Round(amount, currency, Rounding.HalfUp);

    /// <summary>The tax at a rate, rounded.</summary>
    public static decimal TaxOf(decimal amount, decimal rate, Currency currency) => Rounded(amount * rate / 100, currency);

    /// <summary>A quantity, a price or a rate without zeros at its end: 20.00 is 20.</summary>
    public static string Plain(decimal number) => number.ToString("0.############################", CultureInfo.InvariantCulture);
}
