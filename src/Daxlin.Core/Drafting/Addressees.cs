using Daxlin.Core.Pages;

namespace Daxlin.Core.Drafting;

/// <summary>Where the buyer's address stands: beside words such as "Accounts Payable".</summary>
internal static class Addressees
{
    /// <summary>An address reaches so many points above and below the word that tells it.</summary>
    private const double Reach = 45;

    /// <summary>The places of the words that tell it. The vendor's address may stand beside the buyer's, so a place is a cell and no line.</summary>
    public static IReadOnlyList<Box> On(Page page) =>
    [
        .. from line in page.Lines
           where Vocabulary.Addressees.Any(word => line.Text.Contains(word, StringComparison.OrdinalIgnoreCase))
           from cell in line.Cells
           where Vocabulary.Addressees.Any(word => cell.Text.Contains(word, StringComparison.OrdinalIgnoreCase))
           select cell.Box,
    ];

    /// <summary>Says whether something stands in one of the addresses.</summary>
    public static bool AreAround(IEnumerable<Box> addressees, Box box) =>
        addressees.Any(buyer => Math.Abs(buyer.CenterY - box.CenterY) < Reach && buyer.SharedWidth(box) > 0);
}
