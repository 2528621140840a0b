using Daxlin.Core.Values;

namespace Daxlin.Core.Posting.Layouts;

/// <summary>The figures of a column held against the control total that they must come to, for invoices or credit notes of one currency.</summary>
/// <param name="Wanted">What the invoices come to.</param>
/// <param name="Written">What the column comes to.</param>
public sealed record ProvedSum(string Table, string Column, Proved Proves, string Currency, bool IsOfCreditNotes, decimal Wanted, decimal Written)
{
    public bool Holds => Wanted == Written;

    /// <summary>It comes to 1,190.50 EUR; the invoices have lines of 1,204.50 EUR (14.00 EUR too little).</summary>
    public string Says
    {
        get
        {
            var currency = Values.Currency.Find(Currency)!;
            var what = (IsOfCreditNotes ? "the credit notes" : "the invoices") + Proves switch
            {
                Proved.Total => " come to",
                Proved.Lines => " have lines of",
                Proved.Journal => " have journals of",
                _ => " have taxes of",
            };
            return $"It comes to {currency.Show(Written)}; {what} {currency.Show(Wanted)}"
                + (Holds ? "." : $" ({currency.Show(Math.Abs(Written - Wanted))} {(Written > Wanted ? "too much" : "too little")}).");
        }
    }
}
