using Daxlin.Accuracy;
using Daxlin.Testing;

namespace Daxlin.Reading.Tests;

/// <summary>The three figures by family, as a floor that cannot sink unseen.</summary>
public class AccuracyFloorTests
{
    public static TheoryData<string> Families =>
        [.. new[] { Repository.Corpus, Repository.Families, Repository.Samples }.SelectMany(Repository.FamiliesOf)];

    [Theory]
    [MemberData(nameof(Families))]
    public void Every_cell_is_exact_no_clear_is_false_and_no_hold_is_needless(string directory)
    {
        var invoices = FamilyScore.Of(directory).Invoices;
        Assert.All(invoices, invoice => Assert.False(invoice.IsFalseClear, $"{invoice.Truth.File} is a false clear"));
        Assert.True(invoices.Length >= 6);
        Assert.All(invoices, invoice => Assert.Empty(invoice.Wrong));
        Assert.All(invoices, invoice => Assert.False(invoice.IsNeedlessHold, $"{invoice.Truth.File} is held: {invoice.WhyHeld}"));
    }
}
