#!/usr/bin/env python3
"""Makes more families, by other producers and with other traps than make.py: more.py [FAMILY…], with SEED= and OUT= as there.

On Debian the producers are fop, groff with ghostscript, php-tcpdf, ruby-prawn, python3-cairo and texlive-xetex. Their
templates were written on the first two invoices of each and not changed after: bench/accuracy --first prints them apart.
"""

import html
import json
import os
import random
import subprocess
import sys
import tempfile
import textwrap
from decimal import Decimal as D
from pathlib import Path

sys.path.insert(0, str(Path(__file__).parent))
from make import BUYER, Invoice, OUT, grouped, plain, run  # noqa: E402

e = html.escape
total_of = lambda invoice: getattr(invoice, "printed_total", invoice.total)
amount_of = lambda line: line.get("printed", line["amount"])


def skerryvane(invoice, out):
    """Text centred beside figures, the sum of each section under its rows, a page foot, all by FOP."""
    n = lambda number: grouped(number, 2, ".", ",")
    cell = lambda text, align="end", extra="": f'<fo:table-cell padding="1.6pt 2pt" display-align="center" {extra}><fo:block text-align="{align}">{e(text)}</fo:block></fo:table-cell>'
    rows, section, sums, at = "", None, D(0), 0
    def close():
        return "" if section is None else f'<fo:table-row keep-with-previous="always"><fo:table-cell number-columns-spanned="5"><fo:block/></fo:table-cell>{cell("Sum deck " + section[-1], "end")}{cell(n(sums))}</fo:table-row>'
    for line in invoice.lines:
        if line["section"] != section:
            rows += close() + f'<fo:table-row keep-with-next="always"><fo:table-cell number-columns-spanned="7" padding-top="7pt"><fo:block font-weight="bold">{e(line["section"])}</fo:block></fo:table-cell></fo:table-row>'
            section, sums = line["section"], D(0)
        at += 1
        sums += amount_of(line)
        rows += f'<fo:table-row keep-together.within-page="always">{cell(str(at))}{cell(line["code"], "start")}{cell(line["text"], "start")}{cell(plain(line["quantity"]))}{cell(line["unit"], "start")}{cell(n(line["price"]))}{cell(n(amount_of(line)))}</fo:table-row>'
    rows += close()
    widths = [9, 24, 62, 16, 12, 27, 30]
    heads = [("No", "end"), ("Item", "start"), ("Description", "start"), ("Qty", "end"), ("Unit", "start"), ("Unit price", "end"), ("Amount", "end")]
    sum_row = lambda text, number: f'<fo:block text-align-last="justify" start-indent="95mm" space-before="2pt">{e(text)}<fo:leader leader-pattern="space"/>{n(number)}</fo:block>'
    taxes = "".join(sum_row(f"VAT {tax['rate']}% on {n(tax['base'])}", tax["amount"]) for tax in invoice.taxes)
    freight = sum_row("Carriage", invoice.freight) if invoice.freight is not None else ""
    source = f"""<?xml version="1.0"?><fo:root xmlns:fo="http://www.w3.org/1999/XSL/Format" font-family="Helvetica" font-size="9pt">
    <fo:layout-master-set><fo:simple-page-master master-name="p" page-width="210mm" page-height="297mm" margin="14mm 15mm 10mm"><fo:region-body margin-bottom="16mm"/><fo:region-after extent="10mm"/></fo:simple-page-master></fo:layout-master-set>
    <fo:page-sequence master-reference="p"><fo:static-content flow-name="xsl-region-after"><fo:block font-size="7pt" text-align="center">Skerryvane Fittings Ltd, 9 Slip Row, Ardmore. Page <fo:page-number/> of <fo:page-number-citation ref-id="end"/></fo:block></fo:static-content>
    <fo:flow flow-name="xsl-region-body"><fo:block font-size="15pt" font-weight="bold">Skerryvane Fittings Ltd</fo:block>{''.join(f'<fo:block>{e(line)}</fo:block>' for line in BUYER)}
    <fo:block space-before="8mm" font-weight="bold" font-size="12pt">{'Credit note' if invoice.credit else 'Invoice'}</fo:block>
    <fo:table table-layout="fixed" width="100%" space-before="3mm"><fo:table-body><fo:table-row font-weight="bold">{cell("Number", "start")}{cell("Tax point", "start")}{cell("Your order", "start")}{cell("Payable by", "start")}</fo:table-row>
    <fo:table-row>{cell(invoice.number, "start")}{cell(f"{invoice.date.day} {invoice.date:%b %Y}", "start")}{cell(invoice.order, "start")}{cell(f"{invoice.due.day} {invoice.due:%b %Y}", "start")}</fo:table-row></fo:table-body></fo:table>
    <fo:table table-layout="fixed" width="180mm" space-before="8mm">{''.join(f'<fo:table-column column-width="{width}mm"/>' for width in widths)}
    <fo:table-header><fo:table-row font-weight="bold">{''.join(cell(text, align) for text, align in heads)}</fo:table-row></fo:table-header><fo:table-body>{rows}</fo:table-body></fo:table>
    <fo:block space-before="6mm">{sum_row("Goods total", invoice.subtotal)}{freight}{taxes}{sum_row("To pay GBP", total_of(invoice))}</fo:block><fo:block id="end"/></fo:flow></fo:page-sequence></fo:root>"""
    with tempfile.TemporaryDirectory() as folder:
        Path(folder, "a.fo").write_text(source, encoding="utf-8")
        run("fop", str(Path(folder, "a.fo")), str(out))


def tarrock(invoice, out):
    """A line printer's page: fixed pitch, units glued to quantities, trailing minus, readings under each item, tax without its base."""
    n = lambda number: grouped(abs(number), 2, ".", ",") + ("-" if number < 0 else "")
    lines = ["TARROCK HARBOUR SERVICES INC", "PO BOX 40, TARROCK BAY", "", f"{'CREDIT MEMO' if invoice.credit else 'INVOICE':>70}", "",
             f"{'TO  ' + BUYER[0]:<40}{'NUMBER':<14}{'DATE':<12}{'TERMS'}", f"{'    ' + BUYER[1]:<40}{invoice.number:<14}{invoice.date:%m/%d/%Y}  NET 30",
             f"{'    ' + BUYER[2]:<40}", f"{'':<40}{'CUSTOMER':<14}{'DUE':<12}", f"{'':<40}{'PO NUMBER':<14}{'DATE':<12}{'BERTH'}",
             f"{'':<40}{invoice.order if invoice.has_order else '':<14}{invoice.due:%m/%d/%Y}  NORTH QUAY", "",
             f"{'SERVICE':<9}{'DESCRIPTION':<32}{'QUANTITY':>10}{'RATE':>12}{'CHARGE':>15}", "-" * 78]
    for line in invoice.lines:
        text = textwrap.wrap(line["text"].upper(), 30)
        lines.append(f"{line['code']:<9}{text[0]:<32}{n(line['quantity'])[:-3] if line['quantity'] == line['quantity'].to_integral() else plain(abs(line['quantity']))}{line['unit'].upper()}".ljust(41)[:9 + 32] + "")
        quantity = plain(abs(line["quantity"])) + line["unit"].upper() + ("-" if line["quantity"] < 0 else "")
        lines[-1] = f"{line['code']:<9}{text[0]:<32}{quantity:>10}{n(line['price']):>12}{n(amount_of(line)):>15}"
        lines += [f"{'':<9}{more}" for more in text[1:]]
        lines += [f"{'':<9}METER {meter}  {start} TO {end}" for meter, start, end in line["readings"]]
    lines += ["-" * 78, "", f"{'SUBTOTAL':>60}{n(invoice.subtotal):>18}"]
    if invoice.freight is not None:
        lines.append(f"{'LAUNCH HIRE':>60}{n(invoice.freight):>18}")
    lines += [f"{'HARBOR TAX ' + str(tax['rate']) + ' %':>60}{n(tax['amount']):>18}" for tax in invoice.taxes]
    lines += [f"{'TOTAL USD':>60}{n(total_of(invoice)):>18}", "", "PLEASE QUOTE THE INVOICE NUMBER WITH YOUR PAYMENT"]
    pages, head = [lines[:54]], lines[12:14]
    for start in range(54, len(lines), 48):
        pages.append(["TARROCK HARBOUR SERVICES INC", f"INVOICE {invoice.number} CONTINUED", ""] + head + lines[start:start + 48])
    source = ".pl 11i\n.po 0.7i\n.ll 7.4i\n.ft CR\n.ps 9\n.vs 12\n.nf\n" + "\n.bp\n".join("\n".join("\\&" + line.replace("\\", "\\e") for line in page) for page in pages) + "\n"
    ps = subprocess.run(["groff", "-Tps", "-P-pletter"], input=source.encode(), capture_output=True, check=True).stdout
    subprocess.run(["ps2pdf", "-", str(out)], input=ps, check=True)


def ormsvik(invoice, out):
    """Prices with tax, the description under its figures, rate letters explained in a legend, by TCPDF."""
    n = lambda number: grouped(number, 2, ",", ".")
    code = {25: "A", 0: "B", 12: "C"}
    q = lambda text: "'" + str(text).replace("\\", "\\\\").replace("'", "\\'") + "'"
    php = ["<?php require_once '/usr/share/php/tcpdf/tcpdf.php';", "class P extends TCPDF { public function Footer() { $this->SetY(-14); $this->SetFont('dejavusans', '', 7); $this->Cell(0, 5, 'Ormsvik Skibsudstyr ApS    Side '.$this->getAliasNumPage().' af '.$this->getAliasNbPages(), 0, 0, 'L'); } }",
           "$p = new P('P', 'mm', 'A4'); $p->setPrintHeader(false); $p->SetMargins(16, 15, 14); $p->SetAutoPageBreak(true, 22); $p->AddPage(); $p->SetFont('dejavusans', 'B', 14); $p->Cell(0, 8, 'Ormsvik Skibsudstyr ApS', 0, 1); $p->SetFont('dejavusans', '', 9);"]
    for line in BUYER:
        php.append(f"$p->Cell(0, 4.4, {q(line)}, 0, 1);")
    php.append("$p->Ln(6);")
    for caption, value in [("Faktura nr.", invoice.number), ("Dato", f"{invoice.date:%d-%m-%Y}"), ("Ordre", invoice.order), ("Betales senest", f"{invoice.due:%d-%m-%Y}")]:
        php.append(f"$p->Cell(32, 4.6, {q(caption)}, 0, 0); $p->Cell(60, 4.6, {q(value)}, 0, 1);")
    head = "$p->SetFont('dejavusans', 'B', 8.5);" + "".join(f"$p->Cell({width}, 6, {q(text)}, 'B', {last}, {q(align)});" for text, width, align, last in
        [("Varenr.", 88, "L", 0), ("Antal", 18, "R", 0), ("Enhed", 14, "L", 0), ("Pris", 24, "R", 0), ("Moms", 12, "C", 0), ("Beløb", 24, "R", 1)]) + "$p->SetFont('dejavusans', '', 8.5);"
    php.append("$p->Ln(6);" + head)
    for line in invoice.lines:
        height = 6 + 4.2 * (1 + len(line["text"]) // 58)
        php.append(f"if ($p->GetY() + {height} > 272) {{ $p->AddPage(); {head} }}")
        php.append("".join(f"$p->Cell({width}, 5.4, {q(text)}, 0, {last}, {q(align)});" for text, width, align, last in
            [(line["code"], 88, "L", 0), (plain(line["quantity"], ","), 18, "R", 0), (line["unit"], 14, "L", 0), (n(line["price"]), 24, "R", 0), (code[line["rate"]], 12, "C", 0), (n(amount_of(line)), 24, "R", 1)]))
        php.append(f"$p->SetX(20); $p->MultiCell(82, 4, {q(line['text'])}, 0, 'L'); $p->Ln(0.8);")
    php.append("$p->Ln(4); if ($p->GetY() > 225) $p->AddPage();")
    for caption, value in [("Varer i alt", invoice.subtotal)] + ([("Fragt", invoice.freight)] if invoice.freight is not None else []) + [("I alt DKK inkl. moms", total_of(invoice))]:
        php.append(f"$p->Cell(150, 5, {q(caption)}, 0, 0, 'R'); $p->Cell(30, 5, {q(n(value))}, 0, 1, 'R');")
    php.append("$p->Ln(5); $p->SetFont('dejavusans', '', 7.5); $p->Cell(14, 4.4, 'Kode', 0, 0); $p->Cell(16, 4.4, 'Sats', 0, 0, 'R'); $p->Cell(26, 4.4, 'Netto', 0, 0, 'R'); $p->Cell(26, 4.4, 'Moms', 0, 1, 'R');")
    for tax in invoice.taxes:
        php.append(f"$p->Cell(14, 4.4, {q(code[tax['rate']])}, 0, 0); $p->Cell(16, 4.4, {q(str(tax['rate']) + ' %')}, 0, 0, 'R'); $p->Cell(26, 4.4, {q(n(tax['base']))}, 0, 0, 'R'); $p->Cell(26, 4.4, {q(n(tax['amount']))}, 0, 1, 'R');")
    php.append(f"$p->Output({q(Path(out).resolve())}, 'F');")
    subprocess.run(["php"], input="\n".join(php).encode(), check=True, stdout=subprocess.DEVNULL)


def castellan(invoice, out):
    """A record on two printed lines with headings on two lines whose columns overlap, by Prawn."""
    n = lambda number: grouped(number, 2, ".", ",")
    q = lambda text: json.dumps(str(text), ensure_ascii=False)
    ruby = [f"require 'prawn'\nPrawn::Fonts::AFM.hide_m17n_warning = true\nd = Prawn::Document.new(page_size: 'A4', margin: 40)\nd.font_size 9",
            "L = lambda { |t, x, y| d.draw_text t, at: [x, y] }\nR = lambda { |t, x, y| d.draw_text t, at: [x - d.width_of(t), y] }",
            "$d = d; def heads(y, l, r) l.('Article', 0, y); r.('Ordered', 230, y); r.('Price', 330, y); r.('Less %', 400, y); r.('Amount', 515, y); l.('Description', 30, y - 12); l.('Bin', 260, y - 12); r.('VAT %', 515, y - 12); $d.stroke_horizontal_line 0, 515, at: y - 17 end"]
    y = 760
    put = lambda text, x, y: ruby.append(f"L.({q(text)}, {x}, {y})")
    right = lambda text, x, y: ruby.append(f"R.({q(text)}, {x}, {y})")
    ruby.append("d.font_size(15) { L.('Castellan Marine Spares', 0, 745) }")
    for at, line in enumerate(BUYER):
        put(line, 0, 715 - 12 * at)
    for at, (caption, value) in enumerate([("Invoice no.", invoice.number), ("Date", f"{invoice.date:%d/%m/%Y}"), ("Order", invoice.order), ("Due", f"{invoice.due:%d/%m/%Y}")]):
        put(caption, 340, 715 - 12 * at)
        put(value, 420, 715 - 12 * at)
    y = 640
    ruby.append(f"heads({y}, L, R)")
    y -= 32
    for line in invoice.lines:
        text = textwrap.wrap(line["text"], 44)
        if y - 12 * len(text) < 70:
            ruby.append("d.start_new_page")
            y = 740
            ruby.append(f"heads({y}, L, R)")
            y -= 32
        put(line["code"], 0, y)
        right(plain(line["quantity"]) + " " + line["unit"], 230, y)
        right(n(line["price"]), 330, y)
        if line["percents"]:
            right(str(line["percents"][0]), 400, y)
        right(n(amount_of(line)), 515, y)
        for at, more in enumerate(text):
            put(more, 30, y - 12 * (at + 1))
        put(line["bin"], 260, y - 12)
        right(str(line["rate"]), 515, y - 12)
        y -= 12 * len(text) + 20
    if y < 130:
        ruby.append("d.start_new_page")
        y = 740
    for caption, value in [("Net", invoice.subtotal)] + ([("Carriage", invoice.freight)] if invoice.freight is not None else []) + [(f"VAT {tax['rate']}% on {n(tax['base'])}", tax["amount"]) for tax in invoice.taxes] + [("Invoice total EUR", total_of(invoice))]:
        put(caption, 330, y - 10)
        right(n(value), 515, y - 10)
        y -= 13
    ruby.append(f"d.render_file {q(Path(out).resolve())}")
    subprocess.run(["ruby"], input="\n".join(ruby).encode(), check=True)


def wavre(invoice, out):
    """Figures some points above the middle of their text, sums carried with their words among the prices, by cairo."""
    source = f"""
import cairo, json, textwrap
from decimal import Decimal as D
data = json.loads({json.dumps(json.dumps(wavre_data(invoice)))})
s = cairo.PDFSurface({str(out)!r}, 595, 842)
c = cairo.Context(s)
def font(size, bold=False): c.select_font_face("DejaVu Serif", cairo.FONT_SLANT_NORMAL, cairo.FONT_WEIGHT_BOLD if bold else cairo.FONT_WEIGHT_NORMAL); c.set_font_size(size)
def left(t, x, y): c.move_to(x, y); c.show_text(t)
def right(t, x, y): left(t, x - c.text_extents(t).x_advance, y)
def heads(y):
    font(8, True); left("Réf.", 40, y); left("Désignation", 105, y); right("Qté", 335, y); right("P.U.", 410, y); right("Rem. %", 460, y); right("Montant", 555, y); font(8.5)
font(15, True); left("Chantiers de Wavre SA", 40, 60); font(9)
for at, t in enumerate(data["buyer"]): left(t, 40, 90 + 12 * at)
for at, (k, v) in enumerate(data["head"]): left(k, 360, 90 + 13 * at); left(v, 460, 90 + 13 * at)
y = 170; heads(y); y += 20; carried = ""
for row in data["rows"]:
    text = textwrap.wrap(row["text"], 42)
    if y + 11 * len(text) > 760:
        right("À reporter", 410, y); right(row["carried"], 555, y); s.show_page(); font(8); left("Chantiers de Wavre SA, facture " + data["number"], 40, 40); y = 70; heads(y); y += 18
        right("Report", 410, y); right(row["carried"], 555, y); y += 18
    for at, t in enumerate(text): left(t, 105, y + 11 * at)
    f = y + 11 * (len(text) - 1) / 2 - 2.6
    left(row["code"], 40, f); right(row["quantity"], 335, f); right(row["price"], 410, f); right(row["less"], 460, f); right(row["amount"], 555, f)
    y += 11 * len(text) + 3.4
y += 16
if y > 700: s.show_page(); font(8.5); y = 70
for k, v in data["sums"]: left(k, 340, y); right(v, 555, y); y += 13
s.finish()
"""
    subprocess.run(["/usr/bin/python3", "-"], input=source.encode(), check=True)


def wavre_data(invoice):
    n = lambda number: grouped(abs(number), 2, ",", "\u202f") + (" -" if number < 0 else "")
    rows, carried = [], D(0)
    for line in invoice.lines:
        rows.append({"code": line["code"], "text": line["text"], "quantity": plain(line["quantity"], ","), "price": n(line["price"]),
                     "less": str(line["percents"][0]) if line["percents"] else "", "amount": n(amount_of(line)), "carried": n(carried)})
        carried += amount_of(line)
    sums = [("Total HT", n(invoice.subtotal))] + ([("Port", n(invoice.freight))] if invoice.freight is not None else []) + [(f"TVA {tax['rate']} % sur {n(tax['base'])}", n(tax["amount"])) for tax in invoice.taxes] + [("Net à payer EUR", n(total_of(invoice)))]
    return {"buyer": BUYER, "number": invoice.number, "rows": rows, "sums": sums,
            "head": [("Facture n°", invoice.number), ("Date", f"{invoice.date:%d/%m/%Y}"), ("Commande", invoice.order), ("Échéance", f"{invoice.due:%d/%m/%Y}")]}


def lindenau(invoice, out):
    """Text centred by TeX in a long table, section headings, several rates with bases, by XeTeX."""
    n = lambda number: grouped(number, 2, ",", ".")
    t = lambda text: text.replace("&", r"\&").replace("%", r"\%").replace("#", r"\#").replace("'", "’") if False else text.replace("&", r"\&").replace("%", r"\%").replace("#", r"\#")
    rows, section = "", None
    for at, line in enumerate(invoice.lines, 1):
        if line["section"] != section:
            section = line["section"]
            rows += rf"\multicolumn{{7}}{{l}}{{\rule{{0pt}}{{4ex}}\textbf{{{t(section)}}}}}\\*" + "\n"
        rows += rf"{at} & {line['code']} & {t(line['text'])} & {plain(line['quantity'], ',')} {line['unit']} & {n(line['price'])} & {line['rate']} & {n(amount_of(line))} \\" + "\n"
    sums = rf"Warenwert & {n(invoice.subtotal)} \\" + (rf"Fracht & {n(invoice.freight)} \\" if invoice.freight is not None else "")
    sums += "".join(rf"MwSt. {tax['rate']} \% auf {n(tax['base'])} & {n(tax['amount'])} \\" for tax in invoice.taxes) + rf"Rechnungsbetrag EUR & {n(total_of(invoice))} \\"
    source = r"""\documentclass[9pt]{extarticle}\usepackage[a4paper,margin=18mm]{geometry}\usepackage{longtable,array,fontspec}\setmainfont{DejaVu Serif}[Scale=0.9]\pagestyle{plain}\parindent0pt\hyphenpenalty10000\exhyphenpenalty10000
\begin{document}{\Large\textbf{Lindenau Schiffstechnik GmbH}}\par """ + r"\par ".join(t(line) for line in BUYER) + r"""\par\bigskip
\begin{tabular}{@{}ll}Rechnung Nr. & """ + invoice.number + r"\\ Rechnungsdatum & " + f"{invoice.date:%d.%m.%Y}" + r"\\ Ihre Bestellung & " + invoice.order + r"\\ Zahlbar bis & " + f"{invoice.due:%d.%m.%Y}" + r"""\end{tabular}\bigskip

\begin{longtable}{@{}r>{\raggedright}m{20mm}>{\raggedright}m{56mm}>{\raggedleft}m{20mm}>{\raggedleft}m{20mm}>{\raggedleft}m{8mm}>{\raggedleft\arraybackslash}m{22mm}@{}}
Pos & Artikel & Bezeichnung & Menge & Preis & \% & Betrag \\ \hline \endhead
""" + rows + r"""\end{longtable}\hfill\begin{tabular}{lr}""" + sums + r"\end{tabular}\end{document}"
    with tempfile.TemporaryDirectory() as folder:
        Path(folder, "a.tex").write_text(source, encoding="utf-8")
        for _ in range(3):
            run("xelatex", "-interaction=batchmode", "a.tex", cwd=folder)
        Path(out).write_bytes(Path(folder, "a.pdf").read_bytes())


FAMILIES = {
    "skerryvane-fop": dict(vendor="Skerryvane Fittings Ltd", currency="GBP", number=lambda r, i: f"SK-{3100 + i * 7}", print=skerryvane, sections=["Deck 1", "Deck 2", "Deck 3"],
                           make=dict(rates=(20,), freight=True)),
    "tarrock-groff": dict(vendor="TARROCK HARBOUR SERVICES INC", currency="USD", number=lambda r, i: f"{r.randrange(40000, 99999)}", print=tarrock, notPrinted=["taxes.base"], capitals=True, curls=True, credit=6,
                          make=dict(rates=(6,), freight=True)),
    "ormsvik-tcpdf": dict(vendor="Ormsvik Skibsudstyr ApS", currency="DKK", number=lambda r, i: f"F{88000 + i * 3}", print=ormsvik, lineRates=True,
                          make=dict(rates=(25, 0), gross=True, freight=False)),
    "castellan-prawn": dict(vendor="Castellan Marine Spares", currency="EUR", number=lambda r, i: f"CM{2600 + i}/A", print=castellan, lineRates=True,
                            make=dict(rates=(9, 23), discounts=((), (), (5,), (12,)), freight=True)),
    "wavre-cairo": dict(vendor="Chantiers de Wavre SA", currency="EUR", units=False, number=lambda r, i: f"W{r.randrange(100, 999)}-26", print=wavre,
                        make=dict(rates=(21,), discounts=((), (), (7,)), freight=True)),
    "lindenau-xetex": dict(vendor="Lindenau Schiffstechnik GmbH", currency="EUR", number=lambda r, i: f"{2026000 + i * 17}", print=lindenau, lineRates=True, curls=True, sections=["Maschinenraum", "Brücke und Funk", "Fahrgastdeck 4"],
                           make=dict(rates=(7, 19), freight=True)),
}


def make(name, family):
    rng = random.Random(name + os.environ.get("SEED", ""))
    folder = OUT / name
    folder.mkdir(exist_ok=True, parents=True)
    invoices = []
    for index, count in enumerate([5, 12, 9, 1, 26, 3, 44, 16], 1):
        invoice = Invoice(rng, family, index, count, credit=index == family.get("credit"), **family["make"])
        invoice.has_order = rng.random() < 0.6
        for at, line in enumerate(invoice.lines):
            if family.get("sections"):
                line["section"] = family["sections"][at * len(family["sections"]) // len(invoice.lines)]
            line["bin"] = f"{rng.choice('ABCD')}{rng.randrange(1, 60)}"
            line["readings"] = [(rng.randrange(100, 999), start := rng.randrange(10000, 50000), start + rng.randrange(20, 900)) for _ in range(rng.choice([0, 1, 1, 2]))]
            if family.get("curls"):
                line["description"] = line["text"].replace("'", "\u2019")
            if family.get("capitals"):
                line["description"] = line["description"].upper()
                line["unit"] = line["unit"].upper()
        if index in (3, 7):
            invoice.spoil(rng)
        family["print"](invoice, folder / f"inv-{index}.pdf")
        truth = invoice.truth(f"inv-{index}.pdf", family)
        if name == "tarrock-groff" and not invoice.has_order:
            truth["purchaseOrder"] = None
        invoices.append(truth)
    truth = {"family": name, "currency": family["currency"], "notPrinted": family.get("notPrinted", []), "invoices": invoices}
    (folder / "truth.json").write_text(json.dumps(truth, indent=1, ensure_ascii=False) + "\n", encoding="utf-8")


if __name__ == "__main__":
    for chosen in sys.argv[1:] or FAMILIES:
        make(chosen, FAMILIES[chosen])
        print(chosen)
