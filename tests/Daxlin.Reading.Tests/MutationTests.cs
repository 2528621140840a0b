using Daxlin.Core.Checks;
using Daxlin.Testing;
using Daxlin.Testing.Mutations;

namespace Daxlin.Reading.Tests;

/// <summary>
/// One thing printed wrong on an invoice, or misread: it is held, or the record says that nothing checks that value. And where
/// sums tell, the right number is among what is proposed. <c>bench/mutations</c> does the same with thousands.
/// </summary>
public class MutationTests
{
    /// <summary>So many changes of each kind a family.</summary>
    private const int Rounds = 5;

    [Theory]
    [MemberData(nameof(Families.Folders), MemberType = typeof(Families))]
    public void Nothing_wrong_that_a_sum_or_a_check_digit_could_tell_is_clear_and_the_right_number_is_proposed(string family)
    {
        var random = new Random(family.Length);
        var invoices = FamilyInvoices.Clear(family).ToList();
        var (made, mendable, proposed) = (0, 0, 0);
        for (var round = 0; round < Rounds; round++)
        {
            foreach (var mutation in Enum.GetValues<Mutation>())
            {
                var invoice = invoices[(round + (int)mutation) % invoices.Count];
                if (Mutator.Of(invoice, mutation, random) is not { } pages)
                    continue;
                var outcome = Outcome.Of(invoice, mutation, pages);
                Assert.True(outcome.Verdict is not (Verdict.WrongAndClear or Verdict.HeldNeedlessly), $"{invoice.Name}, {mutation}: {outcome.Verdict} {string.Join(", ", outcome.Wrong)}");
                // Whatever is found has words of its own in the figures, and the proof's parts make up the whole.
                Assert.All(outcome.Codes, code => Assert.True(FindingWords.Knows(code), code));
                Assert.True(outcome.Proof is not { } proof || proof.Tied + proof.Unproved.Length <= proof.Numbers, outcome.Proof?.Sentence);
                made++;
                mendable += outcome.IsMendable ? 1 : 0;
                proposed += outcome.IsProposed ? 1 : 0;
            }
        }
        Assert.True(made > 30, $"only {made} invoices were changed");
        // Several numbers may mend one tie; that the right one is among them counts.
        Assert.True(proposed >= 0.75 * mendable, $"the right number was proposed for {proposed} of {mendable}");
    }
}
