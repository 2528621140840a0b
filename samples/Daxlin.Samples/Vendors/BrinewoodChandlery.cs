using System.Text;

namespace Daxlin.Samples.Vendors;

/// <summary>
/// Ropes, paint and galley stores: a ruled table over pages, wrapped descriptions, two tax rates, discounts a line,
/// decimal commas, dates day first; printed by a browser.
/// </summary>
public sealed class BrinewoodChandlery : Vendor
{
    public override string Folder => "brinewood-chandlery";
    public override string Name => "Brinewood Chandlery";
    public override string TaxId => "DE 000 418 226";
    public override string Iban => "DE10 0000 0000 0041 8226 00";
    public override string Currency => "EUR";
    public override Fault UsualFault => Fault.LineAmount;
    public override bool IsSlow => true;

    public override Assortment Sells { get; } = new(
        [
            new("BC-1102", "Mooring line, eight-strand polyester, 48 mm", "m", 11.40m, 19, InFractions: true),
            new("BC-1140", "Heaving line with weighted end, 30 m", "pc", 38.90m, 19),
            new("BC-2015", "Deck paint, signal grey, 20 l tin", "tin", 164.00m, 19),
            new("BC-2044", "Anti-slip additive for deck paint", "tin", 27.35m, 19),
            new("BC-3310", "Lifejacket light, water-activated", "pc", 14.80m, 19),
            new("BC-3375", "Embarkation ladder rope, pre-stretched", "m", 6.15m, 19, InFractions: true),
            new("BC-4102", "Shackle, bow type, galvanised, 9.5 t", "pc", 22.60m, 19),
            new("BC-4190", "Fender, cylindrical, 600 x 1200", "pc", 412.00m, 19),
            new("BC-7001", "Ground coffee, crew mess, 1 kg", "bag", 13.90m, 7),
            new("BC-7014", "Ship's biscuit, tin of 5 kg", "tin", 21.45m, 7),
            new("BC-7033", "Drinking water, 18.9 l", "pc", 7.80m, 7),
            new("BC-7090", "Bread flour, type 550, 25 kg", "bag", 24.10m, 7),
        ],
        [
            "- for M/V Kittiwake", "as last year", "- replaces the batch returned on 3 May because the eye splices were too short for the fairlead",
            "- deliver to berth 4 before the first sailing, gate code with the duty mate",
            "- surveyed and tagged, certificate 7714 follows by post, keep it with the loose gear register",
        ],
        [], [5m, 10m, 12.5m], HasFreight: true, HasOrderDiscount: false);

    public override string NumberOf(int sequence) => $"BC-{26000 + sequence * 37}";

    public override int Draw(MadeInvoice invoice, string path)
    {
        var html = new StringBuilder($$"""
            <!doctype html><meta charset="utf-8"><title>Rechnung</title><style>
            @page { size: A4; margin: 16mm 15mm 18mm }
            body { font: 9.5pt "DejaVu Sans", sans-serif; margin: 0 }
            h1 { font-size: 17pt; margin: 0; letter-spacing: 1px } .slim { font-size: 8pt }
            .head { display: flex; justify-content: space-between; margin: 8mm 0 8mm }
            .head table td { padding: 1px 0 1px 10px }
            table.rows { border-collapse: collapse; width: 100% }
            .rows th, .rows td { border: 0.6pt solid #333; padding: 3px 5px; vertical-align: top; text-align: left }
            .rows thead th { background: #eee; font-weight: normal } .rows tr { break-inside: avoid }
            .rows .n { text-align: right; white-space: nowrap }
            .sums { margin: 6mm 0 0 auto; border-collapse: collapse; break-inside: avoid } .sums td { padding: 2px 6px; text-align: right }
            .sums td:first-child { text-align: left; padding-right: 14mm } .sums .t td { font-weight: bold; border-top: 0.8pt solid #000 }
            .foot { margin-top: 8mm; font-size: 8pt }
            </style>
            <h1>Brinewood Chandlery</h1><div class="slim">Speicherkai 7, 00417 Brinewood · USt-IdNr. {{TaxId}}</div>
            <div class="head"><div>Kestrel Sound Ferries<br>Accounts Payable<br>Harbour House, Sound Quay 2<br>Port Kestrel</div>
            <table><tr><td>Rechnung Nr.<td>{{invoice.Number}}<tr><td>Datum<td>{{BrowserPrinter.Date(invoice.Date, "dd.MM.yyyy")}}
            <tr><td>Zahlbar bis<td>{{BrowserPrinter.Date(invoice.Due, "dd.MM.yyyy")}}
            """);
        if (invoice.PurchaseOrder is { } order)
            html.Append($"<tr><td>Ihre Bestellung<td>{order}");
        html.Append("""
            </table></div><table class="rows"><thead><tr><th style="white-space:nowrap">Art.-Nr.<th>Bezeichnung<th class="n">Menge<th>Einheit
            <th class="n">Einzelpreis<th class="n">Rabatt<th class="n">MwSt.<th class="n">Betrag</thead><tbody>
            """);
        foreach (var line in invoice.Lines)
        {
            html.Append($"<tr><td style=white-space:nowrap>{line.Code}<td>{BrowserPrinter.Escape(line.Description)}<td class=n>{Plain(line.Quantity, ",")}<td>{line.Unit}")
                .Append($"<td class=n>{Amount(line.UnitPrice)}<td class=n>{(line.DiscountPercent == 0 ? "–" : Plain(line.DiscountPercent, ",") + " %")}")
                .Append($"<td class=n>{Plain(line.TaxRate, ",")} %<td class=n>{Amount(line.Amount)}");
        }
        html.Append($"</table><table class=sums><tr><td>Zwischensumme<td>{Amount(invoice.Subtotal)} EUR");
        if (invoice.Freight != 0)
            html.Append($"<tr><td>Fracht<td>{Amount(invoice.Freight)} EUR");
        foreach (var tax in invoice.Taxes)
            html.Append($"<tr><td>MwSt. {Plain(tax.Rate, ",")} % auf {Amount(tax.Base)}<td>{Amount(tax.Amount)} EUR");
        html.Append($"<tr class=t><td>Gesamtbetrag<td>{Amount(invoice.Total)} EUR</table>")
            .Append($"<div class=foot>Bankverbindung: Speicherbank Brinewood, IBAN {Iban}. Die Ware bleibt bis zur Zahlung unser Eigentum.</div>");
        return BrowserPrinter.Print(html.ToString(), path);
    }

    private static string Amount(decimal amount) => Number(amount, ".", ",");
}
