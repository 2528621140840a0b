using System.Collections.Immutable;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates.Tidy;
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
        return new Printed(TextLine.TextOf(words), [new PlaceOnPage(page, box)]);
    }

    /// <summary>This text with more of it, from a wrapped line; boxes that touch on one page become one.</summary>
    public Printed With(Printed more, bool joinsHyphens = false)
    {
        if (Text.Length == 0)
            return more;
        if (!EndsInHyphen(Text, more.Text))
            return new Printed($"{Text} {more.Text}", PlacesWith(more));
        var isPutIn = joinsHyphens || Text[^1] == SoftHyphen || (Text[^1] == TypographicHyphen && !HasOwnTypographicHyphen(Text, more.Text));
        return new Printed((isPutIn ? Text[..^1] : Text) + more.Text, PlacesWith(more));
    }

    /// <summary>
    /// Printers put in U+2010 where a word is broken, and people type the plain hyphen; a text that holds U+2010 elsewhere
    /// was typed with it.
    /// </summary>
    private static bool HasOwnTypographicHyphen(string text, string next) =>
        text.AsSpan()[..^1].Contains(TypographicHyphen) || next.AsSpan().TrimEnd(TypographicHyphen).Contains(TypographicHyphen);

    /// <summary>This text with another line of it below.</summary>
    public Printed Over(Printed below) => Text.Length == 0 ? below : new Printed(Text + "\n" + below.Text, PlacesWith(below));

    private ImmutableArray<PlaceOnPage> PlacesWith(Printed more)
    {
        var places = Places;
        foreach (var place in more.Places)
        {
            var at = places.Length - 1;
            places = at >= 0 && places[at].Page == place.Page
                ? places.SetItem(at, new PlaceOnPage(place.Page, places[at].Box.Union(place.Box)))
                : places.Add(place);
        }
        return places;
    }

    private const char SoftHyphen = '\u00AD';
    private const char TypographicHyphen = '\u2010';

    /// <summary>Says that a word was wrapped at a hyphen: "low-" and "iron" are "low-iron", "reprint -" ends in a dash.</summary>
    private static bool EndsInHyphen(string text, string next) =>
        text.Length > 1 && text[^1] is '-' or TypographicHyphen or SoftHyphen && char.IsLetterOrDigit(text[^2]) && next.Length > 0 && char.IsLetterOrDigit(next[0]);

    /// <summary>A dash, or nothing but dashes, stands where there is no value, with a currency mark or without.</summary>
    public static bool IsDash(string text)
    {
        var dashes = text.AsSpan().IndexOfAny("-\u2013\u2014\u2212");
        if (dashes < 0 || text.AsSpan().ContainsAnyInRange('0', '9'))
            return false;
        var rest = text.AsSpan().Trim(" -\u2013\u2014\u2212");
        return rest.IsEmpty || Currency.IsMark(rest.ToString());
    }

    /// <summary>Tidies the text and reads it as a kind of value.</summary>
    public (string Tidied, Reading Reading) Read(ImmutableArray<TidyStep> tidy, ValueKind kind, Habits habits)
    {
        var text = Text;
        foreach (var step in tidy)
            text = step.Apply(text);
        text = text.Trim();
        return (text, text.AsSpan().ContainsAny('x', '\u00D7', '*') && tidy.Any(step => step is SplitUnit)
            ? Product(text, kind, habits)
            : ValueReader.Read(text, kind, habits));
    }

    /// <summary>What each step makes of the text.</summary>
    public ImmutableArray<TidiedText> StepsOf(ImmutableArray<TidyStep> tidy)
    {
        if (tidy.IsEmpty)
            return [];
        var steps = ImmutableArray.CreateBuilder<TidiedText>(tidy.Length);
        var text = Text;
        foreach (var step in tidy)
            steps.Add(new TidiedText(step.Name, text = step.Apply(text)));
        return steps.MoveToImmutable();
    }

    /// <summary>Numbers with "x" between them, multiplied.</summary>
    private static Reading Product(string text, ValueKind kind, Habits habits)
    {
        var product = 1m;
        foreach (var factor in text.Split('x', '\u00D7', '*'))
        {
            var reading = ValueReader.Read(factor.Trim(), kind, habits);
            if (reading.Number is not { } number)
                return reading;
            product *= number;
        }
        return Reading.Of(product);
    }
}
