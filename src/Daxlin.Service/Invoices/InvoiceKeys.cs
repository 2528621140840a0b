using Daxlin.Service.Storage;

namespace Daxlin.Service.Invoices;

/// <summary>By what other invoices are found on which an invoice has a say.</summary>
/// <param name="Date">As yyyy-MM-dd; empty if unknown.</param>
internal readonly record struct InvoiceKeys(int? VendorId, string Seen, string Like, string Number, string Date)
{
    public static InvoiceKeys Of(Invoice row) => new(row.VendorId, row.SeenKey, row.LikeKey, row.InvoiceNumber, row.InvoiceDate);
}
