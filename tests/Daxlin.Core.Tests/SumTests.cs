using System.Collections.Immutable;
using System.Globalization;
using CsCheck;
using Daxlin.Core.Posting;
using Daxlin.Core.Posting.Coding;
using Daxlin.Core.Posting.Sums;

namespace Daxlin.Core.Tests;

/// <summary>Whatever is added up by whatever: the groups come to all of it, and all of it to what a run of the same invoices comes to.</summary>
public class SumTests
{
    private static readonly Gen<decimal> Amounts = Gen.Int[-5000, 90_000].Select(cents => cents / 100m);

    private static string Text(decimal amount) => amount.ToString(CultureInfo.InvariantCulture);

    /// <summary>A line with its amount, and its shares if it is coded: they come to the amount.</summary>
    private static readonly Gen<(decimal Amount, ImmutableArray<CodedPart> Parts)> Lines = Gen.Select(Amounts, Gen.Int[0, 3], Gen.Int[0, 3]).Select((amount, shares, account) =>
        (amount, Enumerable.Range(0, shares).Select(at => new CodedPart(
            at == 0 ? amount - (shares - 1) : 1, 1,
            account + at == 0 ? ImmutableSortedDictionary<string, Code>.Empty : ImmutableSortedDictionary<string, Code>.Empty.Add("account", new Code($"{4000 + account + at}", "by hand")))).ToImmutableArray()));

    private static readonly Gen<ApprovedInvoice> Invoices = Gen.Select(Lines.Array[0, 4], Gen.Int[0, 2], Gen.Int[0, 2], Gen.Bool, Gen.Bool, Amounts).Select((lines, vendor, month, isCredit, isUnsigned, tax) =>
    {
        var total = lines.Sum(line => line.Amount) + Math.Abs(tax);
        return new ApprovedInvoice(
            1, $"Vendor {vendor}", isCredit, vendor == 2 ? "GBP" : "EUR", "a.pdf", "",
            new Dictionary<string, string> { ["total"] = Text(isCredit && isUnsigned ? Math.Abs(total) : total), ["invoiceDate"] = $"2026-0{month + 4}-11" }, [],
            [.. lines.Select((line, at) => new ApprovedLine("goods", at + 1, 1, new Dictionary<string, string> { ["amount"] = Text(line.Amount), ["description"] = $"row {at}" }, []))])
        {
            Coding = [.. lines.Select((line, at) => new CodedLine(at + 1, line.Parts)).Where(line => !line.Parts.IsEmpty)],
        };
    });

    [Fact]
    public void Groups_come_to_all_and_all_to_the_control_totals() => Gen.Select(Invoices.Array[1, 12], Gen.Enum<SumBy>()).Sample((invoices, by) =>
    {
        var (sums, totals) = (new SumsSoFar(by), new ControlTotalsSoFar(false));
        foreach (var invoice in invoices)
        {
            sums.Add(invoice);
            totals.Add(invoice);
        }
        foreach (var all in sums.Totals)
        {
            var own = sums.Groups.Where(group => group.Currency == all.Currency).ToList();
            Assert.Equal(all.Amount, own.Sum(group => group.Amount));
            Assert.All(own, group => Assert.InRange(group.Invoices, 1, all.Invoices));
            Assert.Equal(invoices.Count(invoice => invoice.Currency == all.Currency), all.Invoices);
            if (by is SumBy.Vendor or SumBy.Month)
                Assert.Equal(totals.Totals.Sums[all.Currency], all.Amount);
        }
        // Months stand in their order, anything else the largest first, currency by currency.
        foreach (var groups in sums.Groups.GroupBy(group => group.Currency))
        {
            if (by == SumBy.Month)
                Assert.Equal(groups.Select(group => group.Key).Order(StringComparer.Ordinal), groups.Select(group => group.Key));
            else
                Assert.Equal(groups.Select(group => Math.Abs(group.Amount)).OrderDescending(), groups.Select(group => Math.Abs(group.Amount)));
        }
        // The rows behind a figure come to it.
        foreach (var group in sums.Groups)
        {
            var parts = invoices.Where(invoice => invoice.Currency == group.Currency).SelectMany(invoice => SummedPart.Of(invoice, by)).Where(part => part.Key == group.Key);
            Assert.Equal(group.Amount, parts.Sum(part => part.Amount));
        }
    });

    [Fact]
    public void Codes_share_the_amounts_of_lines_and_a_credit_note_takes_them_off() => Invoices.Sample(invoice =>
    {
        var lines = invoice.Lines.Sum(line => decimal.Parse(line.Cells["amount"], CultureInfo.InvariantCulture));
        foreach (var by in new[] { SumBy.Account, SumBy.CostCentre, SumBy.Project, SumBy.TaxCode })
        {
            var parts = SummedPart.Of(invoice, by);
            var sign = invoice.IsCreditNote && invoice.Total > 0 ? -1 : 1;
            Assert.Equal(invoice.Lines.IsEmpty ? invoice.IsCreditNote ? -Math.Abs(invoice.Total) : invoice.Total : sign * lines, parts.Sum(part => part.Amount));
            Assert.All(parts, part => Assert.Equal(part.Line == 0 ? "" : $"row {part.Line - 1}", part.Text));
        }
    });
}
