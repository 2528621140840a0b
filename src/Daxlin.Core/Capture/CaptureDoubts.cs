using System.Globalization;
using Daxlin.Core.Checks;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Capture;

/// <summary>What is in doubt about an invoice as a whole when all is captured.</summary>
internal static class CaptureDoubts
{
    public static IEnumerable<Finding> Of(CapturedInvoice invoice, InvoicePages pages) =>
        [.. ForeignCurrencies(invoice), .. UnreadableLetters(invoice), .. UnreadPages(invoice, pages)];

    private static IEnumerable<(string About, CapturedValue Value)> ValuesOf(CapturedInvoice invoice) =>
        invoice.Fields.Select(value => (value.Name, value))
            .Concat(invoice.Lines.SelectMany(line => line.Cells.Select(cell => (Name("lines", line, cell), cell))))
            .Concat(invoice.Taxes.SelectMany(line => line.Cells.Select(cell => (Name("taxes", line, cell), cell))));

    private static string Name(string list, CapturedLine line, CapturedValue cell) =>
        string.Create(CultureInfo.InvariantCulture, $"{list}[{line.Number}].{cell.Name}");

    /// <summary>Amounts printed with another currency's mark than the template reads.</summary>
    private static IEnumerable<Finding> ForeignCurrencies(CapturedInvoice invoice)
    {
        var habits = invoice.Template.Reads;
        foreach (var (about, value) in ValuesOf(invoice))
        {
            var mark = value.Kind is ValueKind.Money or ValueKind.Number ? NumberReader.Read(value.Trace.Raw, habits).Mark
                : value.Kind is ValueKind.Currency ? value.Value : "";
            if (mark.Length > 0 && !habits.Currency.CanBePrintedAs(mark))
            {
                yield return Finding.Hold(
                    "currency-differs",
                    $"“{value.Trace.Raw}” is not in {habits.Currency.Code}, which the template reads all amounts as.",
                    about);
            }
        }
    }

    /// <summary>Letters that a font draws without saying which they are: nobody knows what stands there.</summary>
    private static IEnumerable<Finding> UnreadableLetters(CapturedInvoice invoice)
    {
        foreach (var (about, value) in ValuesOf(invoice))
        {
            if (value.Value.Any(IsUnknown))
            {
                yield return Finding.Hold(
                    "letters-unknown",
                    $"“{string.Concat(value.Value.Select(c => IsUnknown(c) ? '▯' : c))}” holds letters that the document draws but does not name (▯).",
                    about);
            }
        }
    }

    private static bool IsUnknown(char c) =>
        c == '\uFFFD' || char.GetUnicodeCategory(c) is UnicodeCategory.PrivateUse || (char.IsControl(c) && c != '\n');

    /// <summary>Pages on which nothing was captured although they look like an invoice: perhaps another vendor's, in one file.</summary>
    private static IEnumerable<Finding> UnreadPages(CapturedInvoice invoice, InvoicePages pages)
    {
        if (pages.Pages.Length < 2)
            yield break;
        var used = ValuesOf(invoice).SelectMany(entry => entry.Value.Trace.Places).Select(place => place.Page)
            .Concat(invoice.LeftOut.Select(line => line.Place.Page))
            .Concat(invoice.Others.SelectMany(line => line.Cells).SelectMany(cell => cell.Trace.Places).Select(place => place.Page))
            .ToHashSet();
        // A payment slip names the invoice that it is for.
        var own = invoice.Find(TradeNames.InvoiceNumber)?.Value is { } number ? new Cue([number]) : null;
        foreach (var page in pages.Pages.Where(page => !used.Contains(page.Number) && InvoiceWords.LooksLikeInvoice(page)))
        {
            if (own?.IsOn(page) == true)
                continue;
            yield return Finding.Hold(
                "page-unread",
                $"Page {page.Number} looks like an invoice, but the template captured nothing on it.",
                "pages");
        }
    }
}
