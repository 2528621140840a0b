using Daxlin.Core.Checks;

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
}
