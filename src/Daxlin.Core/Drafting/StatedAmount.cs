using Daxlin.Core.Pages;
using Daxlin.Core.Values;

namespace Daxlin.Core.Drafting;

/// <summary>An amount that is stated below the item rows, with its caption.</summary>
/// <param name="Caption">The words before it, without the figures in them: "VAT" of "VAT 20 % on 136.56".</param>
/// <param name="Text">The words before it as printed.</param>
/// <param name="Line">The whole line's text.</param>
internal sealed record StatedAmount(string Caption, string Text, string Line, decimal Amount, Box Box, int Page)
{
    /// <summary>Whether a rate in per cent stands in its words.</summary>
    public bool HasRate => Text.Contains('%', StringComparison.Ordinal);

    /// <summary>What the caption can mean. A currency's code behind it belongs to no caption of the vocabulary: "Invoice total EUR".</summary>
    public Meanings Meanings { get; } = Vocabulary.Fields.MeaningsOf(Caption) is { IsEmpty: false } whole ? whole
        : Caption.Length > 4 && Currency.Find(Caption[^3..]) is not null ? Vocabulary.Fields.MeaningsOf(Caption[..^4]) : Meanings.None;
}
