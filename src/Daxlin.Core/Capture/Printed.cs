using System.Collections.Immutable;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Capture;

/// <summary>A piece of printed text that may become a value.</summary>
/// <param name="Text">As printed, lines and words joined by one blank.</param>
public sealed record Printed(string Text, ImmutableArray<PlaceOnPage> Places)
{
    public static Printed Of(int page, ReadOnlySpan<Word> words)
    {
        if (words.IsEmpty)
            return new Printed("", []);
        var box = words[0].Box;
        foreach (var word in words[1..])
            box = box.Union(word.Box);
        return new Printed(TextOf(words), [new PlaceOnPage(page, box)]);
    }

    /// <summary>The words' text with one blank between each two.</summary>
    public static string TextOf(ReadOnlySpan<Word> words)
    {
        switch (words.Length)
        {
            case 0: return "";
            case 1: return words[0].Text;
            case 2: return string.Concat(words[0].Text, " ", words[1].Text);
            default:
                var text = new System.Text.StringBuilder(words[0].Text);
                foreach (var word in words[1..])
                    text.Append(' ').Append(word.Text);
                return text.ToString();
        }
    }

    /// <summary>This text with more of it, from a wrapped line; boxes that touch on one page become one.</summary>
    public Printed With(Printed more)
    {
        if (Text.Length == 0)
            return more;
        var places = Places;
        foreach (var place in more.Places)
        {
            var at = places.Length - 1;
            places = at >= 0 && places[at].Page == place.Page
                ? places.SetItem(at, new PlaceOnPage(place.Page, places[at].Box.Union(place.Box)))
                : places.Add(place);
        }
        return new Printed(Text + (EndsInOwnHyphen(Text, more.Text) ? "" : " ") + more.Text, places);
    }

    /// <summary>Says that a word was wrapped after its own hyphen: "low-" and "iron" are "low-iron", "reprint -" ends in a dash.</summary>
    private static bool EndsInOwnHyphen(string text, string next) =>
        text.Length > 1 && text[^1] is '-' or '\u2010' && char.IsLetterOrDigit(text[^2]) && next.Length > 0 && char.IsLetterOrDigit(next[0]);

    /// <summary>A dash, or nothing but dashes, stands where there is no value.</summary>
    public static bool IsDash(string text) => text.Length > 0 && text.All(c => c is '-' or '\u2013' or '\u2014' or '\u2212');

    /// <summary>Tidies the text and reads it as a kind of value.</summary>
    public (string Tidied, Reading Reading) Read(ImmutableArray<TidyStep> tidy, ValueKind kind, Habits habits)
    {
        var text = Text;
        foreach (var step in tidy)
            text = step.Apply(text);
        text = text.Trim();
        return (text, ValueReader.Read(text, kind, habits));
    }
}
