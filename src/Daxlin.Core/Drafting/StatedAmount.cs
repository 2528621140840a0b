using Daxlin.Core.Pages;

namespace Daxlin.Core.Drafting;

/// <summary>An amount that is stated below the item rows, with its caption.</summary>
/// <param name="Caption">The words before it, without the figures in them: "VAT" of "VAT 20 % on 136.56".</param>
/// <param name="Text">The words before it as printed.</param>
/// <param name="Line">The whole line's text.</param>
internal sealed record StatedAmount(string Caption, string Text, string Line, decimal Amount, Box Box, int Page)
{
    /// <summary>Whether a rate in per cent stands in its words.</summary>
    public bool HasRate => Text.Contains('%', StringComparison.Ordinal);

    public int? RankAs(string name)
    {
        foreach (var (other, rank) in Vocabulary.Fields.MeaningsOf(Caption))
        {
            if (other == name)
                return rank;
        }
        // "Invoice total EUR", "Rechnungsbetrag CHF": the currency's code belongs to no caption of the vocabulary.
        if (Caption.Length > 4 && Values.Currency.Find(Caption[^3..]) is not null)
        {
            foreach (var (other, rank) in Vocabulary.Fields.MeaningsOf(Caption[..^4]))
            {
                if (other == name)
                    return rank;
            }
        }
        return null;
    }
}
