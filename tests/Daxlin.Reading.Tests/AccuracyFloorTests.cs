using Daxlin.Accuracy;
using Daxlin.Testing;

namespace Daxlin.Reading.Tests;

/// <summary>The three figures by family, as a floor that cannot sink unseen.</summary>
public class AccuracyFloorTests
{
    public static TheoryData<string> Families =>
        [.. Repository.FamiliesOf(Repository.Corpus).Concat(Repository.FamiliesOf(Repository.Samples))];

    [Theory]
    [MemberData(nameof(Families))]
    public void Every_cell_is_exact_no_clear_is_false_and_no_hold_is_needless(string directory)
    {
        var invoices = FamilyScore.Of(directory).Invoices;
        Assert.All(invoices, invoice => Assert.False(invoice.IsFalseClear, $"{invoice.Truth.File} is a false clear"));
        // A file with several invoices is held as a whole until Daxlin takes it apart.
        var single = invoices.Where(invoice => !invoice.Truth.IsOneOfSeveral).ToList();
        Assert.True(single.Count >= 6);
        Assert.All(single, invoice => Assert.Empty(invoice.Wrong));
        Assert.All(single, invoice => Assert.False(invoice.IsNeedlessHold, $"{invoice.Truth.File} is held: {invoice.WhyHeld}"));
    }
}
