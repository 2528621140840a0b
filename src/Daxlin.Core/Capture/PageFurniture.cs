using System.Collections.Immutable;
using Daxlin.Core.Pages;

namespace Daxlin.Core.Capture;

/// <summary>Page heads and feet: what stands at the same place on another page too, with nothing else between it and the page's edge.</summary>
/// <remarks>
/// Figures may differ ("Page 1 of 3"). A line is furniture as a whole; where it shares its height with something else on
/// one of the pages, its words there are furniture and the rest of that line is not: "Wexholme Plant Hire" at the foot of
/// page 1, and beside the sum at the foot of page 2. Heads and feet are told apart, since a row right below repeated
/// headings may well repeat itself: 2 m of canvas first on two pages.
/// </remarks>
public sealed class PageFurniture
{
    /// <summary>Producers place a foot by the same arithmetic on each page; lines of a table move with their rows.</summary>
    private const double SameHeight = 2.5;
    private const double SamePlace = 0.6;

    /// <summary>What is set further off than this part of the type's size is set apart, from bottom to top.</summary>
    private const double Apart = 1.5;

    private readonly ILookup<string, TextLine> lines;
    private readonly ImmutableArray<Page> pages;
    private readonly HashSet<TextLine> heads = [];
    private readonly HashSet<TextLine> feet = [];
    private readonly HashSet<Word> headWords = new(ReferenceEqualityComparer.Instance);
    private readonly HashSet<Word> footWords = new(ReferenceEqualityComparer.Instance);

    private PageFurniture(ImmutableArray<Page> pages)
    {
        this.pages = pages;
        // By their text with figures made alike, so that "Page 1 of 3" finds "Page 2 of 3" at once on 100 pages.
        lines = pages.SelectMany(page => page.Lines).ToLookup(line => Key(line.Text), StringComparer.Ordinal);
        foreach (var page in pages)
        {
            heads.UnionWith(EdgeOf([.. page.Lines]));
            feet.UnionWith(EdgeOf([.. page.Lines.Reverse()]));
        }
        foreach (var line in heads)
            TakeDownWords(line, headWords);
        foreach (var line in feet)
            TakeDownWords(line, footWords);
    }

    public static PageFurniture Of(ImmutableArray<Page> pages) => new(pages.Length < 2 ? [] : pages);

    /// <summary>Says that a line belongs to the head that its page shares with another.</summary>
    public bool IsHead(TextLine line) => heads.Contains(line);

    /// <summary>Says that a line belongs to the foot that its page shares with another.</summary>
    public bool IsFoot(TextLine line) => feet.Contains(line);

    /// <summary>Parts a line into what is its own and what is furniture; either may be empty.</summary>
    /// <param name="mayBeHead">Says that the line can belong to a page's head; below repeated headings it cannot.</param>
    public (TextLine? Own, TextLine? Furniture) Part(TextLine line, bool mayBeHead)
    {
        bool IsShared(Word word) => footWords.Contains(word) || (mayBeHead && headWords.Contains(word));
        if ((footWords.Count == 0 && headWords.Count == 0) || !line.Words.Any(IsShared) || IsHead(line) || IsFoot(line))
            return (line, null);
        ImmutableArray<Word> own = [.. line.Words.Where(word => !IsShared(word))];
        ImmutableArray<Word> shared = [.. line.Words.Where(IsShared)];
        return (own.IsEmpty ? null : new TextLine(line.Page, own), new TextLine(line.Page, shared));
    }

    /// <summary>The furniture among a page's lines, from one of its edges inwards.</summary>
    private List<TextLine> EdgeOf(List<TextLine> lines)
    {
        var edge = lines.TakeWhile(Repeats).ToList();
        // A wrapped line at a page's foot may stand where a row of another page has the same word: furniture stands apart.
        while (edge.Count > 0 && edge.Count < lines.Count && !RepeatsWhole(edge[^1]) && GapBetween(edge[^1], lines[edge.Count]) < Apart * edge[^1].Words[0].Size)
            edge.RemoveAt(edge.Count - 1);
        return edge;
    }

    private static double GapBetween(TextLine one, TextLine other) =>
        Math.Max(one.Box.Top - other.Box.Bottom, other.Box.Top - one.Box.Bottom);

    /// <summary>Says that the same words stand at the same height of another page, wherever on it that is.</summary>
    public bool Repeats(TextLine line) => RepeatsWhole(line) || Within(line).Any();

    /// <summary>Says that one of the given lines, on another page, has all of a line at its place, and something else beside it.</summary>
    public bool IsPartOf(TextLine line, IReadOnlySet<TextLine> others) => others.Count > 0 && Within(line).Any(others.Contains);

    private bool RepeatsWhole(TextLine line) =>
        lines[Key(line.Text)].Any(other => other.Page != line.Page && Math.Abs(other.Box.Top - line.Box.Top) <= SameHeight);

    /// <summary>Says that another page has the same words at the very same place, alone on their line or not.</summary>
    public bool StandsElsewhere(TextLine line) => lines[Key(line.Text)].Any(other => other.Page != line.Page && IsSame(line.Cells[0], other.Cells[0]))
        || Within(line).Any();

    /// <summary>Lines of other pages that hold all of a line, at its place, and something else beside it.</summary>
    private IEnumerable<TextLine> Within(TextLine line)
    {
        foreach (var page in pages)
        {
            if (page.Number == line.Page)
                continue;
            for (var index = FirstAt(page.Lines, line.Words[0].Baseline); index < page.Lines.Length; index++)
            {
                var other = page.Lines[index];
                if (other.Words[0].Baseline > line.Words[0].Baseline + NearLine)
                    break;
                if (other.Cells.Length > line.Cells.Length && line.Cells.All(cell => other.Cells.Any(twin => IsSame(cell, twin))))
                    yield return other;
            }
        }
    }

    /// <summary>Words of one line stand no further than this from its first one's baseline, in points; the places themselves are compared after.</summary>
    private const double NearLine = 6;

    /// <summary>Index of the first line that may hold words on a baseline; lines stand from top to bottom.</summary>
    private static int FirstAt(ImmutableArray<TextLine> lines, double baseline)
    {
        var (low, high) = (0, lines.Length);
        while (low < high)
        {
            var middle = (low + high) / 2;
            if (lines[middle].Words[0].Baseline < baseline - NearLine)
                low = middle + 1;
            else
                high = middle;
        }
        return low;
    }

    private void TakeDownWords(TextLine line, HashSet<Word> words)
    {
        foreach (var other in Within(line))
        {
            foreach (var twin in other.Cells.Where(twin => line.Cells.Any(cell => IsSame(cell, twin))))
            {
                foreach (var word in twin.Words)
                    words.Add(word);
            }
        }
    }

    private static bool IsSame(Cell cell, Cell twin) =>
        Math.Abs(cell.Box.Top - twin.Box.Top) <= SamePlace && Math.Abs(cell.Box.Left - twin.Box.Left) <= SamePlace && Key(cell.Text) == Key(twin.Text);

    private static string Key(string text) => string.Create(text.Length, text, static (key, text) =>
    {
        for (var at = 0; at < key.Length; at++)
            key[at] = char.IsAsciiDigit(text[at]) ? '0' : text[at];
    });
}
