using System.Globalization;
using Daxlin.Samples;
using Daxlin.Samples.Vendors;

// Makes the demo's invoices, or any number of others by another seed. See samples/README.md.
var (seed, count, output, fastOnly, clean) = (1, 6, "", false, false);
int[] rows = [4, 17, 1, 34, 9, 60];
for (var index = 0; index < args.Length; index++)
{
    switch (args[index])
    {
        case "--seed": seed = int.Parse(args[++index], CultureInfo.InvariantCulture); break;
        case "--count": count = int.Parse(args[++index], CultureInfo.InvariantCulture); break;
        case "--rows": rows = [.. Enumerable.Repeat(int.Parse(args[++index], CultureInfo.InvariantCulture), rows.Length)]; break;
        case "--out": output = args[++index]; break;
        case "--drawn-only": fastOnly = true; break;
        case "--no-faults": clean = true; break;
        case "--electronic":
            ElectronicSet.Make(args[++index]);
            return 0;
        default:
            Console.Error.WriteLine("samples/make --out DIR [--seed N] [--count N] [--rows N] [--drawn-only] [--no-faults], or samples/make --electronic DIR");
            return 2;
    }
}
if (output.Length == 0)
{
    Console.Error.WriteLine("Say where to: --out DIR.");
    return 2;
}
Vendor[] vendors = [new BrinewoodChandlery(), new HalvardMarineDiesel(), new PortElleryGalley(), new SkerrowSailLoft()];
try
{
    foreach (var vendor in vendors.Where(vendor => !fastOnly || !vendor.IsSlow))
    {
        var folder = Path.Combine(output, vendor.Folder);
        Directory.CreateDirectory(folder);
        var lot = new Random(seed * 1000 + vendor.Folder.Length);
        var made = new List<(MadeInvoice, string, int)>();
        for (var index = 0; index < count; index++)
        {
            // One invoice in six is printed with a fault; in the demo it is the one with nine rows.
            var fault = index % 6 == 4 && !clean ? vendor.UsualFault : Fault.None;
            var invoice = InvoiceMaker.Make(vendor.Sells, lot, rows[index % 6], fault, vendor.NumberOf(index + seed * 100), hasOrder: index % 3 != 2);
            var file = $"{vendor.Folder}-{index + 1:D2}.pdf";
            made.Add((invoice, file, vendor.Draw(invoice, Path.Combine(folder, file))));
        }
        TruthWriter.Write(Path.Combine(folder, "truth.json"), vendor, made);
        Console.WriteLine($"{vendor.Name}: {made.Count} invoices, {made.Sum(one => one.Item3)} pages");
    }
}
finally
{
    BrowserPrinter.Stop();
}
return 0;
