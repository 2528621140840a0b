using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core;
using Daxlin.Core.Capture;
using Daxlin.Core.Checks;
using Daxlin.Core.Templates.Json;
using Daxlin.Testing;

namespace Daxlin.Reading.Tests;

/// <summary>
/// Any figure of any captured number printed wrong, a row dropped or printed twice: the invoice is never clear, unless the
/// number is said to be checked by no sum.
/// </summary>
public class ChangedFiguresTests
{
    /// <summary>So many numbers of each invoice are changed, spread over all of it; a long one has hundreds.</summary>
    private const int MostNumbers = 60;

    [Theory]
    [MemberData(nameof(Families.Folders), MemberType = typeof(Families))]
    public void No_changed_figure_is_clear(string family)
    {
        var changes = 0;
        foreach (var (name, _, _, invoice) in FamilyInvoices.Clear(family))
        {
            var numbers = NumbersOf(invoice).Where(number => !invoice.Unproved.Contains(number.Name)).ToList();
            var step = Math.Max(1, numbers.Count / MostNumbers);
            for (var index = 0; index < numbers.Count; index += step)
            {
                foreach (var changed in Changes(numbers[index].Value))
                {
                    var result = InvoiceChecks.Check(WithNumber(invoice.Captured, numbers[index].Name, changed));
                    if (!result.IsClear || result.Unproved.Contains(numbers[index].Name))
                    {
                        changes++;
                        continue;
                    }
                    // A change that the ties' own rounding swallows is none that a sum could see: 3 × 0.3333 is 3 × 0.3334.
                    Assert.True(
                        IsSwallowed(invoice, result, numbers[index].Name),
                        $"{name}: {numbers[index].Name} as {changed.ToString(CultureInfo.InvariantCulture)} instead of {numbers[index].Value.Number!.Value.ToString(CultureInfo.InvariantCulture)} is clear");
                }
            }
        }
        Assert.True(changes > 100, $"only {changes} changes were tried");
    }

    [Theory]
    [MemberData(nameof(Families.Folders), MemberType = typeof(Families))]
    public void No_row_dropped_or_printed_twice_is_clear(string family)
    {
        var changes = 0;
        foreach (var (name, _, _, invoice) in FamilyInvoices.Clear(family))
        {
            var lines = invoice.Captured.Lines;
            for (var row = 0; row < lines.Length; row++)
            {
                // A row of nothing is missed by no sum.
                if (lines[row].NumberIn("amount") is null or 0)
                    continue;
                foreach (var changed in new[] { lines.RemoveAt(row), lines.Insert(row, lines[row]) })
                {
                    Assert.False(
                        InvoiceChecks.Check(invoice.Captured with { Lines = Renumbered(changed) }).IsClear,
                        $"{name}: clear with {changed.Length} rows instead of {lines.Length}");
                    changes++;
                }
            }
        }
        Assert.True(changes > 50, $"only {changes} changes were tried");
    }

    private static IEnumerable<(string Name, CapturedValue Value)> NumbersOf(CheckedInvoice invoice) => invoice.Captured.Values.Where(one => one.Value.Number is not null);

    /// <summary>The number with its first figure another, and with its last.</summary>
    private static IEnumerable<decimal> Changes(CapturedValue value)
    {
        var text = value.Number!.Value.ToString(CultureInfo.InvariantCulture);
        var figures = Enumerable.Range(0, text.Length).Where(at => char.IsAsciiDigit(text[at])).ToList();
        foreach (var at in new[] { figures[0], figures[^1] }.Distinct())
            yield return decimal.Parse(text[..at] + (char)('0' + (text[at] - '0' + 3) % 10) + text[(at + 1)..], CultureInfo.InvariantCulture);
    }

    private static bool IsSwallowed(CheckedInvoice before, CheckedInvoice after, string name)
    {
        // The same ties with the same sides to the last minor unit: the change shows nowhere in them.
        var (own, changed) = (Sides(before), Sides(after));
        return own.SequenceEqual(changed);

        IEnumerable<(decimal, decimal)> Sides(CheckedInvoice invoice) =>
            invoice.Ties.Where(tie => tie.Members.Contains(name)).Select(tie => (tie.Left, tie.Right));
    }

    private static CapturedInvoice WithNumber(CapturedInvoice invoice, string name, decimal number) =>
        invoice.With(name, invoice.Named(name)! with { Number = number, Value = number.ToString(CultureInfo.InvariantCulture) });

    private static ImmutableArray<CapturedLine> Renumbered(ImmutableArray<CapturedLine> lines) => [.. lines.Select((line, index) => line with { Number = index + 1 })];
}
