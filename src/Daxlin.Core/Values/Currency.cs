using System.Collections.Frozen;
using System.Collections.Immutable;

namespace Daxlin.Core.Values;

/// <summary>A currency of ISO 4217.</summary>
/// <param name="Code">Three capitals: EUR.</param>
/// <param name="MinorDigits">Digits after the decimal mark: 2 for EUR, 0 for JPY, 3 for KWD.</param>
public sealed record Currency(string Code, int MinorDigits)
{
    private ImmutableArray<string> marks;

    private static readonly FrozenDictionary<string, Currency> Known = (
        "AED AFN ALL AMD AOA ARS AUD AWG AZN BAM BBD BDT BGN BMD BND BOB BRL BSD BTN BWP BYN BZD CAD CDF CHF CNY COP CRC "
        + "CUP CVE CZK DKK DOP DZD EGP ERN ETB EUR FJD FKP GBP GEL GHS GIP GMD GTQ GYD HKD HNL HTG HUF IDR ILS INR IRR JMD "
        + "KES KGS KHR KPW KYD KZT LAK LBP LKR LRD LSL MAD MDL MGA MKD MMK MNT MOP MRU MUR MVR MWK MXN MYR MZN NAD NGN NIO "
        + "NOK NPR NZD PAB PEN PGK PHP PKR PLN QAR RON RSD RUB SAR SBD SCR SDG SEK SGD SHP SLE SOS SRD SSP STN SVC SYP SZL "
        + "THB TJS TMT TOP TRY TTD TWD TZS UAH USD UYU UZS VES WST XCD YER ZAR ZMW ZWG")
        .Split(' ').Select(code => new Currency(code, 2))
        .Concat("BIF CLP DJF GNF ISK JPY KMF KRW PYG RWF UGX VND VUV XAF XOF XPF".Split(' ').Select(code => new Currency(code, 0)))
        .Concat("BHD IQD JOD KWD LYD OMR TND".Split(' ').Select(code => new Currency(code, 3)))
        .ToFrozenDictionary(currency => currency.Code, StringComparer.OrdinalIgnoreCase);

    /// <summary>What a printed sign can stand for; the first is the most usual.</summary>
    private static readonly FrozenDictionary<string, string[]> Signs = new Dictionary<string, string[]>
    {
        ["€"] = ["EUR"],
        ["£"] = ["GBP", "GIP", "FKP", "SHP", "EGP"],
        ["¥"] = ["JPY", "CNY"],
        ["￥"] = ["JPY", "CNY"],
        ["円"] = ["JPY"],
        ["$"] = ["USD", "CAD", "AUD", "NZD", "HKD", "SGD", "MXN", "TWD", "BBD", "BMD", "BSD", "BZD", "JMD", "TTD", "CLP", "COP", "ARS"],
        ["US$"] = ["USD"],
        ["kr"] = ["SEK", "NOK", "DKK", "ISK"],
        ["kr."] = ["DKK", "SEK", "NOK", "ISK"],
        ["₹"] = ["INR"],
        ["₺"] = ["TRY"],
        ["₩"] = ["KRW"],
        ["zł"] = ["PLN"],
        ["Kč"] = ["CZK"],
        ["Ft"] = ["HUF"],
        ["R$"] = ["BRL"],
        ["Fr."] = ["CHF"],
        ["₫"] = ["VND"],
        ["฿"] = ["THB"],
        ["₴"] = ["UAH"],
        ["₽"] = ["RUB"],
        ["lei"] = ["RON"],
    }.ToFrozenDictionary(StringComparer.OrdinalIgnoreCase);

    /// <summary>The smallest amount that can be paid: 0.01 for EUR, 1 for JPY.</summary>
    public decimal MinorUnit => new(1, 0, 0, false, (byte)MinorDigits);

    /// <summary>The currency of a three-letter code, or null if ISO 4217 has none such.</summary>
    public static Currency? Find(string code) => Known.GetValueOrDefault(code);

    /// <summary>Says that a printed mark, a sign or a code, is a currency's at all.</summary>
    public static bool IsMark(string mark) => Signs.ContainsKey(mark) || Known.ContainsKey(mark);

    /// <summary>Says that a printed mark can stand for this currency: "kr" for SEK as well as for NOK, "$" not for EUR.</summary>
    public bool CanBePrintedAs(string mark) =>
        string.Equals(mark, Code, StringComparison.OrdinalIgnoreCase)
        || (Signs.TryGetValue(mark, out var codes) && codes.Contains(Code));

    /// <summary>The printed signs that may stand for this currency, and its code.</summary>
    public ImmutableArray<string> Marks => marks.IsDefault
        ? marks = [.. Signs.Where(sign => sign.Value.Contains(Code)).Select(sign => sign.Key), Code] : marks;

    /// <summary>An amount as it is shown to a person: grouped by commas, with its minor digits and code.</summary>
    public string Show(decimal amount)
    {
        // More digits than the currency has are shown, never rounded away: a price of 0.0125 EUR is no 0.01 EUR.
        var digits = Math.Max(MinorDigits, amount.Scale);
        return amount.ToString("N" + digits, System.Globalization.CultureInfo.InvariantCulture) + " " + Code;
    }

    /// <summary>An amount in the settled form, "1204.50": with its minor digits, or more if it has more.</summary>
    public string Settled(decimal amount) => amount.ToString("F" + Math.Max(MinorDigits, amount.Scale), System.Globalization.CultureInfo.InvariantCulture);

    public override string ToString() => Code;
}
