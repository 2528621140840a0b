using System.Globalization;
using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Nodes;

namespace Daxlin.Samples;

/// <summary>Writes what invoices really say, in the form that tests/corpus/README.md describes.</summary>
internal static class TruthWriter
{
    private static readonly JsonSerializerOptions Json = new() { WriteIndented = true, Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping };

    public static void Write(string path, Vendor vendor, IEnumerable<(MadeInvoice Invoice, string File, int Pages)> made)
    {
        var root = new JsonObject
        {
            ["family"] = vendor.Folder,
            ["currency"] = vendor.Currency,
            ["notPrinted"] = new JsonArray(),
            ["invoices"] = new JsonArray([.. made.Select(one => Of(vendor, one.Invoice, one.File, one.Pages))]),
        };
        File.WriteAllText(path, root.ToJsonString(Json) + "\n");
    }

    private static JsonObject Of(Vendor vendor, MadeInvoice invoice, string file, int pages) => new()
    {
        ["file"] = file,
        ["pages"] = pages,
        ["invoiceNumber"] = invoice.Number,
        ["invoiceDate"] = Text(invoice.Date),
        ["dueDate"] = Text(invoice.Due),
        ["purchaseOrder"] = invoice.PurchaseOrder,
        ["vendorName"] = vendor.Name,
        ["vendorTaxId"] = vendor.TaxId,
        ["iban"] = vendor.Iban,
        ["currency"] = vendor.Currency,
        ["subtotal"] = Text(invoice.Subtotal),
        ["discount"] = invoice.Discount == 0 ? null : Text(vendor.PrintsDiscountAsMinus ? -invoice.Discount : invoice.Discount),
        ["freight"] = invoice.Freight == 0 ? null : Text(invoice.Freight),
        ["taxes"] = new JsonArray([.. invoice.Taxes.Select(tax => new JsonObject
        {
            ["rate"] = Text(tax.Rate),
            ["base"] = Text(tax.Base),
            ["amount"] = Text(tax.Amount),
        })]),
        ["taxTotal"] = Text(invoice.Tax),
        ["total"] = Text(invoice.Total),
        ["isCreditNote"] = false,
        ["lines"] = new JsonArray([.. invoice.Lines.Select(line => new JsonObject
        {
            ["itemCode"] = line.Code,
            ["description"] = line.Description,
            ["section"] = line.Section,
            ["quantity"] = Text(line.Quantity),
            ["unit"] = line.Unit,
            ["unitPrice"] = Text(line.UnitPrice),
            ["priceBasis"] = 1,
            ["discountPercent"] = line.DiscountPercent == 0 ? null : Text(line.DiscountPercent),
            ["taxRate"] = Text(line.TaxRate),
            ["amount"] = Text(line.Amount),
        })]),
        ["arithmetic"] = invoice.Fault == Fault.None ? "consistent" : invoice.FaultText,
    };

    private static string Text(decimal number) => number.ToString(CultureInfo.InvariantCulture);

    private static string Text(DateOnly date) => date.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);
}
