using System.Collections.Immutable;
using Daxlin.Core.Pages;
using Daxlin.Core.Values;

namespace Daxlin.Core.Drafting;

/// <summary>The headings of a table, from left to right; of records with two printed lines, line by line.</summary>
internal sealed record Headings(Page Page, ImmutableArray<Heading> All, Box Box)
{
    /// <summary>Lines of one heading are no further apart than so many times their size, from baseline to baseline.</summary>
    private const double Leading = 1.5;

    /// <summary>The best headings on the pages: those with the most known captions, the first of several.</summary>
    /// <param name="isTable">Whether captions make a table.</param>
    public static Headings? Find(IEnumerable<Page> pages, Vocabulary vocabulary, Func<ImmutableArray<Heading>, bool> isTable)
    {
        var best = (Count: 0, Headings: (Headings?)null);
        foreach (var page in pages)
        {
            for (var index = 0; index < page.Lines.Length; index++)
            {
                if (HasFigures(page.Lines[index]) || PartsOf(page.Lines[index], vocabulary).Count(part => !part.Meanings.IsEmpty) < 2)
                    continue;
                var headings = WithNeighbours(page, index, vocabulary);
                var known = headings.All.Count(part => !part.Meanings.IsEmpty);
                if (known > best.Count && isTable(headings.All))
                    best = (known, headings);
            }
        }
        return best.Headings;
    }

    /// <summary>All such lines of headings, for tables that are told by other things than their number of captions.</summary>
    public static IEnumerable<Headings> FindAll(IEnumerable<Page> pages, Vocabulary vocabulary, Func<ImmutableArray<Heading>, bool> isTable) =>
        from page in pages
        from line in page.Lines
        where !HasFigures(line) || vocabulary == Vocabulary.TaxTable
        let parts = PartsOf(line, vocabulary)
        where isTable(parts)
        select new Headings(page, parts, line.Box);

    /// <summary>
    /// The headings of rows that are told by their figures alone: where quantity × unit price = amount on line after line,
    /// the cells above them, whatever they are called.
    /// </summary>
    public static Headings? FindByFigures(IEnumerable<Page> pages, Vocabulary vocabulary, Habits reads)
    {
        foreach (var page in pages)
        {
            var first = Enumerable.Range(0, page.Lines.Length).FirstOrDefault(index => MultipliesOut(page.Lines[index], reads), -1);
            if (first < 0 || page.Lines.Count(line => MultipliesOut(line, reads)) < LeastRows)
                continue;
            for (var index = first - 1; index >= 0 && index >= first - FarthestAbove; index--)
            {
                if (!HasFigures(page.Lines[index]) && page.Lines[index].Cells.Length >= 3)
                    return WithNeighbours(page, index, vocabulary);
            }
        }
        return null;
    }

    /// <summary>One line whose figures multiply out may do so by chance.</summary>
    private const int LeastRows = 2;

    /// <summary>Wrapped text may stand between the headings and the first figures.</summary>
    private const int FarthestAbove = 4;

    private static bool MultipliesOut(TextLine line, Habits reads)
    {
        var figures = line.Cells.Select(cell => Figures.Read(cell.Text, reads)?.Number).OfType<decimal>().Where(figure => figure != 0 && figure != 1).ToList();
        for (var a = 0; a < figures.Count; a++)
        {
            for (var b = a + 1; b < figures.Count; b++)
            {
                // The amount stands behind its factors.
                if (figures.Skip(b + 1).Any(amount => Math.Abs((figures[a] * figures[b]) - amount) <= reads.Currency.MinorUnit / 2))
                    return true;
            }
        }
        return false;
    }

    /// <summary>The headings on a line that a person points at, with what belongs to them on the lines above and below.</summary>
    public static Headings At(Page page, TextLine line, Vocabulary vocabulary) => WithNeighbours(page, page.Lines.IndexOf(line), vocabulary);

    private static Headings WithNeighbours(Page page, int index, Vocabulary vocabulary)
    {
        var main = page.Lines[index];
        var size = main.Words[0].Size;
        var parts = PartsOf(main, vocabulary).ToList();
        var box = main.Box;
        var second = new List<Heading>();
        for (var step = -1; step <= 1; step += 2)
        {
            var last = main;
            for (var at = index + step; at >= 0 && at < page.Lines.Length && Math.Abs(page.Lines[at].Words[0].Baseline - last.Words[0].Baseline) <= Leading * size; at += step)
            {
                var line = page.Lines[at];
                if (HasFigures(line) || line.Text.All(c => !char.IsLetter(c) && c is not '%' and not '€' and not '£' and not '$'))
                    break;
                var others = PartsOf(line, vocabulary);
                // A heading of its own under another one: each record has two printed lines.
                var isSecond = step > 0 && others.Any(part => IsOwn(part, parts, vocabulary, step));
                foreach (var part in others)
                {
                    var over = parts.FindIndex(own => own.Box.SharedWidth(part.Box) > 0);
                    if (isSecond)
                        second.Add(part);
                    else if (over < 0 || IsOwn(part, parts, vocabulary, step))
                        parts.Add(part);
                    else
                        parts[over] = Joined(part, parts[over], vocabulary, step);
                }
                box = box.Union(line.Box);
                last = line;
            }
        }
        return new Headings(page, [.. parts.OrderBy(part => part.Box.Left), .. second.OrderBy(part => part.Box.Left)], box);
    }

    /// <summary>Says that a part of a neighbouring line is a heading by itself, and not more of the one it shares width with.</summary>
    private static bool IsOwn(Heading part, List<Heading> parts, Vocabulary vocabulary, int step) =>
        parts.Find(own => own.Box.SharedWidth(part.Box) > 0) is { } over && !part.Meanings.IsEmpty && !over.Meanings.IsEmpty
        && vocabulary.MeaningsOf(TextOf(part, over, step)).IsEmpty && !part.Meanings.Share(over.Meanings);

    private static Heading Joined(Heading part, Heading over, Vocabulary vocabulary, int step)
    {
        var text = TextOf(part, over, step);
        var joined = vocabulary.MeaningsOf(text);
        return new Heading(text, !joined.IsEmpty ? joined : over.Meanings.IsEmpty ? part.Meanings : over.Meanings, over.Box.Union(part.Box));
    }

    private static string TextOf(Heading part, Heading over, int step) => step < 0 ? part.Text + " " + over.Text : over.Text + " " + part.Text;

    /// <summary>The line's headings: known captions, and what else stands in cells of its own.</summary>
    private static ImmutableArray<Heading> PartsOf(TextLine line, Vocabulary vocabulary)
    {
        var captions = vocabulary.On(line);
        var parts = ImmutableArray.CreateBuilder<Heading>();
        var (start, meanings) = (0, Meanings.None);
        void Close(int end)
        {
            if (end > start)
            {
                var words = line.Words.AsSpan()[start..end];
                var known = captions.FirstOrDefault(caption => caption.FirstWord == start && caption.Words == end - start);
                parts.Add(new Heading(known?.Text ?? TextLine.TextOf(words), meanings, words[0].Box.Union(words[^1].Box)));
            }
            (start, meanings) = (end, Meanings.None);
        }
        for (var word = 0; word < line.Words.Length; word++)
        {
            var caption = captions.FirstOrDefault(caption => caption.FirstWord == word);
            // A known caption begins a heading, unless words before it in its cell belong to it: "Delivered quantity".
            if (word > start && !IsMarkOf(line.Words[word - 1], line.Words[word]) && (TextLine.IsCellGap(line.Words[word - 1], line.Words[word]) || (caption is not null && !meanings.IsEmpty)))
                Close(word);
            if (caption is null)
                continue;
            meanings = meanings.IsEmpty ? caption.Meanings : meanings;
            word += caption.Words - 1;
        }
        Close(line.Words.Length);
        return parts.ToImmutable();
    }

    /// <summary>A currency's mark close behind a heading belongs to it: "Betrag EUR".</summary>
    private static bool IsMarkOf(Word heading, Word word) =>
        Currency.IsMark(word.Text) && word.Box.Left - heading.Box.Right < 1.5 * word.Size;

    private static bool HasFigures(TextLine line) => line.Words.Any(word => word.Text.Any(char.IsAsciiDigit) && word.Text is not ("100" or "1000"));
}
