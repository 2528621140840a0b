using System.Collections.Immutable;
using CsCheck;
using Daxlin.Core.Drift;
using Daxlin.Testing;

namespace Daxlin.Core.Tests;

/// <summary>Signs of a changed layout: told when something stops being found, and hardly ever by chance.</summary>
public class DriftTests
{
    private static InvoiceTraits Invoice(bool isHeld, params (string Name, string Way)[] found) =>
        new(found.ToImmutableSortedDictionary(one => one.Name, one => one.Way, StringComparer.Ordinal), isHeld);

    private static ImmutableArray<DriftNotice> After(int before, InvoiceTraits usual, int then, InvoiceTraits next) =>
        DriftNotices.Of([.. Enumerable.Repeat(usual, before), .. Enumerable.Repeat(next, then)]);

    [Theory]
    [InlineData(10, 2, false)]
    [InlineData(10, 3, true)]
    [InlineData(5, 3, false)]
    [InlineData(5, 4, false)]
    [InlineData(5, 5, true)]
    [InlineData(30, 2, true)]
    [InlineData(30, 1, false)]
    [InlineData(0, 9, false)]
    public void A_field_that_is_found_no_more_is_told_once_it_is_no_chance(int before, int then, bool isTold)
    {
        var notices = After(before, Invoice(false, ("dueDate", "beside “Due”"), ("total", "beside “Total”")), then, Invoice(false, ("total", "beside “Total”")));
        if (!isTold)
        {
            Assert.Empty(notices);
            return;
        }
        var notice = Assert.Single(notices);
        Assert.Equal(("dueDate", before), (notice.About, notice.Since));
        Assert.Equal($"The due date was found on {before} of {before} invoices; on the last {then} it is not.", notice.Says);
    }

    [Fact]
    public void A_field_that_is_found_another_way_is_told_with_both()
    {
        var notice = Assert.Single(After(10, Invoice(false, ("total", "beside “Total”")), 3, Invoice(false, ("total", "matching a pattern"))));
        Assert.Equal("The total was found beside “Total” on 10 of 10 invoices; on the last 3 it is found matching a pattern.", notice.Says);
    }

    [Fact]
    public void A_column_that_stays_empty_is_told()
    {
        var notice = Assert.Single(After(10, Invoice(false, ("lines[].amount", ""), ("lines[].unitPrice", "")), 3, Invoice(false, ("lines[].amount", ""))));
        Assert.Equal("The column unit price was found on 10 of 10 invoices; on the last 3 it is not.", notice.Says);
    }

    [Fact]
    public void Invoices_that_are_all_held_are_told()
    {
        var notice = Assert.Single(After(20, Invoice(false, ("total", "beside “Total”")), 3, Invoice(true, ("total", "beside “Total”"))));
        Assert.Equal(("", 20, "0 of 20 invoices were held; the last 3 all are."), (notice.About, notice.Since, notice.Says));
    }

    [Fact]
    public void What_comes_anew_is_no_sign() =>
        Assert.Empty(After(10, Invoice(false, ("total", "beside “Total”")), 5, Invoice(false, ("freight", "beside “Freight”"), ("total", "beside “Total”"))));

    [Fact]
    public void A_field_that_invoices_have_or_have_not_by_chance_is_hardly_ever_told()
    {
        // Over all shares a field can be printed with: one in two hundred is the promise for one look at one field.
        var (looks, told) = (0, 0);
        Gen.Select(Gen.Double[0.05, 1], Gen.Double[0, 1].Array[5, 40]).Sample(
            (share, dice) =>
            {
                Interlocked.Increment(ref looks);
                var traits = dice.Select(die => die < share ? Invoice(false, ("dueDate", "beside “Due”")) : Invoice(false));
                if (!DriftNotices.Of([.. traits]).IsEmpty)
                    Interlocked.Increment(ref told);
            },
            iter: Effort.Times(20_000));
        Assert.True(told <= looks / 150, $"{told} of {looks}");
    }
}
