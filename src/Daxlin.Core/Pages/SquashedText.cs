using System.Collections.Immutable;
using System.Text;

namespace Daxlin.Core.Pages;

/// <summary>
/// The text of a line with its blanks left out, and the way back to its words.
/// </summary>
/// <remarks>
/// Producers space captions out letter by letter, type blanks into titles and draw no-break or thin blanks; a cue is
/// compared without any of them, so "Invoice no" is found in "I N V O I C E  N O" and in "InvoiceNo" alike.
/// </remarks>
public sealed class SquashedText
{
    private readonly ImmutableArray<Word> words;
    private readonly int[] wordOf;
    private readonly int[] charOf;

    private SquashedText(ImmutableArray<Word> words, string text, int[] wordOf, int[] charOf)
    {
        this.words = words;
        Text = text;
        this.wordOf = wordOf;
        this.charOf = charOf;
    }

    public string Text { get; }

    public static SquashedText Of(ImmutableArray<Word> words)
    {
        var text = new StringBuilder();
        var wordOf = new List<int>();
        var charOf = new List<int>();
        for (var word = 0; word < words.Length; word++)
        {
            for (var index = 0; index < words[word].Text.Length; index++)
            {
                if (char.IsWhiteSpace(words[word].Text[index]))
                    continue;
                text.Append(words[word].Text[index]);
                wordOf.Add(word);
                charOf.Add(index);
            }
        }
        return new(words, text.ToString(), [.. wordOf], [.. charOf]);
    }

    /// <summary>Leaves every blank out of a cue's text.</summary>
    public static string Squash(string text) => string.Concat(text.Where(c => !char.IsWhiteSpace(c)));

    /// <summary>All places where <paramref name="squashedCue"/> stands as whole words.</summary>
    public IEnumerable<CuePlace> Find(string squashedCue, bool exactCase)
    {
        if (squashedCue.Length == 0)
            yield break;
        var comparison = exactCase ? StringComparison.Ordinal : StringComparison.OrdinalIgnoreCase;
        for (var at = Text.IndexOf(squashedCue, comparison); at >= 0; at = Text.IndexOf(squashedCue, at + 1, comparison))
        {
            var end = at + squashedCue.Length;
            if (StartsWord(at) && EndsWord(end))
                yield return PlaceOf(at, end);
        }
    }

    private bool StartsWord(int at) =>
        at == 0 || charOf[at] == 0 || !(char.IsLetterOrDigit(Text[at]) && char.IsLetterOrDigit(Text[at - 1]));

    private bool EndsWord(int end) =>
        end == Text.Length || charOf[end] == 0 || !(char.IsLetterOrDigit(Text[end]) && char.IsLetterOrDigit(Text[end - 1]));

    private CuePlace PlaceOf(int at, int end)
    {
        var (first, last) = (wordOf[at], wordOf[end - 1]);
        var box = words[first].BoxOf(charOf[at], first == last ? charOf[end - 1] - charOf[at] + 1 : words[first].Text.Length - charOf[at]);
        for (var word = first + 1; word < last; word++)
            box = box.Union(words[word].Box);
        if (last > first)
            box = box.Union(words[last].BoxOf(0, charOf[end - 1] + 1));
        return new CuePlace(box, first, charOf[at], last, charOf[end - 1] + 1);
    }
}
