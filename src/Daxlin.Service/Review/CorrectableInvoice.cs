using Daxlin.Core.Capture;
using Daxlin.Core.Corrections;
using Daxlin.Service.Invoices;
using Daxlin.Service.Storage;

namespace Daxlin.Service.Review;

/// <summary>What was captured from an invoice and what persons said of it.</summary>
/// <param name="Captured">By the newest capture.</param>
/// <param name="Made">All corrections, taken back or not, from the oldest.</param>
/// <param name="Record">The newest capture as it is stored.</param>
internal sealed record CorrectableInvoice(CapturedInvoice Captured, IReadOnlyCollection<InvoiceCorrection> Made, InvoiceRecord Record)
{
    /// <summary>Both together.</summary>
    public CorrectedInvoice Corrected { get; } = InvoiceCorrections.Apply(Captured, CorrectedInvoices.Holding(Made));

    /// <summary>The value of a name; null if the invoice has none.</summary>
    public static CapturedValue? ValueOf(CapturedInvoice invoice, string name) => RowNames.Parse(name) switch
    {
        (null, _, { } field) => invoice.Find(field),
        ({ } list, var row, { } column) => RowOf(invoice, list, row)?.Find(column),
        _ => null,
    };

    /// <summary>The row of a list and number; null if the invoice has none.</summary>
    public static CapturedLine? RowOf(CapturedInvoice invoice, string list, int number) => list switch
    {
        Core.Templates.BlockRule.Lines => invoice.Lines.FirstOrDefault(line => line.Number == number),
        Core.Templates.BlockRule.Taxes => invoice.Taxes.FirstOrDefault(line => line.Number == number),
        _ => invoice.Others.FirstOrDefault(line => line.Block == list && line.Number == number),
    };
}
