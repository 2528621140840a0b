using Daxlin.Samples.Vendors;

namespace Daxlin.Samples;

/// <summary>Invoices that carry an electronic one, alike and otherwise, and one that is nothing but that.</summary>
internal static class ElectronicSet
{
    public static void Make(string folder)
    {
        Directory.CreateDirectory(folder);
        var vendor = new SkerrowSailLoft();
        var lot = new Random(31);
        foreach (var (name, rows, isOther) in new[] { ("skerrow-carrying", 4, false), ("skerrow-carrying-otherwise", 5, true) })
        {
            var invoice = InvoiceMaker.Make(vendor.Sells, lot, rows, Fault.None, vendor.NumberOf(rows + 700), hasOrder: true);
            var path = Path.Combine(folder, $"{name}.pdf");
            vendor.Draw(invoice, path);
            // The vendor's program sent the second line with another quantity than it printed, and worked out all that follows from it.
            var sent = isOther ? InvoiceMaker.WithQuantity(invoice, line: 1, invoice.Lines[1].Quantity + 1) : invoice;
            File.WriteAllBytes(path, CarryingPdf.Add(File.ReadAllBytes(path), "invoice.xml", ElectronicWriter.Write(vendor, sent)));
        }
        var ropes = new CorriganRopeWalk();
        File.WriteAllBytes(
            Path.Combine(folder, "corrigan-rope-walk.xml"),
            ElectronicWriter.Write(ropes, InvoiceMaker.Make(ropes.Sells, lot, 6, Fault.None, ropes.NumberOf(4), hasOrder: true)));
    }
}
