using System.Text;

namespace Daxlin.Samples.Vendors;

/// <summary>
/// Engine parts and fitters' hours: no rulings, captions above their values, a vessel's name over its lines, months by
/// name; printed by a browser.
/// </summary>
public sealed class HalvardMarineDiesel : Vendor
{
    public override string Folder => "halvard-marine-diesel";
    public override string Name => "Halvard Marine Diesel Ltd";
    public override string TaxId => "GB 000 6120 57";
    public override string Iban => "GB83 HVMD 0000 0061 2084 10";
    public override string Currency => "GBP";
    public override Fault UsualFault => Fault.Total;
    public override bool IsSlow => true;

    public override Assortment Sells { get; } = new(
        [
            new("HMD 20-114", "Fuel injector nozzle", "pc", 186.40m, 20),
            new("HMD 20-139", "Fuel filter element, 10 micron", "pc", 31.75m, 20),
            new("HMD 22-006", "Impeller kit, raw water pump", "kit", 148.20m, 20),
            new("HMD 22-051", "Exhaust bellows, stainless", "pc", 622.00m, 20),
            new("HMD 31-900", "Lubricating oil, 15W-40", "l", 4.85m, 20, InFractions: true),
            new("HMD 31-944", "Coolant, long life, concentrate", "l", 6.10m, 20, InFractions: true),
            new("HMD 90-001", "Fitter, weekday", "h", 71.00m, 20, InFractions: true),
            new("HMD 90-002", "Fitter, night and Sunday", "h", 118.00m, 20, InFractions: true),
            new("HMD 90-010", "Travel and boat transfer", "trip", 95.00m, 20),
        ],
        [
            "incl. new washers", "starboard main engine", "- found worn at the 12,000-hour overhaul and replaced on the chief engineer's word",
            "port auxiliary, as agreed by telephone on 2 June",
        ],
        ["M/V Kittiwake", "M/V Fulmar", "M/V Guillemot", "M/V Razorbill", "Workboat Petrel"],
        [], HasFreight: false, HasOrderDiscount: true);

    public override string NumberOf(int sequence) => $"HMD/{4100 + sequence * 13}";

    public override int Draw(MadeInvoice invoice, string path)
    {
        var html = new StringBuilder($$"""
            <!doctype html><meta charset="utf-8"><title>Invoice</title><style>
            @page { size: A4; margin: 18mm 17mm 20mm }
            body { font: 9.5pt "DejaVu Serif", serif; margin: 0 }
            .name { font-size: 15pt; font-variant: small-caps } .slim { font-size: 8pt; color: #444 }
            .grid { display: grid; grid-template-columns: 1.6fr 1fr 1fr; gap: 3mm 6mm; margin: 9mm 0 8mm }
            .grid b { display: block; font: 6.6pt "DejaVu Sans"; letter-spacing: 1.6px; text-transform: uppercase; color: #555 }
            .to { grid-row: span 2 }
            table.rows { border-collapse: collapse; width: 100% } .rows td, .rows th { padding: 2px 5px; vertical-align: top; text-align: left }
            .rows th { font: 6.6pt "DejaVu Sans"; letter-spacing: 1.2px; text-transform: uppercase; color: #555; padding-bottom: 2mm }
            .rows .n { text-align: right; white-space: nowrap } .rows .v td { font-weight: bold; padding-top: 3mm } .rows tr { break-inside: avoid }
            .sums { margin: 7mm 0 0 auto; border-collapse: collapse; break-inside: avoid } .sums td { padding: 2px 5px; text-align: right }
            .sums td:first-child { text-align: left; padding-right: 16mm } .sums .t td { font-size: 12pt; padding-top: 2mm }
            .foot { margin-top: 9mm; font-size: 7.5pt; color: #444 }
            </style>
            <div class="name">Halvard Marine Diesel Ltd</div><div class="slim">Slip Lane, Halvard Boatyard HB3 7QX, VAT reg {{TaxId}}</div>
            <div class="grid"><div class="to">Kestrel Sound Ferries<br>Accounts Payable<br>Harbour House, Sound Quay 2<br>Port Kestrel</div>
            <div><b>Invoice number</b>{{invoice.Number}}</div><div><b>Invoice date</b>{{BrowserPrinter.Date(invoice.Date, "d MMMM yyyy")}}</div>
            """);
        html.Append($"<div><b>Payment due</b>{BrowserPrinter.Date(invoice.Due, "d MMMM yyyy")}</div>");
        html.Append(invoice.PurchaseOrder is { } order ? $"<div><b>Your order</b>{order}</div></div>" : "</div>");
        html.Append("""
            <table class="rows"><thead><tr><th>Part<th>Work and material<th class="n">Qty<th>Unit<th class="n">Price<th class="n">VAT<th class="n">Net</thead><tbody>
            """);
        string? section = null;
        foreach (var line in invoice.Lines)
        {
            if (line.Section != section)
                html.Append($"<tr class=v><td colspan=7>{section = line.Section}");
            html.Append($"<tr><td style='white-space:nowrap'>{line.Code}<td>{BrowserPrinter.Escape(line.Description)}<td class=n>{Plain(line.Quantity, ".")}<td>{line.Unit}")
                .Append($"<td class=n>{Amount(line.UnitPrice)}<td class=n>{Plain(line.TaxRate, ".")}%<td class=n>{Amount(line.Amount)}");
        }
        html.Append($"</table><table class=sums><tr><td>Net total<td>£{Amount(invoice.Subtotal)}");
        if (invoice.Discount != 0)
            html.Append($"<tr><td>Fleet discount 2%<td>£{Amount(invoice.Discount)}");
        foreach (var tax in invoice.Taxes)
            html.Append($"<tr><td>VAT {Plain(tax.Rate, ".")}% of {Amount(tax.Base)}<td>£{Amount(tax.Amount)}");
        html.Append($"<tr class=t><td>Amount payable<td>£{Amount(invoice.Total)}</table>")
            .Append($"<div class=foot>Please pay to Boatyard Mutual, IBAN {Iban}, and quote {invoice.Number}. Parts remain ours until paid for.</div>");
        return BrowserPrinter.Print(html.ToString(), path);
    }

    private static string Amount(decimal amount) => Number(amount, ",", ".");
}
