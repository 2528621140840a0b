using System.Collections.Immutable;

namespace Daxlin.Core.Pages;

/// <summary>
/// The text of a page's lines with its blanks left out, to find cues in, and the way back to the words.
/// </summary>
/// <remarks>
/// Producers space captions out letter by letter, type blanks into titles and draw no-break or thin blanks; a cue is
/// compared without any of them, so "Invoice no" is found in "I N V O I C E  N O" and in "InvoiceNo" alike. All lines
/// stand in one text, parted by line feeds, since one search of a page is far quicker than one of each line.
/// </remarks>
public sealed class SquashedText
{
    private readonly ImmutableArray<TextLine> lines;
    private readonly string text;
    private readonly int[] starts;
    private string? capitals;

    public SquashedText(ImmutableArray<TextLine> lines)
    {
        this.lines = lines;
        starts = new int[lines.Length];
        var length = 0;
        for (var line = 0; line < lines.Length; line++)
        {
            starts[line] = length;
            foreach (var word in lines[line].Words)
                length += word.Text.Length;
            length++;
        }
        text = string.Create(length, lines, static (span, all) =>
        {
            var at = 0;
            foreach (var line in all)
            {
                foreach (var word in line.Words)
                {
                    word.Text.CopyTo(span[at..]);
                    at += word.Text.Length;
                }
                span[at++] = '\n';
            }
        });
    }

    /// <summary>The text of all lines without blanks, in capitals, each line ended by a line feed.</summary>
    public string Capitals => capitals ??= text.ToUpperInvariant();

    /// <summary>Leaves every blank out of a cue's text.</summary>
    public static string Squash(string text) => string.Concat(text.Where(c => !char.IsWhiteSpace(c)));

    /// <summary>Adds all places where a squashed cue stands, as whole words unless <paramref name="withinWords"/>.</summary>
    /// <param name="cue">Without blanks; in capitals unless <paramref name="exactCase"/>.</param>
    public void Find(string cue, bool exactCase, bool withinWords, List<CuePlace> places)
    {
        foreach (var place in Places(cue, exactCase, withinWords))
            places.Add(place);
    }

    /// <summary>Says that a squashed cue stands in the text.</summary>
    public bool Has(string cue, bool exactCase, bool withinWords)
    {
        foreach (var _ in Places(cue, exactCase, withinWords))
            return true;
        return false;
    }

    private IEnumerable<CuePlace> Places(string cue, bool exactCase, bool withinWords)
    {
        if (cue.Length == 0)
            yield break;
        var searched = exactCase ? text : Capitals;
        for (var at = searched.IndexOf(cue, StringComparison.Ordinal); at >= 0; at = searched.IndexOf(cue, at + 1, StringComparison.Ordinal))
        {
            var line = Array.BinarySearch(starts, at);
            line = line < 0 ? ~line - 1 : line;
            var (first, firstChar) = WordAt(lines[line], at - starts[line]);
            var (last, lastChar) = WordAt(lines[line], at + cue.Length - 1 - starts[line]);
            if (withinWords || (StartsWord(at, firstChar) && EndsWord(at + cue.Length, lines[line].Words[last], lastChar + 1)))
                yield return new CuePlace(line, BoxOf(lines[line], first, firstChar, last, lastChar), first, firstChar, last, lastChar + 1);
        }
    }

    private bool StartsWord(int at, int firstChar) =>
        firstChar == 0 || !(char.IsLetterOrDigit(text[at]) && char.IsLetterOrDigit(text[at - 1]));

    private bool EndsWord(int end, Word word, int endChar) =>
        endChar == word.Text.Length || !(char.IsLetterOrDigit(text[end]) && char.IsLetterOrDigit(text[end - 1]));

    private static (int Word, int Char) WordAt(TextLine line, int at)
    {
        var word = 0;
        while (at >= line.Words[word].Text.Length)
            at -= line.Words[word++].Text.Length;
        return (word, at);
    }

    private static Box BoxOf(TextLine line, int first, int firstChar, int last, int lastChar)
    {
        if (first == last)
            return line.Words[first].BoxOf(firstChar, lastChar - firstChar + 1);
        var box = line.Words[first].BoxOf(firstChar, line.Words[first].Text.Length - firstChar);
        for (var word = first + 1; word < last; word++)
            box = box.Union(line.Words[word].Box);
        return box.Union(line.Words[last].BoxOf(0, lastChar + 1));
    }
}
