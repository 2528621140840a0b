using System.Globalization;
using Daxlin.Core.Checks;
using Daxlin.Core.Pages;

namespace Daxlin.Core.Capture;

/// <summary>Tells of figures and cues that a file holds where no person sees them.</summary>
/// <remarks>
/// Nothing is captured from unseen text. But a file that hides figures is to be looked at: one program reads another invoice in it than a
/// person does. Unseen words without figures that the template does not steer by are left alone: producers leave marks for themselves.
/// </remarks>
/// <example>Page 1 holds figures that nobody sees, covered by what is drawn over them: “16,489.22”, “19,787.06”. Nothing of it was captured.</example>
internal static class HiddenText
{
    public const string Code = "hidden-text";

    /// <summary>Words named in a sentence; more are counted.</summary>
    private const int MostNamed = 6;

    /// <param name="pages">Those of one invoice.</param>
    public static IEnumerable<Finding> Of(IEnumerable<Page> pages)
    {
        foreach (var page in pages)
        {
            foreach (var alike in page.Unseen.Where(word => (word.Text + word.Drawn).Any(char.IsDigit) && !IsPageNumber(word, page)).GroupBy(word => word.Why))
                yield return alike.Key == UnseenBy.Claimed ? Claimed(page, alike.First(), alike.Count() - 1) : Hidden(page, alike.Key, [.. alike.Select(word => word.Text).Distinct()]);
            if (Overprinted(page) is { Count: > 0 } over)
                yield return Finding.Hold(Code, string.Create(CultureInfo.InvariantCulture, $"Page {page.Number} draws text over text, so that nobody can tell what it says: {Named(over)}. It was read as it lies; look at the page."), "pages");
        }
    }

    /// <summary>Typesetting programs leave the number of a page beside it where its foot is cut off.</summary>
    private static bool IsPageNumber(UnseenWord word, Page page) => word.Text == page.Number.ToString(CultureInfo.InvariantCulture);

    private static Finding Hidden(Page page, UnseenBy why, List<string> texts)
    {
        var named = Named(texts);
        var told = why == UnseenBy.Untold
            ? $"of which nobody can tell whether it is seen: {named}. Over or under it lies something whose mask or colours are not read. It was read as if it were seen; look at the page."
            : $"that nobody sees, {UnseenWord.Says(why)}: {named}. Nothing of it was captured.";
        return Finding.Hold(Code, string.Create(CultureInfo.InvariantCulture, $"Page {page.Number} holds text {told}"), "pages");
    }

    private static string Named(List<string> texts) => string.Join(", ", texts.Take(MostNamed).Select(text => $"“{text}”"))
        + (texts.Count > MostNamed ? string.Create(CultureInfo.InvariantCulture, $" and {texts.Count - MostNamed} more") : "");

    /// <summary>Lines closer than this part of their type's size cannot be read.</summary>
    private const double Closest = 0.5;

    /// <summary>Words that share more than this part of the narrower one's width lie over each other.</summary>
    private const double MostShared = 0.5;

    /// <summary>Words with figures that are drawn over each other, on one baseline or a little apart; not those that are drawn twice to look bold or raised.</summary>
    private static List<string> Overprinted(Page page)
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
                var other = words[next];
                if (other.Text != word.Text && word.Box.SharedWidth(other.Box) > MostShared * Math.Min(word.Box.Width, other.Box.Width) && other.Text.Any(char.IsDigit)
                    && Math.Abs(other.Baseline - word.Baseline) < Closest * Math.Min(word.Size, other.Size))
                    over.AddRange([word.Text, other.Text]);
            }
        }
        return [.. over.Distinct()];
    }

    private static Finding Claimed(Page page, UnseenWord word, int more) => Finding.Hold(
        Code, string.Create(CultureInfo.InvariantCulture, $"Page {page.Number} draws “{word.Drawn}” and claims that it is “{word.Text}”{(more > 0 ? $", and {more} more like it" : "")}. What is drawn was captured."), "pages");
}
