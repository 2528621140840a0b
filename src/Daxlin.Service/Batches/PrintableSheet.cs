using System.Globalization;
using System.Net;
using System.Text;
using Daxlin.Core.Corrections;
using Daxlin.Core.Values;

namespace Daxlin.Service.Batches;

/// <summary>A batch's sheet as a page of its own that a browser prints: no script, nothing fetched.</summary>
internal static class PrintableSheet
{
    private const string Style =
        "body{font:11pt/1.35 system-ui,sans-serif;margin:18mm;color:#1b1b1b}h1{font-size:15pt;margin:0}h2{font-size:11.5pt;margin:14pt 0 3pt}p{margin:2pt 0}"
        + "table{border-collapse:collapse;width:100%;font-variant-numeric:tabular-nums}th{text-align:left;font-weight:500;color:#555}th,td{padding:2pt 6pt;border-bottom:.5pt solid #bbb;vertical-align:top}"
        + ".f{text-align:right;white-space:nowrap}@page{size:A4;margin:15mm}@media print{body{margin:0}tr{break-inside:avoid}}";

    public static string Of(BatchSheet sheet)
    {
        var page = new StringBuilder();
        page.Append(CultureInfo.InvariantCulture, $"<!doctype html><html lang=\"en\"><meta charset=\"utf-8\"><title>{Text(sheet.Name)}</title><style>{Style}</style>");
        page.Append(CultureInfo.InvariantCulture, $"<h1>{Text(sheet.Name)}</h1><p>Batch {sheet.Id}, opened {sheet.CreatedAt:yyyy-MM-dd HH:mm} UTC, {sheet.Documents} documents{(sheet.Waiting > 0 ? $", {sheet.Waiting} not read yet" : "")}</p>");
        Table(page, "Control totals", ["Currency", "~Stated", "~Stated sum", "~Captured", "~Sum", ""], sheet.ControlTotals.Select(total => new[]
        {
            total.Currency, total.StatedInvoices?.ToString(CultureInfo.InvariantCulture) ?? "–", total.StatedSum is { } sum ? Money(sum, total.Currency) : "–",
            total.Invoices.ToString(CultureInfo.InvariantCulture), Money(total.Sum, total.Currency),
            total.Says.Length > 0 ? "▲ " + total.Says : total.StatedInvoices is null && total.StatedSum is null ? "nothing stated" : "● agrees",
        }));
        Table(page, "What came with the invoices states", ["By", "Currency", "~Stated", "~Stated sum", "~Captured", "~Sum", ""], sheet.Covers.Select(cover => new[]
        {
            cover.From.Length > 0 ? $"{cover.Name}, from {cover.From}" : cover.Name, cover.Total.Currency, cover.Total.StatedInvoices?.ToString(CultureInfo.InvariantCulture) ?? "–",
            cover.Total.StatedSum is { } sum ? Money(sum, cover.Total.Currency) : "–", cover.Total.Invoices.ToString(CultureInfo.InvariantCulture), Money(cover.Total.Sum, cover.Total.Currency),
            cover.Total.Says.Length > 0 ? "▲ " + cover.Total.Says : "● agrees",
        }));
        Table(page, "By state", ["State", "~Invoices", "~Sum"], sheet.States.Select(total => new[] { total.State, total.Invoices.ToString(CultureInfo.InvariantCulture), Money(total.Sum, total.Currency) }));
        Table(page, "By vendor", ["Vendor", "~Invoices", "~Untouched", "~Held", "~Sum"], sheet.Vendors.Select(total => new[]
        {
            total.Vendor, total.Invoices.ToString(CultureInfo.InvariantCulture), total.Untouched.ToString(CultureInfo.InvariantCulture), total.Held.ToString(CultureInfo.InvariantCulture), Money(total.Sum, total.Currency),
        }));
        Table(page, "Why invoices are held", ["Reason", "~Invoices"], sheet.Reasons.Select(reason => new[] { reason.Says, reason.Invoices.ToString(CultureInfo.InvariantCulture) }));
        Table(page, "What is to be looked at", ["Invoice", "Vendor", "File", "Finding"], sheet.Held.Select(invoice => new[]
        {
            invoice.InvoiceNumber, invoice.Vendor, invoice.File, invoice.Finding + (invoice.Findings > 1 ? $" and {invoice.Findings - 1} more" : ""),
        }));
        Table(page, "Set aside, unreadable", ["File", "Why"], sheet.Unreadable.Select(file => new[] { file.File, file.Reason }));
        return page.Append("</html>").ToString();
    }

    /// <param name="headings">Those of figures begin with a tilde.</param>
    private static void Table(StringBuilder page, string title, string[] headings, IEnumerable<string[]> rows)
    {
        var all = rows.ToList();
        if (all.Count == 0)
            return;
        string Cell(string tag, int column, string text) => $"<{tag}{(headings[column].StartsWith('~') ? " class=\"f\"" : "")}>{Text(text)}</{tag}>";
        page.Append(CultureInfo.InvariantCulture, $"<h2>{Text(title)}</h2><table><thead><tr>{string.Concat(headings.Select((heading, at) => Cell("th", at, heading.TrimStart('~'))))}</tr></thead><tbody>");
        foreach (var row in all)
            page.Append(CultureInfo.InvariantCulture, $"<tr>{string.Concat(row.Select((cell, at) => Cell("td", at, cell)))}</tr>");
        page.Append("</tbody></table>");
    }

    private static string Money(string amount, string currency) => Currency.Find(currency) is { } of && SettledForm.Number(amount) is { } number ? of.Show(number) : "–";

    private static string Text(string text) => WebUtility.HtmlEncode(text);
}
