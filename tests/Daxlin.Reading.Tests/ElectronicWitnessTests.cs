using System.Collections.Immutable;
using System.Globalization;
using System.Text;
using System.Xml.Linq;
using Daxlin.Core;
using Daxlin.Core.Capture;
using Daxlin.Core.Checks;
using Daxlin.Core.Electronic;
using Daxlin.Core.Templates;
using Daxlin.Testing;

namespace Daxlin.Reading.Tests;

/// <summary>The electronic invoice beside the print: what agrees stays clear, what differs in any figure is held with both.</summary>
public class ElectronicWitnessTests
{
    private const int MostFigures = 25;

    [Theory]
    [MemberData(nameof(Families.Folders), MemberType = typeof(Families))]
    public void What_agrees_stays_clear_and_another_figure_anywhere_is_held(string family)
    {
        var (agreeing, held) = (0, 0);
        foreach (var invoice in FamilyInvoices.Clear(family))
        {
            foreach (var isUbl in new[] { true, false })
            {
                foreach (var hasLines in new[] { true, false })
                {
                    var document = ElectronicText.Of(invoice.Checked.Captured, isUbl, hasLines);
                    var beside = Beside(invoice, document);
                    Assert.True(beside.IsClear, $"{invoice.Name}, {(isUbl ? "UBL" : "CII")}: {string.Join(" ", beside.Findings.Select(one => one.Message))}");
                    var compared = beside.Ties.OfType<AgreesWithElectronic>().ToList();
                    Assert.NotEmpty(compared);
                    agreeing += compared.Count;
                    // What no sum contains is proved by its being stated twice.
                    Assert.Empty(beside.Unproved.Intersect(compared.SelectMany(tie => tie.Members)));
                    Assert.DoesNotContain("otherwise", ElectronicWitness.Sentence(beside, Assert.Single(beside.Captured.Electronic)), StringComparison.Ordinal);
                    if (hasLines)
                        held += OtherFigures(invoice, document, compared.Count);
                }
            }
        }
        Assert.True(agreeing > 20 && held > 20, $"{agreeing} agreed, {held} were held");
    }

    /// <summary>Changes figures that the electronic invoice states, one at a time.</summary>
    private static int OtherFigures(FamilyInvoice invoice, XDocument document, int compared)
    {
        var (held, passed) = (0, new List<string>());
        var figures = ElectronicText.FiguresOf(document).ToList();
        var step = Math.Max(1, figures.Count / MostFigures);
        for (var at = 0; at < figures.Count; at += step)
        {
            var (figure, was) = (figures[at], figures[at].Value);
            figure.Value = (decimal.Parse(was, CultureInfo.InvariantCulture) + 1).ToString(CultureInfo.InvariantCulture);
            var other = Beside(invoice, document);
            if (other.IsClear)
                passed.Add($"{figure.Parent!.Name.LocalName}/{figure.Name.LocalName}");
            else
            {
                held++;
                // Both figures are said, or both counts where a rate is gone.
                var said = other.Findings.Where(one => one.Code == ElectronicWitness.Differs).Select(one => one.Message).ToList();
                Assert.Contains(said, message => message.Contains("states", StringComparison.Ordinal));
            }
            figure.Value = was;
        }
        // What the page does not print differs from nothing; all that it prints was compared.
        var unprinted = passed.Where(path => !MayBeUnprinted(invoice.Checked.Captured, path)).ToList();
        Assert.True(unprinted.Count == 0, $"{invoice.Name}: another {string.Join(", another ", unprinted)} stayed clear; {compared} figures were compared");
        return held;
    }

    /// <summary>Says that a page need not print what an element states, or prints it in a way that is no figure of the standard's.</summary>
    private static bool MayBeUnprinted(CapturedInvoice invoice, string path) => path[(path.IndexOf('/', StringComparison.Ordinal) + 1)..] switch
    {
        "PayableAmount" or "DuePayableAmount" => invoice.Find(TradeNames.AmountDue) is null,
        "InvoicedQuantity" or "CreditedQuantity" or "BilledQuantity" => invoice.Lines.Any(line => line.Find(TradeNames.Quantity) is null),
        "PriceAmount" or "ChargeAmount" => invoice.Lines.Any(line => line.Find(TradeNames.UnitPrice) is null) || invoice.Template.Reads.TaxIncluded,
        "TaxAmount" when path.StartsWith("TaxTotal/", StringComparison.Ordinal) => invoice.Find(TradeNames.Tax) is null,
        "TaxTotalAmount" => invoice.Find(TradeNames.Tax) is null,
        "Amount" => invoice.Template.Reads.TaxIncluded || invoice.Lines.All(line => line.Find(TradeNames.DiscountAmount) is null),
        "TaxAmount" or "TaxableAmount" or "CalculatedAmount" or "BasisAmount" or "Percent" or "RateApplicablePercent" =>
            invoice.Template.Reads.TaxIncluded || invoice.Taxes.Any(row => row.NumberIn(TradeNames.Amount) is 0),
        _ => invoice.Template.Reads.TaxIncluded,
    };

    [Theory]
    [MemberData(nameof(Families.Folders), MemberType = typeof(Families))]
    public void An_electronic_invoice_without_print_is_captured_as_the_print_of_it_is(string family)
    {
        foreach (var invoice in FamilyInvoices.Clear(family))
        {
            var captured = invoice.Checked.Captured;
            foreach (var isUbl in new[] { true, false })
            {
                var read = DocumentReader.Read(Bytes(ElectronicText.Of(captured, isUbl)));
                var taken = Assert.Single(InvoicePath.Take(read.Pages, [], read.FactsWith(DocumentFacts.Unknown)));
                var alone = taken.Checked!;
                // Where amounts hold the tax, the standard states others, which the test's own writer does not work out.
                if (!captured.Template.Reads.TaxIncluded)
                    Assert.True(alone.IsClear, $"{invoice.Name}, {(isUbl ? "UBL" : "CII")}: {string.Join(" ", alone.Findings.Select(one => one.Message))}");
                Assert.Equal(
                    (captured.IsCreditNote, captured.Find("invoiceNumber")!.Value, captured.Find("invoiceDate")!.Value, Math.Abs(captured.Amount("total")!.Value), captured.Lines.Length),
                    (alone.Captured.IsCreditNote, alone.Captured.Find("invoiceNumber")!.Value, alone.Captured.Find("invoiceDate")!.Value, alone.Captured.Amount("total")!.Value, alone.Captured.Lines.Length));
                Assert.Equal(
                    captured.Lines.Select(line => Math.Abs(line.NumberIn("amount") ?? 0)), alone.Captured.Lines.Select(line => Math.Abs(line.NumberIn("amount") ?? 0)));
                // Every value shows where on the sheet it stands, in the words that it was read from.
                foreach (var (name, value) in alone.Captured.Values.Where(one => one.Value.Trace.Places.Length > 0 && one.Value.Trace.Raw.Length < 40))
                    Assert.Equal((name, Squashed(value.Trace.Raw)), (name, Squashed(ShownAt(read.Pages, Assert.Single(value.Trace.Places), value.Kind is Core.Values.ValueKind.Date))));
            }
        }
    }

    /// <summary>What stands at a place of the sheet; a date is stated in figures alone in one syntax.</summary>
    private static string ShownAt(ImmutableArray<Core.Pages.Page> pages, PlaceOnPage place, bool isDate)
    {
        var text = string.Join(' ', pages[place.Page - 1].Words.Where(word => place.Box.HoldsCenterOf(word.Box)).Select(word => word.Text));
        return isDate && text.Length == 8 ? $"{text[..4]}-{text[4..6]}-{text[6..]}" : text;
    }

    private static string Squashed(string text) => string.Concat(text.Where(c => !char.IsWhiteSpace(c)));

    private static CheckedInvoice Beside(FamilyInvoice invoice, XDocument document)
    {
        var file = ElectronicInvoiceReader.Read("invoice.xml", Bytes(document))!;
        Assert.Equal("", file.Fault);
        return InvoiceChecks.Check(invoice.Checked.Captured with { Electronic = [file] });
    }

    private static byte[] Bytes(XDocument document) => Encoding.UTF8.GetBytes($"<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n{document}");
}
