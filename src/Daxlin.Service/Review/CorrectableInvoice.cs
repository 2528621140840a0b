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
    public CorrectionHistory History { get; } = new(Made.Select(CorrectedInvoices.Of));

    /// <summary>Captured and said together.</summary>
    public CorrectedInvoice Corrected { get; } = InvoiceCorrections.Apply(Captured, new CorrectionHistory(Made.Select(CorrectedInvoices.Of)).Holding);

    /// <summary>As it is shown: with all corrections that hold.</summary>
    public CapturedInvoice Shown => Corrected.Checked.Captured;
}
