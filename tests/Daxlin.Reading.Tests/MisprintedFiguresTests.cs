using System.Collections.Immutable;
using Daxlin.Core;
using Daxlin.Core.Capture;
using Daxlin.Core.Checks;
using Daxlin.Core.Corrections;
using Daxlin.Core.Pages;

namespace Daxlin.Reading.Tests;

/// <summary>
/// One figure of any captured number printed wrong, or two swapped: the invoice is held, or the record says that no sum checks
/// that number. And where sums tell, the right number is among what is proposed.
/// </summary>
public class MisprintedFiguresTests
{
    /// <summary>So many numbers of each invoice are misprinted, spread over all of it.</summary>
    private const int MostNumbers = 10;

    [Theory]
    [MemberData(nameof(FamilyInvoices.Folders), MemberType = typeof(FamilyInvoices))]
    public void No_figure_that_a_sum_could_tell_is_wrong_and_clear_and_the_right_one_is_proposed(string family)
    {
        var (tried, mendable, proposed, invoices) = (0, 0, 0, 0);
        foreach (var invoice in FamilyInvoices.Clear(family))
        {
            var numbers = Numbers(invoice.Checked.Captured).ToList();
            var step = Math.Max(1, numbers.Count / MostNumbers);
            for (var index = ++invoices % step; index < numbers.Count; index += step)
            {
                var (name, value) = numbers[index];
                if (Misprinted(invoice, value, tried) is not { } pages)
                    continue;
                tried++;
                if (InvoicePath.Take(pages, invoice.Templates, DocumentFacts.Unknown) is not [{ Checked: { } result }])
                    continue;
                if (result.IsClear)
                {
                    Assert.True(
                        result.Unproved.Contains(name) || Numbers(result.Captured).Any(one => one.Name == name && one.Value.Number == value.Number),
                        $"{invoice.Name}: {name} was {value.Value}, is {Numbers(result.Captured).FirstOrDefault(one => one.Name == name).Value?.Value}, and the invoice is clear");
                    continue;
                }
                // Several numbers may mend one tie; only that the right one is among them counts. A word that several values are
                // taken from makes several wrong at once, which no single change mends.
                if (result.Ties.All(tie => tie.Holds) || Changed(invoice.Checked.Captured, result.Captured) != 1)
                    continue;
                mendable++;
                if (Proposals.Of(InvoiceCorrections.Apply(result.Captured, []), PrintedLine.Of(pages))
                    .Any(one => one.Of == name && one.Value is { } text && SettledForm.Number(text) == value.Number))
                    proposed++;
            }
        }
        Assert.True(tried > 10, $"only {tried} figures were misprinted");
        Assert.True(proposed >= 0.75 * mendable, $"the right number was proposed for {proposed} of {mendable}");
    }

    /// <summary>The invoice's pages with one figure of a value changed, or two neighbours swapped; null if it stands in no one word.</summary>
    private static ImmutableArray<Page>? Misprinted(FamilyInvoice invoice, CapturedValue value, int turn)
    {
        var place = value.Trace.Places[0];
        var page = invoice.Pages.Single(one => one.Number == place.Page);
        var words = page.Words.Where(word => word.Turn == Turn.Upright && place.Box.HoldsCenterOf(page.AsSeen(word.Box)) && word.Text.Any(char.IsAsciiDigit)).ToList();
        if (words is not [var word])
            return null;
        var digits = Enumerable.Range(0, word.Text.Length).Where(at => char.IsAsciiDigit(word.Text[at])).ToList();
        var at = digits[turn % digits.Count];
        var letters = word.Text.ToCharArray();
        if (turn % 3 == 0 && at + 1 < letters.Length && char.IsAsciiDigit(letters[at + 1]) && letters[at] != letters[at + 1])
            (letters[at], letters[at + 1]) = (letters[at + 1], letters[at]);
        else
            letters[at] = (char)('0' + (letters[at] - '0' + 1 + turn % 9) % 10);
        var other = word with { Text = new string(letters) };
        var changed = new Page(page.Number, page.Width, page.Height, [.. page.Words.Select(one => one == word ? other : one)], page.Strokes) { Drawn = page.Drawn };
        return [.. invoice.Pages.Select(one => one == page ? changed : one)];
    }

    private static int Changed(CapturedInvoice before, CapturedInvoice after)
    {
        var known = Numbers(after).ToDictionary(one => one.Name, one => one.Value.Number);
        return Numbers(before).Count(one => !known.TryGetValue(one.Name, out var number) || number != one.Value.Number);
    }

    /// <summary>Every number of the header, the rows and the taxes that is printed in one place.</summary>
    private static IEnumerable<(string Name, CapturedValue Value)> Numbers(CapturedInvoice invoice) =>
        invoice.Values.Where(one => one.Value is { Number: not null, Trace.Places.Length: 1 });
}
