using System.Collections.Immutable;
using Daxlin.Core.Capture;
using Daxlin.Core.Checks;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Readings;

/// <summary>Captures an invoice whose words were recognised in a picture, and decides between what two recognisers read by what must hold.</summary>
/// <remarks>
/// Nobody guesses. A figure that was read in two ways takes the one under which the sums hold, if they hold under no other; a date, an account number, a value with a form
/// of its own the one that is one. What nothing decides is a finding. So is a value of the header that only one recogniser read, and an amount, unless a sum that holds contains it:
/// what stands in a sum with others is read as often as the sum has members.
/// </remarks>
/// <example>"1,204.50" and "1,284.50" were read for the total; the lines and the tax come to 1,204.50, so that is the total.</example>
public static class DecidedReadings
{
    /// <summary>So many doubtful words are tried; an invoice with more is to be looked at as a whole.</summary>
    private const int MostTried = 60;

    /// <param name="pages">Those of one invoice.</param>
    public static CapturedInvoice Capture(ImmutableArray<Page> pages, Template template, DocumentFacts? facts)
    {
        var captured = InvoiceCapture.Capture(pages, template, facts);
        if (!pages.Any(page => page.IsRecognised))
            return captured;
        var doubts = DoubtsOf(pages, captured);
        if (doubts.Length > MostTried)
        {
            return captured with
            {
                Findings = captured.Findings.Add(Finding.Hold(
                    ReadingDoubt.Code, $"{doubts.Length} words of this scan were read in two ways, too many to be told apart: ask for a better scan, or enter what it says.", "pages")),
            };
        }
        // Words that make rows or values of what was none come first: under the others' readings there is more to hold them against.
        (pages, captured) = Fitted(pages, template, facts, captured, doubts);
        var choices = ChoicesOf(pages, template, facts, captured, DoubtsOf(pages, captured));
        var decided = SumsDecide.Of(captured, choices);
        captured = decided.Captured with { Findings = [.. decided.Captured.Findings, .. decided.Open.Select(open => open.ToFinding(template.Reads.Currency))] };
        return captured with { Findings = [.. captured.Findings, .. ReadOnce.Of(pages, captured)] };
    }

    /// <summary>Words that were read in two ways and may be part of what was captured.</summary>
    private static ImmutableArray<(int Page, Word Word)> DoubtsOf(ImmutableArray<Page> pages, CapturedInvoice captured)
    {
        var places = PlacesOf(captured).ToLookup(place => place.Page, place => place.Box);
        return [.. from page in pages
                   from word in page.Words
                   where word.Reading is { Others.IsEmpty: false } reading
                       && (HasFigure(word.Text) || reading.Others.Any(HasFigure) || places[page.Number].Any(box => box.HoldsCenterOf(page.AsSeen(word.Box))))
                   select (page.Number, word)];
    }

    private static bool HasFigure(string text) => text.Any(char.IsAsciiDigit);

    internal static IEnumerable<PlaceOnPage> PlacesOf(CapturedInvoice captured) => captured.Values.SelectMany(one => one.Value.Trace.Places)
        .Concat(captured.Lines.SelectMany(line => line.Under).SelectMany(under => under.Rows).SelectMany(row => row.Cells).SelectMany(cell => cell.Trace.Places))
        .Concat(captured.LeftOut.Select(line => line.Place));

    /// <summary>Takes the other reading of a word where more of the template finds what it looks for.</summary>
    private static (ImmutableArray<Page>, CapturedInvoice) Fitted(
        ImmutableArray<Page> pages, Template template, DocumentFacts? facts, CapturedInvoice captured, ImmutableArray<(int Page, Word Word)> doubts)
    {
        foreach (var (number, word) in doubts)
        {
            foreach (var other in word.Reading!.Others.Where(other => other.Length > 0))
            {
                var changed = Changed(pages, number, word, other);
                var tried = InvoiceCapture.Capture(changed, template, facts);
                if (Fits(tried, captured) > 0)
                {
                    (pages, captured) = (changed, tried);
                    break;
                }
            }
        }
        return (pages, captured);
    }

    /// <summary>Which of two captures finds more of what is looked for: below 0 the second, 0 if both find as much.</summary>
    /// <example>A due date that need not be there is not missed; but "07-Apr-2026" is one, and "07-Apr-2826" is none.</example>
    private static int Fits(CapturedInvoice tried, CapturedInvoice captured) =>
        Lacks(captured).CompareTo(Lacks(tried)) is not 0 and var fewer ? fewer : tried.Values.Count().CompareTo(captured.Values.Count());

    /// <summary>What was looked for and not found, or found in a form that it cannot have.</summary>
    private static int Lacks(CapturedInvoice captured) => captured.Findings.Count(finding => finding.Severity == Severity.Hold);

    /// <summary>What each doubtful word could make of which value.</summary>
    private static ImmutableArray<ReadingDoubt> ChoicesOf(
        ImmutableArray<Page> pages, Template template, DocumentFacts? facts, CapturedInvoice captured, ImmutableArray<(int Page, Word Word)> doubts)
    {
        var own = captured.Values.GroupBy(one => one.Name).ToDictionary(group => group.Key, group => group.First().Value);
        var found = new Dictionary<string, ReadingDoubt>();
        foreach (var (number, word) in doubts)
        {
            foreach (var other in word.Reading!.Others)
            {
                var tried = InvoiceCapture.Capture(Changed(pages, number, word, other), template, facts);
                // A reading under which something is missing, or is no date or no amount, is none.
                if (Fits(tried, captured) < 0)
                    continue;
                foreach (var (name, value) in tried.Values)
                {
                    if (own.GetValueOrDefault(name) is not { } now || now.Value == value.Value)
                        continue;
                    var doubt = found.GetValueOrDefault(name) ?? new ReadingDoubt(name, now, [], number);
                    if (!doubt.Others.Any(known => known.Value == value.Value))
                        found[name] = doubt with { Others = doubt.Others.Add(value) };
                }
            }
        }
        return [.. found.Values];
    }

    private static ImmutableArray<Page> Changed(ImmutableArray<Page> pages, int number, Word word, string text) =>
        [.. pages.Select(page => page.Number == number ? page.WithText(word, text) : page)];
}
