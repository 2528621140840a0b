using Daxlin.Core.Templates;

namespace Daxlin.Core.Checks;

/// <summary>Says that the invoice that a credit note credits was never taken in.</summary>
public static class CreditAlone
{
    /// <summary>The code of its finding.</summary>
    public const string Code = "credit-alone";

    /// <param name="credits">The number that the credit note names; empty if it names none.</param>
    public static Finding ToFinding(string vendor, string credits, string amount) => credits.Length > 0
        ? Finding.Hold(Code, $"This credit note is for the invoice {credits} of {vendor}, which was never taken in: {amount} would be taken off what was not posted here.", TradeNames.CreditedInvoice)
        : new Finding(Code, Severity.Note, $"This credit note names no invoice, and none of {vendor} over {amount} or more was taken in.", [TradeNames.Total]);
}
