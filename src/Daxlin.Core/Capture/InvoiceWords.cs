using System.Collections.Immutable;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Capture;

/// <summary>Tells a page that is an invoice of some vendor by words and amounts alone.</summary>
internal static class InvoiceWords
{
    private static readonly Cue Word = new(ImmutableArray.Create(
        "Invoice", "Credit note", "Rechnung", "Gutschrift", "Facture", "Avoir", "Factuur", "Fattura", "Factura", "Fatura",
        "Faktura", "Lasku", "Számla", "Faktúra"));

    /// <summary>An invoice has its total at least, and what it is made of.</summary>
    private const int FewestAmounts = 2;

    public static bool LooksLikeInvoice(Page page) => page.Words.Count(IsAmount) >= FewestAmounts && Word.IsOn(page);

    /// <summary>Ends in a mark and two figures: 1,204.50.</summary>
    private static bool IsAmount(Word word)
    {
        var text = word.Text.AsSpan().TrimEnd("€$£¥-");
        return text.Length >= 4 && text[^3] is '.' or ',' && char.IsAsciiDigit(text[^1]) && char.IsAsciiDigit(text[^2]) && char.IsAsciiDigit(text[^4]);
    }
}
