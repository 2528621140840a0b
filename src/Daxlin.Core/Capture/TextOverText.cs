using System.Globalization;
using Daxlin.Core.Checks;
using Daxlin.Core.Pages;

namespace Daxlin.Core.Capture;

/// <summary>Tells of figures that are drawn over other figures, so that nobody can tell what they say.</summary>
/// <remarks>
/// They are read as they lie: "10.00" with "90.00" over it is 190.00. What is drawn twice to look bold or raised is one word, and a figure on
/// the line of a form ("____") lies over nothing that says anything.
/// </remarks>
internal static class TextOverText
{
    public const string Code = "text-over-text";

    /// <summary>Lines closer than this part of their type's size cannot be read.</summary>
    private const double Closest = 0.5;

    /// <summary>Words that share more than this part of the narrower one's width lie over each other.</summary>
    private const double MostShared = 0.5;

    /// <param name="pages">Those of one invoice.</param>
    public static IEnumerable<Finding> Of(IEnumerable<Page> pages)
    {
        foreach (var page in pages)
        {
            if (On(page) is { Count: > 0 } words)
            {
                yield return Finding.Hold(Code, string.Create(
                    CultureInfo.InvariantCulture, $"Page {page.Number} draws text over text, so that nobody can tell what it says: {HiddenText.Named(words)}. It was read as it lies; look at the page."), "pages");
            }
        }
    }

    private static List<string> On(Page page)
    {
        var over = new List<string>();
        var words = page.Words;
        for (var index = 0; index < words.Length; index++)
        {
            var word = words[index];
            if (!word.Text.Any(char.IsDigit))
                continue;
            if (word.IsOverprinted)
                over.Add(word.Text);
            // Turned words share their widths with all of their line.
            if (word.Turn != Turn.Upright)
                continue;
            // Words stand from top to bottom, so that what lies over one is soon found.
            for (var next = index + 1; next < words.Length && words[next].Turn == Turn.Upright && words[next].Baseline - word.Baseline < Closest * word.Size; next++)
            {
                if (LiesOver(words[next], word))
                    over.AddRange([word.Text, words[next].Text]);
            }
        }
        return [.. over.Distinct()];
    }

    private static bool LiesOver(Word word, Word other) =>
        word.Text != other.Text && word.Text.Any(char.IsDigit) && word.Box.SharedWidth(other.Box) > MostShared * Math.Min(word.Box.Width, other.Box.Width)
        && Math.Abs(word.Baseline - other.Baseline) < Closest * Math.Min(word.Size, other.Size);
}
