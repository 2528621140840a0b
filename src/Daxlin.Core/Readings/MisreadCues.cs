using System.Collections.Immutable;
using Daxlin.Core.Capture;
using Daxlin.Core.Capture.Blocks;
using Daxlin.Core.Checks;
using Daxlin.Core.Pages;
using Daxlin.Core.Recognition;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Readings;

/// <summary>Finds what a template steers by on a page in a picture in spite of misread letters, and writes it there as the template spells it.</summary>
/// <remarks>
/// So all that captures goes on as on a page of print. A cue that stands on the page as it is spelt is let be, and so is one that two places resemble alike. It is
/// taken as whole words only, since a value that is glued to it would lose its own readings, and with every figure as it is. What was read stays with the word as its
/// other reading: if it is taken for part of a value after all, that value is in doubt.
/// </remarks>
/// <example>"lnvolce no" is read where the template says "Invoice no".</example>
internal static class MisreadCues
{
    /// <summary>Headings are three at most on lines one over the other.</summary>
    private const int StackedLines = 3;

    /// <summary>The pages of an invoice with all that its template steers by.</summary>
    /// <param name="values">What is no cue, since it was captured as part of a value.</param>
    public static ImmutableArray<Page> Mended(ImmutableArray<Page> pages, Template template, ImmutableArray<PlaceOnPage> values) =>
        [.. pages.Select(page => !page.IsRecognised ? page : WithHeadings(On(page, [.. template.Cues], Outside(page, values)), template, Outside(page, values)))];

    /// <summary>Places on mended pages that are part of a value: a description that says "port" where a template looks for "Part".</summary>
    public static ImmutableArray<PlaceOnPage> WithinValues(ImmutableArray<Page> pages, ImmutableArray<Page> mended, CapturedInvoice captured)
    {
        var values = captured.AllValues.SelectMany(one => one.Value.Trace.Places).ToList();
        return [.. from pair in pages.Zip(mended)
                   where !ReferenceEquals(pair.First, pair.Second)
                   from word in pair.Second.Words.Except(pair.First.Words, ReferenceEqualityComparer.Instance).Cast<Word>()
                   where values.Exists(place => place.Page == pair.Second.Number && place.Box.HoldsCenterOf(pair.Second.AsSeen(word.Box)))
                   select new PlaceOnPage(pair.Second.Number, word.Box)];
    }

    private static Func<Box, bool> Outside(Page page, ImmutableArray<PlaceOnPage> values) =>
        box => !values.Any(value => value.Page == page.Number && value.Box.SharedWidth(box) > 0 && value.Box.SharedHeight(box) > 0);

    /// <summary>The pages with the cues by which templates are recognised, of all templates of which all that must be there nearly is.</summary>
    /// <returns>Null if there is no such template, or no page in a picture.</returns>
    public static ImmutableArray<Page>? Recognisable(ImmutableArray<Page> pages, TemplateSet templates)
    {
        if (!pages.Any(page => page.IsRecognised))
            return null;
        ImmutableArray<Cue> cues = [.. templates.WithMust(must => must.All(cue => pages.Any(page => IsNearlyOn(page, cue)))).SelectMany(template => template.Recognise.Must.Concat(template.Recognise.MustNot))];
        return cues.IsEmpty ? null : [.. pages.Select(page => On(page, cues, _ => true))];
    }

    /// <summary>The page with cues written as they are spelt, each where one place alone resembles it most.</summary>
    private static Page On(Page page, ImmutableArray<Cue> cues, Func<Box, bool> isPossible)
    {
        if (!page.IsRecognised)
            return page;
        foreach (var cue in cues.Distinct())
        {
            if (!cue.IsOn(page) && !cue.StackedOn(page).Any() && Nearest(page, cue, cues, isPossible, Likeness.Allowed) is { } mended)
                page = mended;
        }
        return page;
    }

    /// <summary>Says that a cue, or what resembles it, stands on the page.</summary>
    public static bool IsNearlyOn(Page page, Cue cue) =>
        cue.IsOn(page) || (page.IsRecognised && Ways(page, cue, _ => true, Likeness.Allowed).Any());

    /// <summary>Where most of a list's headings stand, the others stand beside them: there they may have more letters wrong, and words that stand elsewhere as well.</summary>
    private static Page WithHeadings(Page page, Template template, Func<Box, bool> isPossible)
    {
        foreach (var columns in template.Blocks.Select(block => block.Columns))
        {
            if (HeadingFinder.Find(page, 0, columns) is not { } band || band.Missing.IsEmpty || band.Headings.Length < Math.Max(2, band.Missing.Length))
                continue;
            foreach (var heading in band.Missing.Select(column => column.Heading!))
            {
                page = Nearest(page, heading, template.Cues, Beside, sought => Math.Max(Likeness.Allowed(sought), Likeness.Letter * (sought.Length / 3))) ?? page;
            }

            bool Beside(Box place) => isPossible(place) && place.SharedHeight(band.Box) > 0 && band.Headings.All(other => other.Box.SharedWidth(place) == 0);
        }
        return page;
    }

    /// <param name="Cost">In half letters; 0 where it stands as it is spelt.</param>
    private sealed record Resemblance(int Line, int FirstWord, int LastWord, string Spelling, int Cost)
    {
        public bool Overlaps(Resemblance other) => Line == other.Line && FirstWord <= other.LastWord && other.FirstWord <= LastWord;
    }

    /// <summary>The page with the cue at the one place that resembles it most; null if none does, or two do.</summary>
    private static Page? Nearest(Page page, Cue cue, IEnumerable<Cue> cues, Func<Box, bool> isPossible, Func<string, int> allowed)
    {
        // What another cue says is that cue.
        var said = cues.Where(other => other != cue).SelectMany(other => other.Spellings).Select(Capitals).ToHashSet();
        var ways = Ways(page, cue, isPossible, allowed).Where(way => way.All(place => place.Cost == 0 || !said.Contains(TextOf(page, place)))).ToList();
        if (ways.Count == 0)
            return null;
        var least = ways.Min(Cost);
        var best = ways.FindAll(way => Cost(way) == least);
        // One place can be found as several runs of words; the shortest leaves the words beside it alone.
        if (least == 0 || !best.TrueForAll(way => way.Zip(best[0]).All(pair => pair.First.Overlaps(pair.Second))))
            return null;
        return best.MinBy(way => way.Sum(place => place.LastWord - place.FirstWord)).OrderByDescending(place => place.Line).Aggregate(page, Written);

        static int Cost(ImmutableArray<Resemblance> way) => way.Sum(place => place.Cost);
    }

    /// <summary>Ways in which the cue can stand on the page: on one line, or its first words over the others.</summary>
    private static IEnumerable<ImmutableArray<Resemblance>> Ways(Page page, Cue cue, Func<Box, bool> isPossible, Func<string, int> allowed)
    {
        foreach (var spelling in cue.Spellings)
        {
            foreach (var place in Places(page, spelling, isPossible, allowed))
                yield return [place];
            for (var blank = spelling.IndexOf(' ', StringComparison.Ordinal); blank >= 0; blank = spelling.IndexOf(' ', blank + 1))
            {
                var (over, under) = (spelling[..blank], spelling[(blank + 1)..]);
                var below = Places(page, under, isPossible, allowed).ToList();
                foreach (var top in below.Count == 0 ? [] : Places(page, over, isPossible, allowed))
                {
                    foreach (var bottom in below.Where(bottom => bottom.Line > top.Line && bottom.Line <= top.Line + StackedLines && bottom.Cost + top.Cost <= allowed(Capitals(spelling)) && cue.StackedOn(Written(Written(page, bottom), top)).Any()))
                        yield return [top, bottom];
                }
            }
        }
    }

    /// <summary>Whole words that resemble a spelling.</summary>
    private static IEnumerable<Resemblance> Places(Page page, string spelling, Func<Box, bool> isPossible, Func<string, int> allowed)
    {
        ImmutableArray<string> parts = [.. spelling.ToUpperInvariant().Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries)];
        var sought = string.Concat(parts);
        var most = allowed(sought);
        for (var line = 0; line < page.Lines.Length; line++)
        {
            var words = page.Lines[line].Words;
            var read = string.Concat(words.Select(word => word.Text)).ToUpperInvariant();
            // What two recognisers read alike is not misread.
            if (!NearText.CanHold(read, sought, words.All(IsSure) ? 0 : most))
                continue;
            foreach (var (start, end, cost) in NearText.Find(parts, read, allowed, most))
            {
                if (WordsFor(words, start, end) is var (first, last) && isPossible(words[first].Box.Union(words[last].Box)) && (cost == 0 || !words[first..(last + 1)].All(IsSure)))
                    yield return new Resemblance(line, first, last, spelling, cost);
            }
        }
    }

    /// <summary>The words that a run of letters is; null where it begins or ends within one, but for stops.</summary>
    private static (int First, int Last)? WordsFor(ImmutableArray<Word> words, int start, int end)
    {
        var at = 0;
        int? first = null;
        for (var index = 0; index < words.Length; index++)
        {
            var text = words[index].Text;
            if (first is null && start < at + text.Length)
            {
                if (text.AsSpan(0, start - at).ContainsAnyLetterOrDigit())
                    return null;
                first = index;
            }
            if (end <= at + text.Length)
                return text.AsSpan(end - at).ContainsAnyLetterOrDigit() ? null : (first!.Value, index);
            at += text.Length;
        }
        return null;
    }

    private static bool ContainsAnyLetterOrDigit(this ReadOnlySpan<char> text)
    {
        foreach (var letter in text)
        {
            if (char.IsLetterOrDigit(letter))
                return true;
        }
        return false;
    }

    /// <summary>The page with a spelling in the place of words.</summary>
    private static Page Written(Page page, Resemblance place)
    {
        if (place.Cost == 0)
            return page;
        var words = page.Lines[place.Line].Words[place.FirstWord..(place.LastWord + 1)];
        var before = string.Concat(words.Select(word => word.Text));
        return page.WithWord(words, SquashedText.Squash(place.Spelling) + Stop(before), before);
    }

    /// <summary>A colon or a point after a caption stays: it says that it is one.</summary>
    private static string Stop(string text) => text[^1] is ':' or '.' or '#' && text.Length > 1 ? text[^1..] : "";

    private static string TextOf(Page page, Resemblance place) =>
        Capitals(string.Concat(page.Lines[place.Line].Words[place.FirstWord..(place.LastWord + 1)].Select(word => word.Text)).TrimEnd(':', '.', '#'));

    private static bool IsSure(Word word) => word.Reading?.IsSure == true;

    private static string Capitals(string text) => SquashedText.Squash(text).ToUpperInvariant();

    /// <summary>Captions that resemble a cue, but not enough to be taken for it: what stands beside them may be lost, or another value taken in its place.</summary>
    public static IEnumerable<Finding> Suspected(ImmutableArray<Page> pages, CapturedInvoice captured)
    {
        var taken = captured.AllValues.SelectMany(one => one.Value.Trace.Places).ToLookup(place => place.Page, place => place.Box);
        foreach (var unmatched in Unmatched(pages, captured))
            yield return unmatched;
        var named = Named(captured.Template).ToList();
        foreach (var page in pages.Where(page => page.IsRecognised))
        {
            var told = new HashSet<string>();
            var printed = captured.Template.Cues.SelectMany(cue => cue.PlacesOn(page)).ToList();
            foreach (var (about, cue) in named)
            {
                var place = cue.Spellings.SelectMany(spelling => Places(page, spelling, box => !taken[page.Number].Any(value => value.HoldsCenterOf(page.AsSeen(box))), Likeness.Suspected))
                    .FirstOrDefault(place => place.Cost > 0 && !page.Lines[place.Line].Words[place.FirstWord..(place.LastWord + 1)].All(IsSure) && !printed.Exists(other => other.Line == place.Line && other.FirstWord <= place.LastWord && place.FirstWord <= other.LastWord));
                if (place is null)
                {
                    // "Deadline" without its colon, or a date with a wrong letter: the cue is there, and nothing beside it that could be taken.
                    if (captured.Template.Fields.Any(rule => rule.Name == about) && captured.Find(about) is null && cue.PlacesOn(page).Any(there => MayHaveValue(page, there)) && told.Add(about))
                        yield return Finding.Hold(Code, $"{ValueNames.SpokenFirst(about)}: “{cue.Spellings[0]}” stands on page {page.Number}, and nothing was captured for it. Look at the print and enter what it says, or accept this if there is nothing.", about);
                    continue;
                }
                if (!told.Add(about))
                    continue;
                var read = TextLine.TextOf(page.Lines[place.Line].Words.AsSpan()[place.FirstWord..(place.LastWord + 1)]);
                yield return Finding.Hold(Code, captured.Find(about) is { } value
                    ? $"{ValueNames.SpokenFirst(about)}: “{read}” on page {page.Number} may be a misread “{place.Spelling}”, and the value was taken from elsewhere: {ReadingDoubt.Shown(value, captured.Template.Reads.Currency)}. Look at the print and enter what it says, or accept this if that is right."
                    : $"{ValueNames.SpokenFirst(about)}: “{read}” on page {page.Number} may be a misread “{place.Spelling}”, so what belongs to it may not have been captured. Look at the print and enter what it says, or accept this if nothing is missing.", about);
            }
        }
    }

    /// <summary>Says that figures stand where the value of a cue would: in a sentence that mentions a delivery there is none behind it.</summary>
    private static bool MayHaveValue(Page page, CuePlace there)
    {
        var line = page.Lines[there.Line];
        if (line.Words.All(IsSure))
            return false;
        var cue = Box.Around(line.Words[there.FirstWord..(there.LastWord + 1)].Select(word => word.Box));
        var place = new Box(cue.Left - cue.Height, cue.Top - (0.3 * cue.Height), page.Width, cue.Bottom + (3 * cue.Height));
        return page.Unread.Any(place.HoldsCenterOf)
            || page.Words.Any(word => place.HoldsCenterOf(word.Box) && (word.Box.Left > cue.Right || word.Box.Top > cue.CenterY) && (HasFigure(word.Text) || word.Reading?.Others.Any(HasFigure) == true));
    }

    private static bool HasFigure(string text) => text.Any(char.IsAsciiDigit);

    /// <summary>What is found by a pattern alone and was not: one misread letter is enough, and nothing says where it would stand.</summary>
    private static IEnumerable<Finding> Unmatched(ImmutableArray<Page> pages, CapturedInvoice captured) =>
        from rule in captured.Template.Fields
        where rule.Where.OfType<Matching>().Any() && captured.Find(rule.Name) is null && pages.Any(page => page.IsRecognised && !page.Words.All(IsSure))
        select Finding.Hold(Code, $"{ValueNames.SpokenFirst(rule.Name)}: nothing on this scan fits the pattern that it is found by, which one misread letter does as well. Look at the print and enter what it says, or accept this if there is nothing.", rule.Name);

    public const string Code = "cue-doubtful";

    /// <summary>What is looked for by which cues.</summary>
    private static IEnumerable<(string About, Cue Cue)> Named(Template template) =>
        template.Fields.SelectMany(rule => rule.Where.OfType<ByCue>().Select(where => (rule.Name, where.Cue)))
            .Concat(template.Blocks.SelectMany(block => block.Closes.Concat(new[] { block.Opens }.Concat(block.Columns.Select(column => column.Heading)).OfType<Cue>()).Select(cue => (block.List, cue))));
}
