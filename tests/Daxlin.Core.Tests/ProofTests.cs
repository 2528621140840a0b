using CsCheck;
using Daxlin.Core.Capture;
using Daxlin.Core.Checks;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Tests;

/// <summary>How far an invoice is proved, as a clerk reads it.</summary>
public class ProofTests
{
    [Theory]
    [InlineData(37, 37, "", "All 37 numbers stand in sums that hold.")]
    [InlineData(1, 1, "", "The one number stands in a sum that holds.")]
    [InlineData(0, 0, "", "No number was captured.")]
    [InlineData(39, 35, "lines[4].taxRate lines[9].unitPrice", "35 of 39 numbers stand in sums that hold; 2 are checked by no sum (row 4, tax rate; row 9, unit price); 2 stand in sums that do not come out.")]
    [InlineData(9, 4, "discount lines[1].quantity lines[2].quantity lines[3].quantity", "4 of 9 numbers stand in sums that hold; 4 are checked by no sum (discount; row 1, quantity; row 2, quantity; …); 1 stands in sums that do not come out.")]
    [InlineData(2, 1, "freight", "1 of 2 numbers stands in a sum that holds; 1 is checked by no sum (freight).")]
    public void The_sentence_counts_and_names(int numbers, int tied, string unproved, string sentence) =>
        Assert.Equal(sentence, new Proof(numbers, tied, [.. unproved.Split(' ', StringSplitOptions.RemoveEmptyEntries)]).Sentence);

    [Fact]
    public void What_no_sum_holds_and_the_first_way_did_not_find_is_unsure_and_nothing_else() => Gen.Select(MadeUpInvoice.Gen, Gen.Bool.Array[6]).Sample((invoice, moved) =>
    {
        var fields = MadeUpInvoice.Template.Fields;
        // Some captions are looked for first that no invoice has.
        var template = MadeUpInvoice.Template with
        {
            Fields = [.. fields.Select((rule, at) => !moved[at] || rule.Where[0] is not ByCue way ? rule : rule with { Where = [way with { Cue = new Cue(["Nowhere"]) }, way] })],
        };
        var weighed = InvoiceChecks.Check(InvoiceCapture.Capture(invoice.Set().Pages(), template));
        Assert.True(weighed.IsClear, string.Join(" ", weighed.Findings.Select(finding => finding.Message)));
        // Subtotal, freight and total stand in sums; the currency is a constant.
        var expected = fields.Where((rule, at) => moved[at] && (rule.Name is TradeNames.InvoiceNumber or TradeNames.InvoiceDate)).Select(rule => rule.Name);
        Assert.Equal(expected.Order(), weighed.Unsure.Order());
    });
}
