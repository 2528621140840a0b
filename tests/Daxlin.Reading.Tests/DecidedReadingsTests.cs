using System.Collections.Immutable;
using Daxlin.Core;
using Daxlin.Core.Capture;
using Daxlin.Core.Checks;
using Daxlin.Core.Pages;
using Daxlin.Core.Readings;
using Daxlin.Core.Templates;
using Daxlin.Testing;

namespace Daxlin.Reading.Tests;

/// <summary>
/// The invoices of all families as if two recognisers had read them in pictures: where these differ, an invoice is clear with what is printed, or it is held.
/// </summary>
public class DecidedReadingsTests
{
    /// <summary>So many words of an invoice are misread, spread over all of it.</summary>
    private static readonly int MostWords = Effort.Times(24);

    /// <summary>So many invoices of a family.</summary>
    private const int MostInvoices = 2;

    [Theory]
    [MemberData(nameof(Families.Folders), MemberType = typeof(Families))]
    public void What_two_read_alike_is_as_good_as_print(string family)
    {
        foreach (var invoice in FamilyInvoices.Clear(family).Take(MostInvoices))
        {
            var taken = Taken(invoice, Recognised(invoice.Pages, null, null));
            Assert.True(taken.IsClear, $"{invoice.Name}: {string.Join(" | ", taken.Findings.Select(finding => finding.Message))}");
            Assert.Equal(ValuesOf(invoice.Checked), ValuesOf(taken));
        }
    }

    /// <summary>Either recogniser is wrong by one figure, in any word that holds one.</summary>
    [Theory]
    [MemberData(nameof(Families.Folders), MemberType = typeof(Families))]
    public void A_figure_that_one_misreads_is_decided_rightly_or_held(string family)
    {
        var (decided, tied) = (0, 0);
        foreach (var invoice in FamilyInvoices.Clear(family).Take(MostInvoices))
        {
            var right = ValuesOf(invoice.Checked);
            var sure = invoice.Checked.Captured.Values.Where(one => invoice.Checked.Tied.Contains(one.Name)).SelectMany(one => one.Value.Trace.Places).ToList();
            var words = Figures(invoice.Pages).ToList();
            for (var index = 0; index < words.Count; index += Math.Max(1, words.Count / MostWords))
            {
                var (page, word) = words[index];
                foreach (var isTaken in new[] { true, false })
                {
                    var wrong = Misread(word.Text);
                    var taken = Taken(invoice, Recognised(invoice.Pages, word, isTaken ? (wrong, word.Text) : (word.Text, wrong)));
                    if (taken.IsClear)
                        Assert.True(right.SequenceEqual(ValuesOf(taken)), $"{invoice.Name}: clear with “{wrong}” for “{word.Text}” on page {page.Number}: {Differences(right, ValuesOf(taken))}");
                    if (sure.Exists(place => place.Page == page.Number && place.Box.HoldsCenterOf(page.AsSeen(word.Box))))
                    {
                        tied++;
                        decided += taken.IsClear ? 1 : 0;
                    }
                }
            }
        }
        // What is held although a sum decides would be needless work; a quantity and its price may make up for each other within what is rounded.
        Assert.True(10 * decided >= 9 * tied, $"of {tied} misread figures that stand in sums only {decided} were decided");
    }

    /// <summary>One letter of what the template steers by is another, or is lost; no second recogniser looks at words of letters.</summary>
    [Theory]
    [MemberData(nameof(Families.Folders), MemberType = typeof(Families))]
    public void A_letter_misread_in_a_cue_loses_no_value_that_is_clear_and_most_cues_are_found_so(string family)
    {
        var (found, all) = (0, 0);
        foreach (var invoice in FamilyInvoices.Clear(family).Take(MostInvoices))
        {
            var right = ValuesOf(invoice.Checked);
            var words = WordsOfCues(invoice).Where(word => word.Text.Count(char.IsLetter) >= 3 && !word.Text.Any(char.IsAsciiDigit)).Distinct(ReferenceEqualityComparer.Instance).Cast<Word>().ToList();
            for (var index = 0; index < words.Count; index += Math.Max(1, words.Count / MostWords))
            {
                foreach (var misread in MisreadLetters(words[index].Text))
                {
                    var pages = Recognised(invoice.Pages, null, null).Select(page => With(page, page.Words.Select(
                        word => word.Box == words[index].Box && word.Text == words[index].Text ? word with { Text = misread, Reading = new WordReading([], IsTwice: false) } : word)));
                    var taken = Taken(invoice, [.. pages]);
                    if (taken.IsClear)
                        Assert.True(right.SequenceEqual(ValuesOf(taken)), $"{invoice.Name}: clear with “{misread}” for “{words[index].Text}”: {Differences(right, ValuesOf(taken))}");
                    all++;
                    found += taken.IsClear ? 1 : 0;
                }
            }
        }
        Assert.True(10 * found >= 6 * all, $"of {all} misread cues only {found} were found");
    }

    /// <summary>The words on the pages that the template's cues stand on, but for those within values: words of descriptions are read once.</summary>
    private static IEnumerable<Word> WordsOfCues(FamilyInvoice invoice) =>
        from page in invoice.Pages
        from cue in invoice.Checked.Captured.Template.Cues
        from place in cue.PlacesOn(page)
        from word in page.Lines[place.Line].Words[place.FirstWord..(place.LastWord + 1)]
        where !invoice.Checked.Captured.AllValues.SelectMany(one => one.Value.Trace.Places).Any(value => value.Page == page.Number && value.Box.HoldsCenterOf(page.AsSeen(word.Box)))
        select word;

    /// <summary>An I for an l, an O for a 0 and their like where there is one, and else another letter in the middle; and the last one lost where the word is long.</summary>
    private static IEnumerable<string> MisreadLetters(string text)
    {
        const string letters = "lIiOSBectfhv", alike = "IllQ58ecftnu";
        var at = text.IndexOfAny([.. letters]);
        yield return at < 0 ? text[..1] + "n" + text[2..] : text[..at] + alike[letters.IndexOf(text[at], StringComparison.Ordinal)] + text[(at + 1)..];
        if (text.Count(char.IsLetter) > 5)
            yield return text[..^1];
    }

    /// <summary>One recogniser misreads every word of a line, the other none: a pattern of the whole line fits only when all are taken from the other.</summary>
    [Theory]
    [MemberData(nameof(Families.Folders), MemberType = typeof(Families))]
    public void A_line_that_one_misreads_throughout_is_read_by_the_other_or_held(string family)
    {
        foreach (var invoice in FamilyInvoices.Clear(family).Take(1))
        {
            var right = ValuesOf(invoice.Checked);
            var lines = invoice.Pages.SelectMany(page => page.Lines.Where(line => line.Words.Length > 2 && line.Words.Any(word => word.Text.Any(char.IsAsciiDigit)) && line.Words.Any(IsOfLetters)).Select(line => (page, line))).ToList();
            for (var index = 0; index < lines.Count; index += Math.Max(1, lines.Count / MostWords))
            {
                var (page, line) = lines[index];
                var misread = line.Words.Where(IsOfLetters).ToHashSet(ReferenceEqualityComparer.Instance);
                var taken = Taken(invoice, [.. Recognised(invoice.Pages, null, null).Select(other => other.Number != page.Number ? other
                    : With(other, page.Words.Select(word => misread.Contains(word) ? word with { Text = MisreadLetters(word.Text).First(), Reading = new WordReading([word.Text], IsTwice: true) } : word with { Reading = new WordReading([], IsTwice: true) })))]);
                Assert.False(taken.IsClear && !right.SequenceEqual(ValuesOf(taken)), $"{invoice.Name}: clear with “{line.Text}” misread on page {page.Number}: {Differences(right, ValuesOf(taken))}");
                // What a pattern of the whole line takes is there again, whatever else is held.
                if (invoice.Checked.Captured.Template.Blocks.Any(block => block is { List: BlockRule.Taxes, Row: IsMatch }))
                    Assert.Equal(invoice.Checked.Captured.Taxes.Length, taken.Captured.Taxes.Length);
            }
        }
    }

    private static bool IsOfLetters(Word word) => word.Text.Length > 1 && word.Text.All(char.IsLetter);

    /// <summary>A recogniser says ' or ’ as it likes.</summary>
    [Theory]
    [MemberData(nameof(Families.Folders), MemberType = typeof(Families))]
    public void Apostrophes_between_figures_are_as_good_either_way(string family)
    {
        foreach (var invoice in FamilyInvoices.Clear(family).Take(MostInvoices))
        {
            var swapped = Recognised(invoice.Pages, null, null).Select(page => With(page, page.Words.Select(word => word.Text.Any(char.IsAsciiDigit)
                ? word with { Text = string.Concat(word.Text.Select(letter => letter switch { '\'' => '\u2019', '\u2019' => '\'', _ => letter })) } : word)));
            var taken = Taken(invoice, [.. swapped]);
            Assert.True(taken.IsClear, $"{invoice.Name}: {string.Join(" | ", taken.Findings.Select(finding => finding.Message))}");
            Assert.Equal(Unmarked(invoice.Checked), Unmarked(taken));
        }

        static IEnumerable<string> Unmarked(CheckedInvoice invoice) => ValuesOf(invoice).Select(one => $"{one.Key} {one.Value.Replace('\u2019', '\'')}");
    }

    /// <summary>Two amounts misread so that they make up for each other: the sum below comes out either way.</summary>
    [Theory]
    [MemberData(nameof(Families.Folders), MemberType = typeof(Families))]
    public void Two_misread_figures_that_make_up_for_each_other_are_never_clear_as_such(string family)
    {
        foreach (var invoice in FamilyInvoices.Clear(family).Take(MostInvoices))
        {
            var right = ValuesOf(invoice.Checked);
            var amounts = invoice.Checked.Captured.Lines.Select(line => line.Find(TradeNames.Amount)).OfType<CapturedValue>()
                .Select(value => WordOf(invoice.Pages, value)).OfType<Word>().Where(word => word.Text.Length > 3).Take(6).ToList();
            foreach (var (one, other) in amounts.Zip(amounts.Skip(1)))
            {
                if (Shifted(one.Text, 1) is not { } more || Shifted(other.Text, -1) is not { } less || ReferenceEquals(one, other))
                    continue;
                foreach (var isTaken in new[] { true, false })
                {
                    var pages = Recognised(invoice.Pages, one, isTaken ? (more, one.Text) : (one.Text, more));
                    pages = [.. pages.Select(page => Again(page, other, isTaken ? (less, other.Text) : (other.Text, less)))];
                    var taken = Taken(invoice, pages);
                    Assert.True(!taken.IsClear || right.SequenceEqual(ValuesOf(taken)), $"{invoice.Name}: clear with {more} and {less} for {one.Text} and {other.Text}");
                }
            }
        }
    }

    [Fact]
    public void A_doubt_names_both_readings_and_a_decision_says_what_decided()
    {
        var invoice = FamilyInvoices.Clear(Repository.FamiliesOf(Repository.Samples).First(family => family.Contains("skerrow", StringComparison.Ordinal))).First();
        var number = invoice.Checked.Captured.Find(TradeNames.InvoiceNumber)!;
        var word = WordOf(invoice.Pages, number)!;
        var held = Taken(invoice, Recognised(invoice.Pages, word, (word.Text, Misread(word.Text))));
        var finding = Assert.Single(held.Findings, finding => finding.Severity == Severity.Hold);
        Assert.Equal("reading-doubtful", finding.Code);
        Assert.StartsWith($"Invoice number: read as “{word.Text}” and as “{Misread(word.Text)}” on page 1, and nothing says which.", finding.Message, StringComparison.Ordinal);
        Assert.Equal([TradeNames.InvoiceNumber], finding.About);
        Assert.Equal(Passing.Freely, held.PassingOf(finding));

        var total = WordOf(invoice.Pages, invoice.Checked.Captured.Find(TradeNames.Total)!)!;
        var decided = Taken(invoice, Recognised(invoice.Pages, total, (Misread(total.Text), total.Text)));
        Assert.True(decided.IsClear);
        Assert.Contains($"read as {invoice.Checked.Captured.Template.Reads.Currency.Show(decided.Captured.Amount(TradeNames.Total)!.Value)} and as ", decided.Captured.Find(TradeNames.Total)!.Trace.Reading, StringComparison.Ordinal);
    }

    [Fact]
    public void A_number_that_only_one_read_is_held_for_a_look()
    {
        var invoice = FamilyInvoices.Clear(Repository.FamiliesOf(Repository.Samples).First(family => family.Contains("skerrow", StringComparison.Ordinal))).First();
        var word = WordOf(invoice.Pages, invoice.Checked.Captured.Find(TradeNames.InvoiceNumber)!)!;
        ImmutableArray<Page> pages = [.. Recognised(invoice.Pages, null, null).Select(page => With(page, page.Words.Select(own => own.Text == word.Text ? own with { Reading = new WordReading([], IsTwice: false) } : own)))];
        var finding = Assert.Single(Taken(invoice, pages).Findings, finding => finding.Severity == Severity.Hold);
        Assert.Equal(("reading-single", TradeNames.InvoiceNumber), (finding.Code, finding.About[0]));
        Assert.Contains($"“{word.Text}”", finding.Message, StringComparison.Ordinal);
    }

    /// <summary>What comes of the pages; of pages whose cue was misread nothing does.</summary>
    private static CheckedInvoice Taken(FamilyInvoice invoice, ImmutableArray<Page> pages) => InvoicePath.Take(pages, invoice.Templates, DocumentFacts.Unknown)[0].Checked
        ?? invoice.Checked with { Findings = [Finding.Hold("unrecognised", "No template knows it.")] };

    /// <summary>The pages as a picture's, each word read alike twice, but for one.</summary>
    private static ImmutableArray<Page> Recognised(ImmutableArray<Page> pages, Word? doubtful, (string Taken, string Other)? readings) =>
        [.. pages.Select(page => Again(With(page, page.Words.Select(word => ReferenceEquals(word, doubtful) ? word : word with { Reading = new WordReading([], IsTwice: true) })), doubtful, readings))];

    private static Page Again(Page page, Word? doubtful, (string Taken, string Other)? readings)
    {
        if (doubtful is null || readings is not var (taken, other))
            return page;
        return With(page, page.Words.Select(word => word.Box == doubtful.Box && word.Text == doubtful.Text && page.Words.Length > 0
            ? word with { Text = taken, Reading = new WordReading([other], IsTwice: true) } : word));
    }

    private static Page With(Page page, IEnumerable<Word> words) =>
        new(page.Number, page.Width, page.Height, [.. words], page.Strokes) { Drawn = page.Drawn, IsRecognised = true };

    private static IEnumerable<(Page Page, Word Word)> Figures(ImmutableArray<Page> pages) =>
        from page in pages from word in page.Words where word.Text.Any(char.IsAsciiDigit) && word.Turn == Turn.Upright select (page, word);

    private static Word? WordOf(ImmutableArray<Page> pages, CapturedValue value) => value.Trace.Places is [var place]
        ? pages.First(page => page.Number == place.Page).Words.FirstOrDefault(word => word.Text.Any(char.IsAsciiDigit) && place.Box.HoldsCenterOf(pages.First(page => page.Number == place.Page).AsSeen(word.Box))) : null;

    /// <summary>As a recogniser errs: another figure that looks like it, in the middle of the word.</summary>
    private static string Misread(string text)
    {
        var figures = Enumerable.Range(0, text.Length).Where(at => char.IsAsciiDigit(text[at])).ToArray();
        var at = figures[figures.Length / 2];
        return text[..at] + "8765943172"["0123456789".IndexOf(text[at], StringComparison.Ordinal)] + text[(at + 1)..];
    }

    /// <summary>One more or less in the figure before the last two; null where that would need another figure as well.</summary>
    private static string? Shifted(string text, int by)
    {
        var figures = Enumerable.Range(0, text.Length).Where(at => char.IsAsciiDigit(text[at])).ToArray();
        if (figures.Length < 3 || (text[figures[^3]] + by) is < '0' or > '9')
            return null;
        var at = figures[^3];
        return text[..at] + (char)(text[at] + by) + text[(at + 1)..];
    }

    private static ImmutableSortedDictionary<string, string> ValuesOf(CheckedInvoice invoice) =>
        invoice.Captured.AllValues.GroupBy(one => one.Name).ToImmutableSortedDictionary(group => group.Key, group => group.First().Value.Value, StringComparer.Ordinal);

    private static string Differences(ImmutableSortedDictionary<string, string> right, ImmutableSortedDictionary<string, string> taken) =>
        string.Join(", ", right.Keys.Union(taken.Keys).Where(name => right.GetValueOrDefault(name) != taken.GetValueOrDefault(name)).Select(name => $"{name}: {taken.GetValueOrDefault(name)} for {right.GetValueOrDefault(name)}"));
}
