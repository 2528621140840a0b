namespace Daxlin.Samples.Vendors;

/// <summary>
/// Food and catering goods: sums carried forward at the foot of each page and brought forward at the next one's head,
/// ISO dates, food without tax beside goods at 20 %; drawn piece by piece.
/// </summary>
public sealed class PortElleryGalley : Vendor
{
    public override string Folder => "port-ellery-galley";
    public override string Name => "Port Ellery Galley Supplies";
    public override string TaxId => "GB 000 3317 53";
    public override string Iban => "GB15 PEGS 0000 0033 1752 00";
    public override string Currency => "GBP";
    public override Fault UsualFault => Fault.Subtotal;

    public override Assortment Sells { get; } = new(
        [
            new("1007", "Smoked haddock fillet", "kg", 14.20m, 0, InFractions: true),
            new("1019", "Potatoes, washed", "kg", 0.92m, 0, InFractions: true),
            new("1044", "Butter, salted, 40 x 250 g", "case", 71.60m, 0),
            new("1061", "Oatcakes, 24 packs", "case", 26.40m, 0),
            new("1088", "Milk, semi-skimmed, 2 l", "pc", 1.65m, 0),
            new("2203", "Paper cup, 250 ml, sleeve of 50", "sleeve", 3.15m, 20),
            new("2230", "Lid for paper cup, sleeve of 100", "sleeve", 2.80m, 20),
            new("2275", "Napkin, two-ply, white, 2000", "case", 31.90m, 20),
            new("2311", "Lemonade, 24 x 330 ml", "case", 10.75m, 20),
            new("2390", "Washing-up liquid, 5 l", "pc", 8.45m, 20),
        ],
        ["- for the Kittiwake buffet", "substitute for 1009", "- short-dated, price as agreed with the catering manager", "- cold chain, sign for the logger"],
        [], [], HasFreight: true, HasOrderDiscount: false);

    public override string NumberOf(int sequence) => $"PE{70310 + sequence * 7}";

    public override int Draw(MadeInvoice invoice, string path)
    {
        using var sheet = new Sheet("Sans");
        var top = Head(sheet, invoice, 1);
        var carried = 0m;
        foreach (var line in invoice.Lines)
        {
            var text = sheet.Wrap(line.Description, 190);
            if (top + 11 * text.Count > 730)
            {
                sheet.Text("Carried forward", 105, top, 8.5);
                sheet.Right(Amount(carried), 545, top, 8.5);
                sheet.NewPage();
                top = Head(sheet, invoice, sheet.Pages);
                sheet.Text("Brought forward", 105, top, 8.5);
                sheet.Right(Amount(carried), 545, top, 8.5);
                top += 15;
            }
            sheet.Text(line.Code, 52, top, 8.5);
            for (var row = 0; row < text.Count; row++)
                sheet.Text(text[row], 105, top + 11 * row, 8.5);
            sheet.Right(Plain(line.Quantity, "."), 345, top, 8.5);
            sheet.Text(line.Unit, 352, top, 8.5);
            sheet.Right(Amount(line.UnitPrice), 440, top, 8.5);
            sheet.Right(Plain(line.TaxRate, ".") + "%", 480, top, 8.5);
            sheet.Right(Amount(line.Amount), 545, top, 8.5);
            top += 11 * text.Count + 4;
            carried += line.Amount;
        }
        if (top > 640)
        {
            sheet.NewPage();
            top = 60;
        }
        top += 14;
        sheet.Line(330, top - 12, 545, top - 12);
        foreach (var (caption, amount) in Sums(invoice))
        {
            sheet.Text(caption, 335, top);
            sheet.Right(amount, 545, top);
            top += 15;
        }
        sheet.Text("To pay", 335, top + 4, 11, isBold: true);
        sheet.Right("£" + Amount(invoice.Total), 545, top + 4, 11, isBold: true);
        sheet.Text($"Pay to Ellery Provident, IBAN {Iban}. Claims within 24 hours of delivery.", 52, top + 44, 7.5);
        sheet.Save(path);
        return sheet.Pages;
    }

    private static double Head(Sheet sheet, MadeInvoice invoice, int page)
    {
        sheet.Text("Port Ellery Galley Supplies", 52, 62, 14, isBold: true);
        sheet.Text("Fish Dock 11, Port Ellery PE1 1QX    VAT no. GB 000 3317 53", 52, 76, 7.5);
        sheet.Right($"Page {page}", 545, 62, 7.5);
        var top = 100.0;
        if (page == 1)
        {
            foreach (var line in new[] { "Kestrel Sound Ferries", "Accounts Payable", "Harbour House, Sound Quay 2", "Port Kestrel" })
                sheet.Text(line, 52, top += 12);
            var right = 100.0;
            foreach (var (caption, value) in Captions(invoice))
            {
                sheet.Text(caption, 360, right += 12);
                sheet.Text(value, 455, right);
            }
            top += 30;
        }
        sheet.Text("Item", 52, top, 8.5, isBold: true);
        sheet.Text("Goods", 105, top, 8.5, isBold: true);
        sheet.Right("Quantity", 345, top, 8.5, isBold: true);
        sheet.Right("Price", 440, top, 8.5, isBold: true);
        sheet.Right("VAT", 480, top, 8.5, isBold: true);
        sheet.Right("Amount", 545, top, 8.5, isBold: true);
        sheet.Line(50, top + 4, 547, top + 4);
        return top + 18;
    }

    private static IEnumerable<(string, string)> Captions(MadeInvoice invoice)
    {
        yield return ("Invoice", invoice.Number);
        yield return ("Date", BrowserPrinter.Date(invoice.Date, "yyyy-MM-dd"));
        yield return ("Pay before", BrowserPrinter.Date(invoice.Due, "yyyy-MM-dd"));
        if (invoice.PurchaseOrder is { } order)
            yield return ("Order", order);
    }

    private static IEnumerable<(string, string)> Sums(MadeInvoice invoice)
    {
        yield return ("Goods in all", Amount(invoice.Subtotal));
        if (invoice.Freight != 0)
            yield return ("Delivery", Amount(invoice.Freight));
        foreach (var tax in invoice.Taxes)
            yield return ($"VAT {Plain(tax.Rate, ".")}% on {Amount(tax.Base)}", Amount(tax.Amount));
    }

    private static string Amount(decimal amount) => Number(amount, ",", ".");
}
