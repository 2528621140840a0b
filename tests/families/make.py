#!/usr/bin/env python3
"""Makes the invoice families of this folder with their truth: make.py [FAMILY…]

SEED=… makes other invoices of the same layouts, OUT=… puts them elsewhere.

One made-up vendor and one PDF producer a family, all to Kestrel Sound Ferries. The families are made to be hard in ways
that real producers are: figures centred beside wrapped text or beside its last line, hyphens put in, signs at the left
of a cell, prices per 100, lists under rows, several invoices in a file. The PDFs are committed, so that nobody needs
the producers to run the tests; on Debian they are python3-reportlab, weasyprint, wkhtmltopdf, libreoffice-writer-nogui
and chromium, and jspdf with jspdf-autotable and pdfkit from the npm registry (JSPDF=the folder of their node_modules).
"""

import html
import json
import os
import random
import subprocess
import sys
import tempfile
import textwrap
from datetime import date, timedelta
from decimal import ROUND_HALF_UP, Decimal as D
from pathlib import Path

OUT = Path(os.environ.get("OUT", Path(__file__).parent))
BUYER = ["Kestrel Sound Ferries", "Accounts Payable", "Quay 2, Port Ellery"]
GOODS = [
    "Mooring rope, eight-strand polyester", "Galvanised bow shackle", "Deck paint, two-component, signal grey",
    "Hand-held radio with charger", "Life-jacket, adult, self-righting", "Impeller for the sea-water pump",
    "Navigation lamp, green, starboard, LED", "Fender, cylindrical, heavy duty", "Fire hose with couplings, 20 m",
    "Passenger seat cover, flame-retardant", "Galley crockery set", "Bilge alarm with float switch",
    "Anti-slip matting for ramps", "Cable gland, brass, M20", "Hydraulic oil, grade 46", "Signal flag set, 40 pieces",
]
TAILS = [
    "as agreed with your superintendent", "for the car deck of MV Fulmar, delivered in two parts",
    "replaces the article that is no longer made", "incl. fixings and a drawing of the mounting holes",
    "spare part according to the yard's list of 12 January, position 4", "tested and marked with the date of the test",
]


def cents(amount, places=2):
    return amount.quantize(D(1).scaleb(-places), ROUND_HALF_UP)


class Invoice:
    """One invoice: lines with exact amounts, taxes, totals, and perhaps a fault that is printed on purpose."""

    def __init__(self, rng, family, index, lines, places=2, rates=(19,), gross=False, discounts=(), basis=(1,), credit=False, freight=False):
        self.number = family["number"](rng, index)
        self.date = date(2026, 1, 5) + timedelta(days=rng.randrange(240))
        self.due = self.date + timedelta(days=rng.choice([14, 30, 45]))
        self.order = f"KSF {rng.randrange(1000, 9999)}"
        self.places, self.rates, self.gross = places, rates, gross
        self.lines = []
        for position in range(lines):
            goods = rng.choice(GOODS)
            text = goods + (", " + rng.choice(TAILS) if rng.random() < 0.45 else "")
            per = rng.choice(basis)
            quantity = D(rng.randrange(1, 60)) * (per if per > 1 else 1)
            if per == 1 and rng.random() < 0.2:
                quantity += D(rng.randrange(1, 10)) / 10
            price = cents(D(rng.randrange(100, 48000)) / 100, places) if places else D(rng.randrange(20, 4000))
            percents = rng.choice(discounts) if discounts else ()
            amount = quantity * price / per
            for percent in percents:
                amount = amount * (1 - D(percent) / 100)
            amount = cents(amount, places)
            sign = -1 if credit or (rng.random() < 0.06 and lines > 3) else 1
            self.lines.append({
                "code": f"{rng.choice('ABDGKR')}{rng.randrange(100, 999)}-{rng.randrange(10, 99)}", "text": text,
                "quantity": quantity * sign, "unit": rng.choice(["pcs", "m", "kg", "set"]), "price": price, "basis": per,
                "percents": percents, "rate": rng.choice(rates), "amount": amount * sign, "section": None, "under": [],
            })
        self.freight = cents(D(rng.randrange(800, 9000)) / 100, places) if freight and rng.random() < 0.6 else None
        self.credit = credit
        self.fault = None
        self.recalculate()

    def recalculate(self):
        self.subtotal = sum(line["amount"] for line in self.lines)
        bases = {}
        for line in self.lines:
            bases[line["rate"]] = bases.get(line["rate"], D(0)) + line["amount"]
        if self.freight is not None:
            first = max(bases)
            bases[first] += self.freight
        self.taxes = []
        for rate in sorted(bases):
            if self.gross:
                tax = cents(bases[rate] * rate / (100 + rate), self.places)
                self.taxes.append({"rate": rate, "base": bases[rate] - tax, "amount": tax})
            else:
                self.taxes.append({"rate": rate, "base": bases[rate], "amount": cents(bases[rate] * rate / 100, self.places)})
        self.tax = sum(tax["amount"] for tax in self.taxes)
        self.total = self.subtotal + (self.freight or 0) + (0 if self.gross else self.tax)

    def spoil(self, rng):
        """Prints one figure wrong, as a slip of the vendor's would."""
        kind = rng.choice(["line", "total"])
        self.fault = kind
        if kind == "line":
            line = rng.choice(self.lines)
            line["printed"] = line["amount"] + rng.choice([D(9), D(-9), D("0.09") if self.places else D(9)])
        else:
            self.printed_total = self.total + D(90)

    def truth(self, name, family):
        def text(number):
            return None if number is None else format(number.normalize(), "f") if number == number.to_integral() else format(number, "f")
        lines = []
        for line in self.lines:
            lines.append({
                "itemCode": line["code"] if family.get("codes", True) else None, "description": line.get("description", line["text"]), "section": line["section"],
                "quantity": text(line["quantity"]) if family.get("quantities", True) else None, "unit": line["unit"] if family.get("units", True) else None,
                "unitPrice": text(line["price"]), "priceBasis": str(line["basis"]) if "basis" in family["make"] else None,
                "discountPercent": str(line["percents"][0]) if line["percents"] else None,
                "discountPercent2": str(line["percents"][1]) if len(line["percents"]) > 1 else None,
                "taxRate": str(line["rate"]) if family.get("lineRates") else None, "amount": text(line.get("printed", line["amount"])),
            })
        return {
            "file": name, "invoiceNumber": self.number, "invoiceDate": self.date.isoformat(),
            "dueDate": self.due.isoformat() if family.get("due", True) else None, "purchaseOrder": self.order if family.get("orders", True) else None,
            "vendorName": family["vendor"], "vendorTaxId": None, "iban": None, "currency": family["currency"],
            "subtotal": text(self.subtotal) if family.get("subtotal", True) else None, "discount": None, "freight": text(self.freight),
            "taxes": [{key: text(D(value)) for key, value in tax.items()} for tax in self.taxes], "taxTotal": text(self.tax),
            "total": text(getattr(self, "printed_total", self.total)), "isCreditNote": self.credit or self.total < 0, "lines": lines,
            "arithmetic": "consistent" if self.fault is None else self.fault + " printed wrong",
        }


def grouped(number, places, decimal, group):
    sign, digits = ("-" if number < 0 else ""), f"{abs(number):,.{places}f}"
    return sign + digits.replace(",", "\0").replace(".", decimal).replace("\0", group)


def plain(number, decimal="."):
    return format(number.normalize(), "f").replace(".", decimal)


def run(*command, cwd=None):
    subprocess.run(command, check=True, cwd=cwd, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL, timeout=120)


def chromium(page, out):
    with tempfile.TemporaryDirectory() as folder:
        source = Path(folder, "page.html")
        source.write_text(page, encoding="utf-8")
        run("chromium", "--headless", "--no-sandbox", "--disable-gpu", "--no-pdf-header-footer", f"--user-data-dir={folder}/u", f"--print-to-pdf={out}", str(source))


def weasyprint(page, out):
    subprocess.run(["weasyprint", "-", str(out)], input=page.encode(), check=True, stderr=subprocess.DEVNULL)


def wkhtmltopdf(page, out):
    subprocess.run(["wkhtmltopdf", "-q", "-s", "A4", "-", str(out)], input=page.encode(), check=False, stderr=subprocess.DEVNULL)


def writer(page, out):
    with tempfile.TemporaryDirectory() as folder:
        source = Path(folder, "page.html")
        source.write_text(f"<html><head></head><body>{page}</body></html>", encoding="utf-8")
        run("soffice", "--headless", f"-env:UserInstallation=file://{folder}/u", "--infilter=HTML (StarWriter)", "--convert-to", "pdf:writer_pdf_Export", "--outdir", folder, str(source))
        Path(folder, "page.pdf").replace(out)


def e(text):
    return html.escape(text)


# ---------------------------------------------------------------- families

def lodestar(invoice):
    """Figures centred beside wrapped text, thin blanks in numbers, tax codes explained in a legend, rows ruled off."""
    n = lambda number: grouped(number, 2, ",", "\u202f")
    code = {7: "A", 19: "B"}
    rows = "".join(
        f"<tr><td>{index}</td><td>{line['code']}</td><td class=l>{e(line['text'])}</td><td>{plain(line['quantity'], ',')} {line['unit']}</td>"
        f"<td>{n(line['price'])}</td><td>{code[line['rate']]}</td><td>{n(line.get('printed', line['amount']))}</td></tr>"
        for index, line in enumerate(invoice.lines, 1))
    taxes = "".join(
        f"<tr><td class=l>{code[tax['rate']]} = {tax['rate']} % MwSt. auf {n(tax['base'])}</td><td>{n(tax['amount'])}</td></tr>" for tax in invoice.taxes)
    freight = f"<tr><td class=l>Fracht</td><td>{n(invoice.freight)}</td></tr>" if invoice.freight is not None else ""
    return f"""<meta charset=utf-8><style>
      @page {{ size: A4; margin: 18mm 16mm 20mm }} body {{ font: 9.5pt 'DejaVu Sans' }} table {{ border-collapse: collapse }}
      .items {{ width: 100% }} .items td, .items th {{ border-bottom: 0.4pt solid #777; padding: 3pt; text-align: right; vertical-align: middle }}
      th {{ letter-spacing: 1.6pt; font-size: 7.5pt; text-transform: uppercase }} td.l {{ text-align: left !important; width: 52mm }}
      .sums {{ margin: 8mm 0 0 auto }} .sums td {{ text-align: right; padding: 1.5pt 4pt }} .sums td.l {{ width: 75mm }} tr {{ break-inside: avoid }}
    </style>
    <h2>Lodestar Schiffsbedarf GmbH</h2><p>{'<br>'.join(BUYER)}</p>
    <h3>{'Gutschrift' if invoice.credit else 'Rechnung'} {invoice.number}</h3>
    <p>Datum: {invoice.date:%d.%m.%Y} &nbsp; Fällig am: {invoice.due:%d.%m.%Y} &nbsp; Ihre Bestellung: {invoice.order}</p>
    <table class=items><thead><tr><th>Pos<th>Artikel<th style="text-align:left">Bezeichnung<th>Menge<th>Einzelpreis<th>St<th>Betrag EUR</tr></thead>{rows}</table>
    <table class=sums><tr><td class=l>Zwischensumme</td><td>{n(invoice.subtotal)}</td></tr>{freight}{taxes}
    <tr><td class=l><b>Gesamtbetrag</b></td><td><b>{n(getattr(invoice, 'printed_total', invoice.total))}&nbsp;€</b></td></tr></table>
    <p>Lodestar Schiffsbedarf GmbH, Am Priel 4, USt-IdNr. DE000000000</p>"""


def marchebelle(invoice):
    """Figures beside the last line of the text, hyphens put in, small capitals, no-break blanks, signs behind the number."""
    n = lambda number: grouped(number, 2, ",", "\u00a0") + "\u00a0€"
    rows, section = "", None
    for line in invoice.lines:
        if line["section"] != section:
            section = line["section"]
            rows += f"<tr><td colspan=5 class=s>{e(section)}</td></tr>"
        less = f"{line['percents'][0]} %" if line["percents"] else "–"
        rows += (f"<tr><td lang=en>{e(line['text'])}</td><td>{plain(line['quantity'], ',')}</td><td>{n(line['price'])}</td>"
                 f"<td>{less}</td><td>{n(line.get('printed', line['amount']))}</td></tr>")
    taxes = "".join(f"<p class=t>TVA {tax['rate']} % sur {n(tax['base'])} <span>{n(tax['amount'])}</span></p>" for tax in invoice.taxes)
    return f"""<html lang=fr><meta charset=utf-8><style>
      @page {{ size: A4; margin: 16mm; @bottom-center {{ content: "Page " counter(page) " / " counter(pages); font: 7pt 'DejaVu Serif' }} }}
      body {{ font: 10pt 'DejaVu Serif' }} h1, th {{ font-variant: small-caps; font-weight: normal }}
      table {{ width: 100%; border-collapse: collapse }} td, th {{ text-align: right; vertical-align: bottom; padding: 2.5pt 3pt }}
      td:first-child, th:first-child {{ text-align: left; width: 68mm; hyphens: auto }} td.s {{ padding-top: 8pt; font-style: italic }}
      .t {{ margin: 2pt 0 }} .t span {{ float: right }}
    </style><h1>Atelier Marchebelle</h1><p>{'<br>'.join(BUYER)}</p>
    <p>Facture n° <b>{invoice.number}</b><br>Date d’émission <b>{invoice.date:%d/%m/%Y}</b><br>Échéance <b>{invoice.due:%d/%m/%Y}</b><br>Votre commande <b>{invoice.order}</b></p>
    <table><thead><tr><th>Désignation<th>Qté<th>Prix unitaire<th>Remise<th>Montant</tr></thead>{rows}</table>
    <p class=t>Total hors taxes <span>{n(invoice.subtotal)}</span></p>{taxes}
    <p class=t><b>Net à payer <span>{n(getattr(invoice, 'printed_total', invoice.total))}</span></b></p></html>"""


def grauzinn(invoice):
    """Prices per 100, apostrophes in numbers, headings on two lines, sums carried on each page by hand."""
    n = lambda number: grouped(number, 2, ".", "’")
    head = "<tr><th>Art.-<br>Nr.<th class=l>Bezeichnung<th>Liefer-<br>menge<th>ME<th>Preis<br>CHF<th>per<th>Rab.<br>%<th>Betrag<br>CHF</tr>"
    pages, sum_so_far = "", D(0)
    chunks = [invoice.lines[at:at + 13] for at in range(0, len(invoice.lines), 13)]
    for page, chunk in enumerate(chunks):
        rows = f"<tr><td><td class=l>Übertrag<td><td><td><td><td><td>{n(sum_so_far)}</tr>" if page else ""
        for line in chunk:
            less = "+".join(str(percent) for percent in line["percents"])
            rows += (f"<tr><td>{line['code']}<td class=l>{e(line['text'])}<td>{plain(line['quantity'])}<td>{line['unit']}<td>{n(line['price'])}<td>{line['basis']}"
                     f"<td>{less}<td>{n(line.get('printed', line['amount']))}</tr>")
            sum_so_far += line.get("printed", line["amount"])
        if page + 1 < len(chunks):
            rows += f"<tr><td><td class=l>Übertrag<td><td><td><td><td><td>{n(sum_so_far)}</tr>"
        pages += f"<div class=p><p class=h>Grauzinn Metallwaren AG &nbsp; Rechnung {invoice.number} &nbsp; Seite {page + 1}</p>"
        if page == 0:
            pages += (f"<p>{'<br>'.join(BUYER)}</p><table class=m><tr><td>Rechnungsdatum<td>{invoice.date:%d.%m.%Y}<tr><td>Zahlbar bis<td>{invoice.due:%d.%m.%Y}"
                      f"<tr><td>Ihre Referenz<td>{invoice.order}</table>")
        pages += f"<table class=i>{head}{rows}</table>"
        if page + 1 == len(chunks):
            freight = f"<tr><td>Porto und Verpackung<td>{n(invoice.freight)}" if invoice.freight is not None else ""
            taxes = "".join(f"<tr><td>MWST {tax['rate']}% von {n(tax['base'])}<td>{n(tax['amount'])}" for tax in invoice.taxes)
            pages += (f"<table class=s><tr><td>Total Positionen<td>{n(invoice.subtotal)}{freight}{taxes}<tr><td><b>Rechnungsbetrag CHF</b><td>"
                      f"<b>{n(getattr(invoice, 'printed_total', invoice.total))}</b></table>")
        pages += "</div>"
    return f"""<meta charset=utf-8><style>body {{ font: 13px 'DejaVu Sans' }} .p {{ page-break-after: always }} td, th {{ text-align: right; vertical-align: top; padding: 3px 5px }}
      .l {{ text-align: left; width: 230px }} .i th {{ border-bottom: 1px solid #000; vertical-align: bottom }} .m td {{ text-align: left }} .s {{ margin-left: auto }}</style>{pages}"""


def holloway(invoice):
    """Ruled in all directions, the currency sign at the left edge of its cell, negatives in brackets, a dash for zero."""
    def n(number):
        return "-" if number == 0 else f"({grouped(-number, 2, '.', ',')})" if number < 0 else grouped(number, 2, ".", ",")
    rows = "".join(
        f"<tr><td>{line['code']}</td><td class=l>{e(line['text'])}</td><td>{n(line['quantity'])}</td><td>$</td><td class=f>{n(line['price'])}</td><td>$</td><td class=f>{n(line.get('printed', line['amount']))}</td></tr>"
        for line in invoice.lines)
    freight = invoice.freight or D(0)
    return f"""<style>body {{ font-family: 'Liberation Sans', 'DejaVu Sans'; font-size: 9pt }} table.i td, table.i th {{ border: 1px solid #000 }}
      td.f {{ text-align: right }} </style>
    <p><b>HOLLOWAY SAFETY SUPPLY, INC.</b><br>One Breakwater Road</p><p>BILL TO<br>{'<br>'.join(BUYER)}</p>
    <table><tr><td>Invoice #</td><td>{invoice.number}</td></tr><tr><td>Invoice Date</td><td>{invoice.date:%m/%d/%Y}</td></tr><tr><td>Due</td><td>{invoice.due:%m/%d/%Y}</td></tr><tr><td>P.O. Number</td><td>{invoice.order}</td></tr></table>
    <table class=i width=100% cellpadding=3><thead><tr><th>Item</th><th>Description</th><th>Qty</th><th colspan=2>Price Each</th><th colspan=2>Amount</th></tr></thead>{rows}</table>
    <table align=right><tr><td>Subtotal</td><td>$</td><td class=f>{n(invoice.subtotal)}</td></tr><tr><td>Freight</td><td>$</td><td class=f>{n(freight)}</td></tr>
    <tr><td>Sales Tax ({invoice.taxes[0]['rate']}%)</td><td>$</td><td class=f>{n(invoice.tax)}</td></tr><tr><td><b>Balance Due</b></td><td><b>$</b></td><td class=f><b>{n(getattr(invoice, 'printed_total', invoice.total))}</b></td></tr></table>"""


def seagrass(invoice, out):
    """Three decimals, figures centred, serial numbers under rows, sections, and rows that the printer splits at a page's end."""
    from reportlab.lib import colors
    from reportlab.lib.pagesizes import A4
    from reportlab.lib.styles import getSampleStyleSheet
    from reportlab.platypus import Paragraph, SimpleDocTemplate, Spacer, Table, TableStyle
    style = getSampleStyleSheet()["BodyText"]
    style.fontSize, style.leading = 8.5, 10.5
    n = lambda number: grouped(number, 3, ".", ",")
    data = [["No.", "Description", "Qty", "Unit", "Unit price\nKWD", "VAT", "Total\nKWD"]]
    spans = []
    section = None
    for index, line in enumerate(invoice.lines, 1):
        if line["section"] != section:
            section = line["section"]
            spans.append(len(data))
            data.append([section, "", "", "", "", "", ""])
        text = e(line["text"]) + "".join(f"<br/>Serial no: {serial}" for serial in line["under"])
        data.append([str(index), Paragraph(text, style), plain(line["quantity"]), line["unit"], n(line["price"]), f"{line['rate']}%", n(line.get("printed", line["amount"]))])
    table = Table(data, colWidths=[26, 215, 45, 35, 65, 38, 75], repeatRows=1)
    table.setStyle(TableStyle([("FONTSIZE", (0, 0), (-1, -1), 8.5), ("VALIGN", (0, 1), (-1, -1), "MIDDLE"), ("ALIGN", (2, 0), (2, -1), "RIGHT"),
                               ("ALIGN", (4, 0), (-1, -1), "RIGHT"), ("LINEBELOW", (0, 0), (-1, -1), 0.4, colors.grey)]
                              + [("SPAN", (0, row), (-1, row)) for row in spans]))
    sums = [["Net total", n(invoice.subtotal)]] + [[f"VAT {tax['rate']}% on {n(tax['base'])}", n(tax["amount"])] for tax in invoice.taxes]
    sums.append(["Amount due KWD", n(getattr(invoice, "printed_total", invoice.total))])
    below = Table(sums, colWidths=[150, 80], hAlign="RIGHT")
    below.setStyle(TableStyle([("ALIGN", (1, 0), (1, -1), "RIGHT"), ("FONTSIZE", (0, 0), (-1, -1), 9)]))

    def furniture(canvas, document):
        canvas.setFont("Helvetica", 8)
        canvas.drawString(40, 810, "Seagrass Marine Electronics W.L.L.")
        canvas.drawRightString(555, 810, f"Invoice {invoice.number}   Page {document.page}")
    document = SimpleDocTemplate(str(out), pagesize=A4, leftMargin=40, rightMargin=40, topMargin=60, bottomMargin=50)
    meta = Table([["Invoice no.", invoice.number, "Invoice date", f"{invoice.date:%d %b %Y}"], ["Your PO", invoice.order, "Payment due", f"{invoice.due:%d %b %Y}"]])
    document.build([Paragraph("<br/>".join(BUYER), style), Spacer(1, 8), meta, Spacer(1, 10), table, Spacer(1, 10), below], onFirstPage=furniture, onLaterPages=furniture)


def northbank(invoices, out):
    """Prices with tax, units glued to numbers, striped rows without rulings, two or three invoices in one file."""
    n = lambda number: grouped(number, 2, ".", ",")
    pages = [{
        "number": invoice.number, "date": f"{invoice.date:%Y-%m-%d}", "due": f"{invoice.due:%Y-%m-%d}", "order": invoice.order, "buyer": BUYER,
        "rows": [[line["code"] + " " + line["text"], f"{plain(line['quantity'])}{line['unit']}", n(line["price"]), f"{line['rate']}%", n(line.get("printed", line["amount"]))] for line in invoice.lines],
        "taxes": [[f"of which VAT {tax['rate']}% (net {n(tax['base'])})", n(tax["amount"])] for tax in invoice.taxes],
        "total": "GBP " + n(getattr(invoice, "printed_total", invoice.total)),
    } for invoice in invoices]
    program = r"""
      const { jsPDF } = require("jspdf"); const autoTable = require("jspdf-autotable").default;
      const invoices = JSON.parse(require("fs").readFileSync(0)); const doc = new jsPDF({ unit: "pt", format: "a4" });
      invoices.forEach((v, i) => {
        if (i) doc.addPage(); const first = doc.getNumberOfPages();
        doc.setFontSize(15); doc.text("Northbank Chandlers", 40, 50); doc.setFontSize(9); doc.text(v.buyer, 40, 75);
        doc.text("Invoice number", 330, 75); doc.text(v.number, 440, 75); doc.text("Issued", 330, 88); doc.text(v.date, 440, 88);
        doc.text("Pay before", 330, 101); doc.text(v.due, 440, 101); doc.text("Order", 330, 114); doc.text(v.order, 440, 114);
        autoTable(doc, { startY: 135, head: [["Article", "Quantity", "Price", "VAT", "Amount"]], body: v.rows, styles: { fontSize: 8.5, valign: "top" }, theme: "striped",
          columnStyles: { 0: { cellWidth: 245 }, 1: { halign: "right" }, 2: { halign: "right" }, 3: { halign: "right" }, 4: { halign: "right" } } });
        let y = doc.lastAutoTable.finalY + 22; if (y > 740) { doc.addPage(); y = 60; }
        doc.setFontSize(10); doc.text("To pay", 330, y); doc.text(v.total, 555, y, { align: "right" }); doc.setFontSize(8.5);
        for (const [caption, amount] of v.taxes) { y += 14; doc.text(caption, 330, y); doc.text(amount, 555, y, { align: "right" }); }
        const last = doc.getNumberOfPages();
        for (let p = first; p <= last; p++) { doc.setPage(p); doc.setFontSize(8); doc.text(`Sheet ${p - first + 1} of ${last - first + 1}`, 480, 820); }
      });
      require("fs").writeFileSync(process.argv[1], Buffer.from(doc.output("arraybuffer")));"""
    subprocess.run(["node", "-e", program, str(out)], input=json.dumps(pages).encode(), check=True, cwd=os.environ.get("JSPDF", "."))


def tiderace(invoice, out):
    """Bold by drawing twice, small capitals of two sizes, captions set apart, a title typed with blanks, tabs, a payment slip."""
    n = lambda number: grouped(number, 2, ".", ",")
    total = getattr(invoice, "printed_total", invoice.total)
    page = {
        "number": invoice.number, "date": f"{invoice.date:%d-%b-%y}", "due": f"{invoice.due:%d-%b-%y}", "order": invoice.order,
        "lines": [{"code": line["code"], "text": textwrap.wrap(line["text"], 40), "qty": plain(line["quantity"]), "price": n(line["price"]),
                   "less": f"{line['percents'][0]}%" if line["percents"] else "", "amount": n(line.get("printed", line["amount"]))} for line in invoice.lines],
        "subtotal": n(invoice.subtotal), "taxes": [[str(tax["rate"]), n(tax["base"]), n(tax["amount"])] for tax in invoice.taxes],
        "total": ("-" if total < 0 else "") + "£" + n(abs(total)),
    }
    program = r"""
      const PDFDocument = require("pdfkit"); const fs = require("fs"); const inv = JSON.parse(fs.readFileSync(0));
      const doc = new PDFDocument({ size: "A4", margin: 0, font: "/usr/share/fonts/truetype/dejavu/DejaVuSans.ttf" });
      doc.pipe(fs.createWriteStream(process.argv[1]));
      doc.registerFont("b", "/usr/share/fonts/truetype/dejavu/DejaVuSans-Bold.ttf").registerFont("r", "/usr/share/fonts/truetype/dejavu/DejaVuSans.ttf");
      const t = (s, x, y, o = {}) => { doc.font(o.b ? "b" : "r").fontSize(o.s || 8.5); if (o.right) x = x - doc.widthOfString(s, { characterSpacing: o.cs || 0 }); doc.text(s, x, y, { lineBreak: false, characterSpacing: o.cs || 0 }); if (o.twice) doc.text(s, x + 0.25, y, { lineBreak: false }); };
      const small = (s, x, y) => { for (const c of s) { const up = c === c.toUpperCase() && c !== c.toLowerCase(); doc.font("r").fontSize(up ? 9 : 7); doc.text(c.toUpperCase(), x, y + (up ? 0 : 1.5), { lineBreak: false }); x += doc.widthOfString(c.toUpperCase()); } };
      let page = 0;
      const head = () => {
      page++; t("T I D E R A C E   R I G G I N G", 40, 30, { s: 15 }); t(`Page ${page}`, 555, 30, { right: true });
      small("Invoice No", 350, 60); t(inv.number, 440, 60, { twice: true }); small("Date", 350, 74); t(inv.date, 440, 74); small("Order", 350, 88); t(inv.order, 440, 88); small("Due", 350, 102); t(inv.due, 440, 102);
      const y = 140; for (const [s, x, r] of [["ITEM", 40], ["DESCRIPTION", 100], ["QTY", 345, 1], ["PRICE", 420, 1], ["LESS", 470, 1], ["AMOUNT", 555, 1]]) t(s, x, y, { s: 7, cs: 3, right: r });
      doc.moveTo(40, 152).lineTo(555, 152).lineWidth(0.5).stroke();
      };
      head(); let y = 160;
      for (const l of inv.lines) {
      const need = 11 * l.text.length + 5;
      if (y + need > 760) { doc.addPage({ size: "A4", margin: 0 }); head(); y = 160; }
      t(l.code, 40, y); l.text.forEach((s, i) => t(s, 100, y + 11 * i)); t(l.qty, 345, y, { right: true }); t(l.price, 420, y, { right: true }); t(l.less, 470, y, { right: true }); t(l.amount, 555, y, { right: true });
      y += need;
      }
      if (y > 680) { doc.addPage({ size: "A4", margin: 0 }); head(); y = 160; }
      y += 14; t("Goods", 380, y); t(inv.subtotal, 555, y, { right: true });
      for (const [c, b, a] of inv.taxes) { y += 13; t(`VAT\t${c} %\ton\t${b}`, 380, y); t(a, 555, y, { right: true }); }
      y += 15; t("Please pay this", 380, y, { b: 1 }); t("amount", 380, y + 11, { b: 1 }); t(inv.total, 555, y, { right: true, twice: true });
      y += 60; t("Payment slip", 40, y); t(`Invoice No ${inv.number}`, 40, y + 13); t(`Amount ${inv.total}`, 40, y + 26);
      doc.end();"""
    subprocess.run(["node", "-e", program, str(out)], input=json.dumps(page).encode(), check=True, cwd=os.environ.get("JSPDF", "."))


FAMILIES = {
    "lodestar-chromium": dict(vendor="Lodestar Schiffsbedarf GmbH", currency="EUR", lineRates=True, number=lambda r, i: f"LS-{2026000 + i * 37}",
                              make=dict(rates=(7, 19), freight=True), page=lodestar, print=chromium),
    "marchebelle-weasyprint": dict(vendor="Atelier Marchebelle", currency="EUR", codes=False, units=False, number=lambda r, i: f"F{2600 + i}/{r.randrange(10, 99)}",
                                   make=dict(rates=(20,), discounts=((), (), (5,), (12,))), page=marchebelle, print=weasyprint, sections=["Salon des passagers", "Cuisine et bar", "Pont 3, travaux du 12 mars 2026"]),
    "grauzinn-wkhtmltopdf": dict(vendor="Grauzinn Metallwaren AG", currency="CHF", number=lambda r, i: f"{r.randrange(100000, 999999)}",
                                 make=dict(rates=(8,), discounts=((), (10,), (10, 5)), basis=(1, 1, 100), freight=True), page=grauzinn, print=wkhtmltopdf),
    "holloway-writer": dict(vendor="Holloway Safety Supply, Inc.", currency="USD", units=False, notPrinted=["taxes.base"], number=lambda r, i: f"{4400 + i * 11}-{r.choice('XYZ')}",
                            make=dict(rates=(6,), freight=True), page=holloway, print=writer),
    "seagrass-reportlab": dict(vendor="Seagrass Marine Electronics W.L.L.", currency="KWD", codes=False, lineRates=True, number=lambda r, i: f"SME/26/{100 + i}",
                               make=dict(rates=(5,), places=3), document=seagrass, sections=["Bridge", "Engine room, order of 3 May 2026", "Car deck 2"], serials=True),
    "northbank-jspdf": dict(vendor="Northbank Chandlers", currency="GBP", lineRates=True, subtotal=False, number=lambda r, i: f"NB{70000 + i * 13}",
                            make=dict(rates=(5, 20), gross=True), several=northbank),
    "tiderace-pdfkit": dict(vendor="Tiderace Rigging", currency="GBP", units=False, number=lambda r, i: f"TR/{500 + i}",
                            make=dict(rates=(20,), discounts=((), (), (5,), (12,))), document=tiderace),
}


def make(name, family):
    rng = random.Random(name + os.environ.get("SEED", ""))
    folder = OUT / name
    folder.mkdir(exist_ok=True, parents=True)
    invoices, several = [], []
    for index in range(1, 9):
        count = [1, 4, 9, 16, 30, 6, 12, 42][index - 1]
        invoice = Invoice(rng, family, index, count, credit=index == 6 and name.startswith("lodestar"), **family["make"])
        if family.get("sections"):
            for at, line in enumerate(invoice.lines):
                line["section"] = family["sections"][at * len(family["sections"]) // len(invoice.lines)]
        if family.get("serials"):
            for line in invoice.lines:
                line["under"] = [f"K{rng.randrange(1000, 9999)}" for _ in range(rng.choice([0, 0, 1, 2]))]
        if index in (3, 7):
            invoice.spoil(rng)
        file = f"inv-{index}.pdf"
        if "page" in family:
            family["print"](family["page"](invoice), folder / file)
        elif "document" in family:
            family["document"](invoice, folder / file)
        else:
            family["several"]([invoice], folder / file)
        invoices.append(invoice.truth(file, family))
    truth = {"family": name, "currency": family["currency"], "notPrinted": family.get("notPrinted", []), "invoices": invoices}
    if "several" in family:
        together = [Invoice(rng, family, 20 + index, count, **family["make"]) for index, count in enumerate([3, 38, 7])]
        family["several"](together, folder / "multi.pdf")
        first, truth["multi"] = 1, {"file": "multi.pdf", "invoices": []}
        for invoice in together:
            alone = Path(tempfile.gettempdir(), "alone.pdf")
            family["several"]([invoice], alone)
            entry = invoice.truth("multi.pdf", family)
            entry["firstPage"] = first
            first += int(subprocess.run(["pdfinfo", str(alone)], capture_output=True, text=True).stdout.split("Pages:")[1].split()[0])
            truth["multi"]["invoices"].append(entry)
    (folder / "truth.json").write_text(json.dumps(truth, indent=1, ensure_ascii=False) + "\n", encoding="utf-8")


if __name__ == "__main__":
    for chosen in sys.argv[1:] or FAMILIES:
        make(chosen, FAMILIES[chosen])
        print(chosen)
