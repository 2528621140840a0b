using System.Buffers;
using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.Checks;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Capture;

/// <summary>What is in doubt about an invoice as a whole when all is captured.</summary>
internal static class CaptureDoubts
{
    private static readonly SearchValues<char> Unmarked = SearchValues.Create("0123456789.,' -");

    public static IEnumerable<Finding> Of(CapturedInvoice invoice, InvoicePages pages)
    {
        var findings = new List<Finding>();
        var habits = invoice.Template.Reads;
        foreach (var field in invoice.Fields)
        {
            if (Doubt(field, habits) is var (code, message))
                findings.Add(Finding.Hold(code, message, field.Name));
        }
        AddDoubts("lines", invoice.Lines, habits, findings);
        AddDoubts("taxes", invoice.Taxes, habits, findings);
        findings.AddRange(UnreadPages(invoice, pages));
        findings.AddRange(HiddenText.Of(pages.Pages, invoice.Template));
        findings.AddRange(TextOverText.Of(pages.Pages));
        return findings;
    }

    private static void AddDoubts(string list, ImmutableArray<CapturedLine> lines, Habits habits, List<Finding> findings)
    {
        foreach (var line in lines)
        {
            foreach (var cell in line.Cells)
            {
                if (Doubt(cell, habits) is var (code, message))
                    findings.Add(Finding.Hold(code, message, string.Create(CultureInfo.InvariantCulture, $"{list}[{line.Number}].{cell.Name}")));
            }
        }
    }

    private static (string Code, string Message)? Doubt(CapturedValue value, Habits habits)
    {
        if (HasForeignMark(value, habits))
            return ("currency-differs", $"“{value.Trace.Raw}” is not in {habits.Currency.Code}, which the template reads all amounts as.");
        // Letters that a font draws without saying which they are: nobody knows what stands there.
        return value.Value.AsSpan().ContainsAnyExceptInRange(' ', '~') && value.Value.Any(IsUnknown)
            ? ("letters-unknown", $"“{string.Concat(value.Value.Select(c => IsUnknown(c) ? '▯' : c))}” holds letters that the document draws but does not name (▯).")
            : null;
    }

    /// <summary>An amount printed with another currency's mark than the template reads.</summary>
    private static bool HasForeignMark(CapturedValue value, Habits habits)
    {
        if (value.Kind is ValueKind.Currency)
            return !habits.Currency.CanBePrintedAs(value.Value);
        // Most numbers are digits and marks, and need not be read again.
        if (value.Kind is not (ValueKind.Money or ValueKind.Price) || !value.Trace.Raw.AsSpan().ContainsAnyExcept(Unmarked))
            return false;
        var mark = NumberReader.Read(value.Trace.Raw, habits).Mark;
        return mark.Length > 0 && !habits.Currency.CanBePrintedAs(mark);
    }

    private static bool IsUnknown(char c) =>
        c == '\uFFFD' || char.GetUnicodeCategory(c) is UnicodeCategory.PrivateUse || (char.IsControl(c) && c != '\n');

    /// <summary>Pages on which nothing was captured although they look like an invoice: perhaps another vendor's, in one file.</summary>
    private static IEnumerable<Finding> UnreadPages(CapturedInvoice invoice, InvoicePages pages)
    {
        if (pages.Pages.Length < 2)
            yield break;
        var used = new HashSet<int>(invoice.LeftOut.Select(line => line.Place.Page));
        AddPages(invoice.Fields, used);
        foreach (var line in new[] { invoice.Lines, invoice.Taxes, invoice.Others }.SelectMany(lines => lines))
            AddPages(line.Cells, used);
        // A payment slip names the invoice that it is for.
        var own = invoice.Find(TradeNames.InvoiceNumber)?.Value is { } number ? new Cue([number]) : null;
        foreach (var page in pages.Pages.Where(page => !used.Contains(page.Number) && InvoiceWords.LooksLikeInvoice(page)))
        {
            if (own?.IsOn(page) == true)
                continue;
            yield return Finding.Hold(
                "page-unread", $"Page {page.Number} looks like an invoice, but the template captured nothing on it.", "pages");
        }
    }

    private static void AddPages(ImmutableArray<CapturedValue> values, HashSet<int> pages)
    {
        var last = 0;
        foreach (var value in values)
        {
            foreach (var place in value.Trace.Places)
            {
                // Neighbours stand on one page.
                if (place.Page != last)
                    pages.Add(last = place.Page);
            }
        }
    }
}
