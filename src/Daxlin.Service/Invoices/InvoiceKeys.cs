using Daxlin.Service.Storage;

namespace Daxlin.Service.Invoices;

/// <summary>By what other invoices are found on which an invoice has a say.</summary>
internal readonly record struct InvoiceKeys(int? VendorId, string Seen, string Like, string Iban)
{
    public static InvoiceKeys Of(Invoice row) => new(row.VendorId, row.SeenKey, row.LikeKey, row.Iban);
}
