using System.Collections.Immutable;
using CsCheck;
using Daxlin.Core.Capture;
using Daxlin.Core.Checks;
using Daxlin.Core.Pages;
using Daxlin.Testing;

namespace Daxlin.Core.Tests;

/// <summary>What holds of every invoice, whatever its rows, its pages and its printer.</summary>
public class CapturePropertyTests
{
    private static readonly int Times = Effort.Times(300);

    private static CheckedInvoice Check(ImmutableArray<Page> pages) =>
        InvoiceChecks.Check(InvoiceCapture.Capture(pages, MadeUpInvoice.Template));

    [Fact]
    public void Every_row_is_captured_over_pages_and_wrapped_lines_and_the_invoice_is_clear() => MadeUpInvoice.Gen.Sample(
        invoice =>
        {
            var result = Check(invoice.Set().Pages());
            Assert.Equal(RowsOf(invoice), RowsOf(result));
            Assert.Empty(result.Findings);
            Assert.True(result.IsClear);
        },
        iter: Times);

    [Fact]
    public void One_wrong_figure_in_any_stated_amount_is_never_clear() => MadeUpInvoice.Gen
        .SelectMany(invoice => Gen.Select(
            Gen.Const(invoice), Gen.Int[0, invoice.PrintedAmounts.Length - 1], Gen.Int[0, 20], Gen.Int[1, 9]))
        .Sample(
            (invoice, which, place, by) =>
            {
                var amounts = invoice.PrintedAmounts;
                var result = Check(invoice.Set(amounts.SetItem(which, WithOtherFigure(amounts[which], place, by))).Pages());
                Assert.False(result.IsClear, $"{amounts[which]} was printed wrong");
            },
            iter: Times);

    [Fact]
    public void A_page_shifted_by_millimetres_or_scaled_captures_the_same() => Gen
        .Select(MadeUpInvoice.Gen, Gen.Double[-12, 12], Gen.Double[-12, 12], Gen.Double[0.94, 1.03])
        .Sample(
            (invoice, x, y, scale) =>
            {
                var (usual, moved) = (Check(invoice.Set().Pages()), Check(invoice.Set().Pages(x, y, scale)));
                Assert.Equal(Values(usual), Values(moved));
                Assert.True(moved.IsClear);
            },
            iter: Math.Max(2, Times / 3));

    [Fact]
    public void What_another_printer_changes_leaves_the_values_or_holds_the_invoice() => Gen
        .Select(MadeUpInvoice.Gen, Quirks.Gen, Gen.Double[-12, 12], Gen.Double[0.96, 1.03])
        .Sample(
            (invoice, quirks, shift, scale) =>
            {
                var result = InvoiceChecks.Check(InvoiceCapture.Capture(
                    invoice.Set(quirks: quirks).Pages(shift, shift, scale), MadeUpInvoice.TemplateFor(quirks.Figures)));
                // Rows set hardly further apart than lines of one text cannot always be told from them; and where the text of two
                // rows begins with one and the same line above their figures, that line may be a heading that is repeated.
                var isTold = quirks.RowGap > 1.35 * quirks.LineGap
                    && (quirks.Figures == FiguresAt.FirstLine || invoice.Rows.Select(row => row.Words[0]).Distinct().Count() == invoice.Rows.Length);
                if (result.IsClear || isTold)
                {
                    Assert.Equal(RowsOf(invoice), RowsOf(result));
                    Assert.True(result.IsClear, string.Join(' ', result.Findings.Select(finding => finding.Message)));
                }
            },
            iter: Times);

    [Fact]
    public void A_template_that_folds_the_wrong_way_puts_no_text_into_another_row_in_silence() => Gen
        .Select(MadeUpInvoice.Gen, Quirks.Gen, Gen.Enum<FiguresAt>())
        .Sample(
            (invoice, quirks, said) =>
            {
                // Rows that are set hardly further apart than their lines show nothing.
                var spaced = quirks with { RowGap = Math.Max(quirks.RowGap, quirks.LineGap + 2) };
                var result = InvoiceChecks.Check(InvoiceCapture.Capture(invoice.Set(quirks: spaced).Pages(), MadeUpInvoice.TemplateFor(said)));
                if (result.IsClear)
                    Assert.Equal(RowsOf(invoice), RowsOf(result));
            },
            iter: Times);

    [Fact]
    public void A_remark_between_the_rows_is_never_taken_for_their_text() => Gen.Select(MadeUpInvoice.Gen, Quirks.Gen).Sample(
        (invoice, quirks) =>
        {
            var spaced = quirks with { Remark = "Please order early", RowGap = Math.Max(quirks.RowGap, 15), LineGap = 11 };
            var result = InvoiceChecks.Check(InvoiceCapture.Capture(invoice.Set(quirks: spaced).Pages(), MadeUpInvoice.TemplateFor(quirks.Figures)));
            Assert.False(result.IsClear, string.Join(" / ", RowsOf(result).Take(3)));
            Assert.Contains(result.Findings, finding => finding.Message.Contains("Please order early", StringComparison.Ordinal));
        },
        iter: Math.Max(2, Times / 3));

    [Fact]
    public void Columns_that_changed_places_are_held_and_named() => Gen.Select(MadeUpInvoice.Gen, Quirks.Gen).Sample(
        (invoice, quirks) =>
        {
            var swapped = quirks with { IsSwapped = true };
            var result = InvoiceChecks.Check(InvoiceCapture.Capture(invoice.Set(quirks: swapped).Pages(), MadeUpInvoice.TemplateFor(quirks.Figures)));
            Assert.False(result.IsClear);
            Assert.Contains(result.Findings, finding => finding.Code == "columns-moved" && finding.Message.Contains("“Price”", StringComparison.Ordinal));
        },
        iter: Math.Max(2, Times / 10));

    [Fact]
    public void A_renamed_caption_is_held_and_named() => MadeUpInvoice.Gen.Sample(
        invoice =>
        {
            var result = Check(invoice.Set(quirks: Quirks.None with { TotalCaption = "Amount to pay" }).Pages());
            Assert.False(result.IsClear);
            Assert.Contains(result.Findings, finding => finding.About.Contains("total") && finding.Message.Contains("“Total due”", StringComparison.Ordinal));
        },
        iter: Math.Max(2, Times / 10));

    [Fact]
    public void A_renamed_heading_is_held_and_named() => MadeUpInvoice.Gen.Sample(
        invoice =>
        {
            var result = Check(invoice.Set(quirks: Quirks.None with { DescriptionHeading = "Goods" }).Pages());
            Assert.False(result.IsClear);
            Assert.Contains(result.Findings, finding => finding.Code == "heading-missing" && finding.Message.Contains("“Description”", StringComparison.Ordinal));
        },
        iter: Math.Max(2, Times / 10));

    [Fact]
    public void Every_value_stands_inside_its_page() => MadeUpInvoice.Gen.Sample(
        invoice =>
        {
            var pages = invoice.Set().Pages();
            var values = Check(pages).Captured.Lines.SelectMany(line => line.Cells);
            Assert.All(values.SelectMany(value => value.Trace.Places), place =>
                Assert.Contains(pages[place.Page - 1].Words, word => place.Box.HoldsCenterOf(word.Box)));
        },
        iter: Math.Max(2, Times / 10));

    private static IEnumerable<string> RowsOf(MadeUpInvoice invoice) =>
        invoice.Rows.Select(row => FormattableString.Invariant($"{row.Code} | {row.Description} | {row.Quantity:F2} | {row.Price:F2} | {row.Amount:F2}"));

    private static IEnumerable<string> RowsOf(CheckedInvoice invoice) => invoice.Captured.Lines.Select(line => FormattableString.Invariant(
        $"{line.Find("itemCode")?.Value} | {line.Find("description")?.Value} | {line.NumberIn("quantity"):F2} | {line.NumberIn("unitPrice"):F2} | {line.NumberIn("amount"):F2}"));

    private static IEnumerable<string> Values(CheckedInvoice invoice) => invoice.Captured.Fields
        .Concat(invoice.Captured.Lines.SelectMany(line => line.Cells))
        .Select(value => $"{value.Name}={value.Value}");

    /// <summary>Another figure in the place of one; the printed amount stays as long.</summary>
    internal static string WithOtherFigure(string amount, int place, int by)
    {
        var digits = Enumerable.Range(0, amount.Length).Where(index => char.IsAsciiDigit(amount[index])).ToList();
        var at = digits[place % digits.Count];
        return amount[..at] + (char)('0' + (amount[at] - '0' + by) % 10) + amount[(at + 1)..];
    }
}
