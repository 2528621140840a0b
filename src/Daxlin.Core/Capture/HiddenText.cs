using System.Globalization;
using Daxlin.Core.Checks;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;

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
    /// <param name="template">The one that it is captured by; null for none.</param>
    public static IEnumerable<Finding> Of(IEnumerable<Page> pages, Template? template)
    {
        foreach (var page in pages.Where(page => !page.Unseen.IsEmpty))
        {
            if (template is not null && HiddenCues(page, template) is { Count: > 0 } cues)
                yield return Finding.Hold(Code, string.Create(CultureInfo.InvariantCulture, $"Page {page.Number} holds words that the template steers by where nobody sees them: {Named(cues)}. Nothing was captured by them."), "pages");

            foreach (var alike in page.Unseen.Where(word => (word.Text + word.Drawn).Any(char.IsDigit) && !IsPageNumber(word, page)).GroupBy(word => word.Why))
                yield return alike.Key == UnseenBy.Claimed ? Claimed(page, alike.First(), alike.Count() - 1) : Hidden(page, alike.Key, [.. alike.Select(word => word.Text).Distinct()]);
        }
    }

    /// <summary>What the template steers by and nobody sees; what is drawn there as well, as a shadow under its letters is, is no other text.</summary>
    private static List<string> HiddenCues(Page page, Template template)
    {
        var unseen = new Page(page.Number, page.Width, page.Height, [.. page.Unseen.Where(word => word.Why is not (UnseenBy.Untold or UnseenBy.Claimed) && word.Text.Length > 0).Select(AsWord)], []);
        return [.. template.Cues.Where(cue => cue.PlacesOn(unseen).Any(hidden => !cue.PlacesOn(page).Any(seen => IsShadow(hidden.Box, seen.Box)))).Select(cue => cue.Spellings[0]).Distinct()];
    }

    private static bool IsShadow(Box hidden, Box seen) => hidden.SharedWidth(seen) > hidden.Width / 2 && Math.Abs(hidden.CenterY - seen.CenterY) < hidden.Height / 2;

    private static Word AsWord(UnseenWord word)
    {
        var letter = word.Box.Width / word.Text.Length;
        double[] stops = [.. Enumerable.Range(1, word.Text.Length).Select(at => word.Box.Left + (at * letter))];
        return new Word(word.Text, word.Box, word.Box.Bottom, word.Box.Height, stops, Turn.Upright);
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

    /// <summary>Words as a sentence names them: the first, and how many more there are.</summary>
    internal static string Named(List<string> texts) => string.Join(", ", texts.Take(MostNamed).Select(text => $"“{text}”"))
        + (texts.Count > MostNamed ? string.Create(CultureInfo.InvariantCulture, $" and {texts.Count - MostNamed} more") : "");

    private static Finding Claimed(Page page, UnseenWord word, int more) => Finding.Hold(
        Code, string.Create(CultureInfo.InvariantCulture, $"Page {page.Number} draws “{word.Drawn}” and claims that it is “{word.Text}”{(more > 0 ? $", and {more} more like it" : "")}. What is drawn was captured."), "pages");
}
