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
        if (!pages.Any(page => page.IsRecognised))
            return InvoiceCapture.Capture(pages, template, facts);
        (pages, var captured) = WithCues([.. pages.Select(page => Apostrophes.AsIn(template, page))], template, facts);
        (pages, captured) = LinesOtherwise(pages, template, facts, captured);
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
        var (fitting, tried) = Fitted(pages, template, facts, captured, doubts);
        if (fitting != pages)
        {
            captured = InvoiceCapture.Capture(fitting, template, facts);
            tried = Tried(fitting, template, facts, DoubtsOf(fitting, captured));
        }
        var decided = SumsDecide.Of(captured, ChoicesOf(captured, tried));
        captured = decided.Captured with { Findings = [.. decided.Captured.Findings, .. decided.Open.Select(open => open.ToFinding(template.Reads.Currency))] };
        return captured with { Findings = [.. captured.Findings, .. ReadOnce.Of(fitting, captured), .. MisreadCues.Suspected(fitting, captured), .. UnreadPrint.Of(fitting, captured)] };
    }

    /// <summary>The pages with their misread cues mended, and what is captured of them.</summary>
    private static (ImmutableArray<Page> Pages, CapturedInvoice Captured) WithCues(ImmutableArray<Page> pages, Template template, DocumentFacts? facts)
    {
        var mended = MisreadCues.Mended(pages, template, []);
        var captured = InvoiceCapture.Capture(mended, template, facts);
        var values = MisreadCues.WithinValues(pages, mended, captured);
        if (values.IsEmpty)
            return (mended, captured);
        mended = MisreadCues.Mended(pages, template, values);
        return (mended, InvoiceCapture.Capture(mended, template, facts));
    }

    /// <summary>Takes all other readings of a line at once where more of the template finds what it looks for then.</summary>
    /// <remarks>A pattern of a whole line fits under none of them alone: "VATO 20 0 onp 5,726.98 1,145.40", read as "VAT 20 % on …" by the other. What was read first stays beside each word.</remarks>
    private static (ImmutableArray<Page> Pages, CapturedInvoice Captured) LinesOtherwise(ImmutableArray<Page> pages, Template template, DocumentFacts? facts, CapturedInvoice captured)
    {
        var lines = from page in pages
                    where page.IsRecognised
                    from line in page.Lines
                        // What was written there as the template spells it is read once, and stays.
                    let words = line.Words.Where(word => word.Reading is { IsTwice: true, Others: [{ Length: > 0 }, ..] }).ToList()
                    where words.Count > 0 && line.Words.Any(word => HasFigure(word.Text))
                    select (page.Number, Words: words);
        foreach (var (number, words) in lines.Take(MostTried).ToList())
        {
            var otherwise = words.Aggregate(pages, (changed, word) => Changed(changed, number, word, word.Reading!.Others[0]));
            if (InvoiceCapture.Capture(otherwise, template, facts) is var tried && Fits(tried, captured) > 0)
                (pages, captured) = (otherwise, tried);
        }
        return (pages, captured);
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

    private static IEnumerable<PlaceOnPage> PlacesOf(CapturedInvoice captured) =>
        captured.AllValues.SelectMany(one => one.Value.Trace.Places).Concat(captured.LeftOut.Select(line => line.Place));

    /// <summary>Takes the other reading of a word where more of the template finds what it looks for.</summary>
    /// <returns>The pages so, and what each other reading came to beside them; that is good only where the pages are as they were.</returns>
    private static (ImmutableArray<Page> Pages, ImmutableArray<(int Page, CapturedInvoice Captured)> Tried) Fitted(
        ImmutableArray<Page> pages, Template template, DocumentFacts? facts, CapturedInvoice captured, ImmutableArray<(int Page, Word Word)> doubts)
    {
        var tried = ImmutableArray.CreateBuilder<(int, CapturedInvoice)>();
        foreach (var (number, word) in doubts)
        {
            foreach (var one in Tried(pages, template, facts, [(number, word)]).Zip(word.Reading!.Others))
            {
                tried.Add(one.First);
                if (one.Second.Length == 0 || Fits(one.First.Captured, captured) <= 0)
                    continue;
                (pages, captured) = (Changed(pages, number, word, one.Second), one.First.Captured);
                break;
            }
        }
        return (pages, tried.ToImmutable());
    }

    /// <summary>What is captured under each other reading of each word.</summary>
    private static ImmutableArray<(int Page, CapturedInvoice Captured)> Tried(
        ImmutableArray<Page> pages, Template template, DocumentFacts? facts, ImmutableArray<(int Page, Word Word)> doubts) =>
        [.. from doubt in doubts from other in doubt.Word.Reading!.Others select (doubt.Page, InvoiceCapture.Capture(Changed(pages, doubt.Page, doubt.Word, other), template, facts))];

    /// <summary>Which of two captures finds more of what is looked for: below 0 the second, 0 if both find as much.</summary>
    /// <example>A due date that need not be there is not missed; but "07-Apr-2026" is one, and "07-Apr-2826" is none.</example>
    private static int Fits(CapturedInvoice tried, CapturedInvoice captured) =>
        Lacks(captured).CompareTo(Lacks(tried)) is not 0 and var fewer ? fewer : tried.AllValues.Count().CompareTo(captured.AllValues.Count());

    /// <summary>What was looked for and not found, or found in a form that it cannot have.</summary>
    private static int Lacks(CapturedInvoice captured) => captured.Findings.Count(finding => finding.Severity == Severity.Hold);

    /// <summary>What the other readings make of which value.</summary>
    private static ImmutableArray<ReadingDoubt> ChoicesOf(CapturedInvoice captured, ImmutableArray<(int Page, CapturedInvoice Captured)> tried)
    {
        var own = captured.AllValues.GroupBy(one => one.Name).ToDictionary(group => group.Key, group => group.First().Value);
        var found = new Dictionary<string, ReadingDoubt>();
        // A reading under which something is missing, or is no date or no amount, is none.
        foreach (var (page, other) in tried.Where(one => Fits(one.Captured, captured) >= 0))
        {
            foreach (var (name, value) in other.AllValues)
            {
                if (own.GetValueOrDefault(name) is not { } now || now.Value == value.Value)
                    continue;
                var doubt = found.GetValueOrDefault(name) ?? new ReadingDoubt(name, now, [], page);
                if (!doubt.Others.Any(known => known.Value == value.Value))
                    found[name] = doubt with { Others = doubt.Others.Add(value) };
            }
        }
        return [.. found.Values];
    }

    private static ImmutableArray<Page> Changed(ImmutableArray<Page> pages, int number, Word word, string text) =>
        [.. pages.Select(page => page.Number == number ? page.WithText(word, text) : page)];
}
