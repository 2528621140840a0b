using Daxlin.Accuracy;
using Daxlin.Testing;

namespace Daxlin.Core.Tests;

/// <summary>The first invoices of each family as a whole, so that what no small page shows is noticed when a part of Core is switched off; all of them are in the tests of Reading.</summary>
public sealed class FamiliesTests
{
    private const int Most = 2;

    public static TheoryData<string> Families => [.. FamilyInvoices.Folders];

    [Theory]
    [MemberData(nameof(Families))]
    public void The_first_invoices_of_a_family_are_captured_as_they_are_printed(string directory)
    {
        var invoices = FamilyScore.Of(directory, Most).Invoices;
        Assert.Equal(Most, invoices.Length);
        Assert.All(invoices, invoice => Assert.Empty(invoice.Wrong));
        Assert.All(invoices, invoice => Assert.False(invoice.IsFalseClear || invoice.IsNeedlessHold, $"{invoice.Truth.File}: {invoice.WhyHeld}"));
    }
}
