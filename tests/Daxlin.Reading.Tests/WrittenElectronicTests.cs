using System.Collections.Immutable;
using System.Text;
using System.Text.RegularExpressions;
using Daxlin.Core.Capture;
using Daxlin.Core.Checks;
using Daxlin.Core.Electronic;
using Daxlin.Core.Posting;
using Daxlin.Core.Posting.Expressions;
using Daxlin.Core.Posting.Layouts;
using Daxlin.Core.Posting.Ubl;
using Daxlin.Core.Templates;
using Daxlin.Testing;

namespace Daxlin.Reading.Tests;

/// <summary>What is posted as an electronic invoice states what its pages state, figure by figure, or is refused for something that they do not say.</summary>
public class WrittenElectronicTests
{
    private static readonly PostingLayout Layout = LayoutReader.Read(
        File.ReadAllText(Path.Combine(Repository.Root, "docs", "POSTING.md")).Split("```json")[2].Split("```")[0]
            .Replace("list \\\"countries\\\" at vendor otherwise ", "", StringComparison.Ordinal)
            .Replace("list \\\"units\\\" at unit otherwise ", "", StringComparison.Ordinal)
            .Replace("\"vendorTaxId\"", "\"vendorTaxId otherwise 'GB999999973'\"", StringComparison.Ordinal),
        new TranslationLists([]));

    /// <summary>What pages leave to their reader and the standard does not.</summary>
    private static readonly Regex Unsaid = new(@"cannot be told|has no rate|\(BR-DEC\)", RegexOptions.None, TimeSpan.FromSeconds(1));

    [Theory]
    [MemberData(nameof(Families.Folders), MemberType = typeof(Families))]
    public void A_written_electronic_invoice_agrees_with_the_pages_that_it_came_from(string family)
    {
        var (written, mayBe) = (0, 0);
        foreach (var invoice in FamilyInvoices.Clear(family))
        {
            var captured = invoice.Checked.Captured;
            var laidOut = LaidOut.Of(Layout, Approved(captured), new TranslationLists([]), new RunFacts(1, new DateOnly(2026, 11, 27)));
            mayBe += captured.Template.Reads is { TaxIncluded: false, Currency.MinorDigits: <= 2 } ? 1 : 0;
            if (!laidOut.Faults.IsEmpty)
            {
                // Amounts that hold the tax are no amounts of the standard's.
                Assert.All(laidOut.Faults, fault => Assert.True(captured.Template.Reads.TaxIncluded || Unsaid.IsMatch(fault.Message), $"{invoice.Name}: {fault.Message}"));
                continue;
            }
            written++;
            Assert.Empty(new LayoutProof(Layout).Add(laidOut));
            var file = ElectronicInvoiceReader.Read("invoice.xml", Encoding.UTF8.GetBytes(UblDocument.Of(laidOut.Ubl!).ToString()))!;
            Assert.Equal("", file.Fault);
            var beside = InvoiceChecks.Check(captured with { Electronic = [file] });
            Assert.True(beside.IsClear, $"{invoice.Name}: {string.Join(" ", beside.Findings.Select(one => one.Message))}");
            // All amounts of rows were held against what the pages say, and the total.
            var compared = beside.Ties.OfType<AgreesWithElectronic>().SelectMany(tie => tie.Members).ToHashSet();
            Assert.Contains(TradeNames.Total, compared);
            if (!captured.Template.Reads.TaxIncluded)
                Assert.All(captured.Lines.Where(line => line.NumberIn(TradeNames.Amount) is not null), line => Assert.Contains(ValueNames.Of(BlockRule.Lines, line.Number, TradeNames.Amount), compared));
        }
        Assert.True(3 * written >= mayBe, $"{written} of {mayBe} were written");
    }

    private static ApprovedInvoice Approved(CapturedInvoice invoice) => new(
        1, invoice.Template.Vendor, invoice.IsCreditNote, invoice.Template.Reads.Currency.Code, "1.pdf", new string('0', 64),
        invoice.Fields.ToDictionary(value => value.Name, value => value.Value),
        [.. invoice.Taxes.Where(row => row.NumberIn(TradeNames.Amount) is not null).Select(row => new ApprovedTax(
            row.Find(TradeNames.Rate)?.Value ?? "", row.Find(TradeNames.Base)?.Value ?? "", row.NumberIn(TradeNames.Amount)!.Value))],
        [.. invoice.Lines.Select(line => new ApprovedLine(line.Block, line.Number, 1, line.Cells.ToDictionary(cell => cell.Name, cell => cell.Value), []))]);
}
