using System.Collections.Immutable;
using Daxlin.Core.Checks;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Capture;

/// <summary>Everything that a template took from an invoice's pages.</summary>
/// <param name="IsCreditNote">Says that the vendor owes the amounts to the buyer.</param>
/// <param name="Lines">Item rows in printed order.</param>
/// <param name="Taxes">Rows of the tax summary.</param>
/// <param name="Others">Rows of lists of their own, which no sum counts: a legend, a list of deliveries at the end.</param>
/// <param name="LeftOut">What stands inside the blocks and is no row, so that nothing is lost unseen.</param>
/// <param name="Sums">Sums of the rows above that are printed between the rows.</param>
/// <param name="Findings">What was in doubt while capturing.</param>
public sealed record CapturedInvoice(
    Template Template,
    bool IsCreditNote,
    ImmutableArray<CapturedValue> Fields,
    ImmutableArray<CapturedLine> Lines,
    ImmutableArray<CapturedLine> Taxes,
    ImmutableArray<CapturedLine> Others,
    ImmutableArray<LeftOutLine> LeftOut,
    ImmutableArray<CapturedSum> Sums,
    ImmutableArray<Finding> Findings)
{
    public CapturedValue? Find(string field)
    {
        foreach (var value in Fields)
        {
            if (value.Name == field)
                return value;
        }
        return null;
    }

    public decimal? Amount(string field) => Find(field)?.Number;
}
