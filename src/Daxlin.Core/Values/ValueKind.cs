namespace Daxlin.Core.Values;

/// <summary>What a captured text is meant to be.</summary>
public enum ValueKind
{
    Text,

    /// <summary>Digits without a decimal mark.</summary>
    Whole,

    /// <summary>A quantity or another bare number, with as many decimals as are printed. "5 KR" is none: KR is a unit there.</summary>
    Number,

    /// <summary>A price: as many decimals as are printed, a currency mark beside it or none.</summary>
    Price,

    /// <summary>An amount in the invoice's currency, with no more decimals than the currency has.</summary>
    Money,

    /// <summary>A rate; "19 %" and "19" are both 19.</summary>
    Percent,

    Date,

    /// <summary>An ISO 13616 account number, its check digits verified.</summary>
    Iban,

    /// <summary>An ISO 4217 code, or a sign that stands for one.</summary>
    Currency,

    /// <summary>A box ticked or not, a word for yes or no in one of many languages.</summary>
    YesNo,
}
