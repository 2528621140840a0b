namespace Daxlin.Samples.Vendors;

/// <summary>
/// Canvas, covers and sewing: landscape pages, blanks between thousands, a decimal comma, the euro sign after each amount,
/// dates year first with points; drawn piece by piece.
/// </summary>
public sealed class SkerrowSailLoft : Vendor
{
    public override string Folder => "skerrow-sail-loft";
    public override string Name => "Skerrow Sail Loft";
    public override string TaxId => "IE 0005521 T";
    public override string Iban => "IE50 SKSL 0000 0055 2100 00";
    public override string Currency => "EUR";
    public override Fault UsualFault => Fault.Tax;
    public override bool PrintsDiscountAsMinus => true;

    public override Assortment Sells { get; } = new(
        [
            new("SK/A4", "Hatch cover, PVC 680 g, with eyelets", "pc", 318.00m, 23),
            new("SK/A9", "Lifeboat cover, made to template", "pc", 1240.00m, 23),
            new("SK/B1", "Canvas, flax, 12 oz, loom width 92 cm", "m", 28.50m, 23, InFractions: true),
            new("SK/B6", "Clear vinyl window panel", "m2", 44.70m, 23, InFractions: true),
            new("SK/C2", "Rail dodger with lettering", "pc", 176.00m, 23),
            new("SK/D0", "Sewing, hand", "h", 52.00m, 13.5m, InFractions: true),
            new("SK/D1", "Sewing, machine", "h", 41.00m, 13.5m, InFractions: true),
            new("SK/D7", "Fitting on board", "h", 58.00m, 13.5m, InFractions: true),
        ],
        ["Razorbill", "- grommets in brass", "- the old cover is returned with the goods for reuse of its fittings and the lashing"],
        [], [], HasFreight: true, HasOrderDiscount: true);

    public override string NumberOf(int sequence) => $"26/{310 + sequence * 3}";

    public override int Draw(MadeInvoice invoice, string path)
    {
        using var sheet = new Sheet("Serif", isLandscape: true);
        sheet.Text("SKERROW SAIL LOFT", 60, 64, 16);
        sheet.Text("Old Net Store, Skerrow, Co. Sound    VAT IE 0005521 T", 60, 80, 8);
        var (left, right) = (110.0, 110.0);
        foreach (var line in new[] { "Kestrel Sound Ferries", "Accounts Payable", "Harbour House, Sound Quay 2", "Port Kestrel" })
            sheet.Text(line, 60, left += 13);
        sheet.Text($"Invoice no: {invoice.Number}", 560, right += 13);
        sheet.Text($"Date: {BrowserPrinter.Date(invoice.Date, "yyyy.MM.dd")}", 560, right += 13);
        sheet.Text($"Due: {BrowserPrinter.Date(invoice.Due, "yyyy.MM.dd")}", 560, right += 13);
        if (invoice.PurchaseOrder is { } order)
            sheet.Text($"Your order: {order}", 560, right += 13);

        var top = Headings(sheet, 200);
        foreach (var line in invoice.Lines)
        {
            var text = sheet.Wrap(line.Description, 300);
            if (top + 12 * text.Count > 510)
            {
                sheet.NewPage();
                top = Headings(sheet, 60);
            }
            sheet.Text(line.Code, 60, top);
            for (var row = 0; row < text.Count; row++)
                sheet.Text(text[row], 130, top + 12 * row);
            sheet.Right(Number(line.Quantity, "\u00A0", ",", line.Quantity == decimal.Truncate(line.Quantity) ? 0 : 1), 500, top);
            sheet.Text(line.Unit, 508, top);
            sheet.Right(Amount(line.UnitPrice), 620, top);
            sheet.Right(Plain(line.TaxRate, ","), 670, top);
            sheet.Right(Amount(line.Amount), 780, top);
            top += 12 * text.Count + 5;
        }
        if (top > 420)
        {
            sheet.NewPage();
            top = 60;
        }
        top += 16;
        foreach (var (caption, amount, bold) in Sums(invoice))
        {
            sheet.Text(caption, 540, top, 9, bold);
            sheet.Right(amount, 780, top, 9, bold);
            top += 15;
        }
        sheet.Text($"Bank of Skerrow, IBAN {Iban}", 60, top + 20, 8);
        sheet.Save(path);
        return sheet.Pages;
    }

    private static double Headings(Sheet sheet, double top)
    {
        sheet.Text("Ref", 60, top);
        sheet.Text("What we made", 130, top);
        sheet.Right("Qty", 500, top);
        sheet.Text("Per", 508, top);
        sheet.Right("Each", 620, top);
        sheet.Right("VAT %", 670, top);
        sheet.Right("Sum", 780, top);
        sheet.Line(58, top + 5, 782, top + 5, 0.4);
        return top + 20;
    }

    private static IEnumerable<(string, string, bool)> Sums(MadeInvoice invoice)
    {
        yield return ("All lines", Amount(invoice.Subtotal), false);
        if (invoice.Discount != 0)
            yield return ("Less trade discount", "-" + Amount(invoice.Discount), false);
        if (invoice.Freight != 0)
            yield return ("Carriage", Amount(invoice.Freight), false);
        foreach (var tax in invoice.Taxes)
            yield return ($"VAT at {Plain(tax.Rate, ",")} % of {Amount(tax.Base)}", Amount(tax.Amount), false);
        yield return ("Please pay", Amount(invoice.Total), true);
    }

    private static string Amount(decimal amount) => Number(amount, "\u00A0", ",") + " €";
}
