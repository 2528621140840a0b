using System.Collections.Immutable;
using System.Globalization;
using System.Text.Json;
using System.Text.RegularExpressions;

namespace Daxlin.Core.Json;

/// <summary>Reads parts of a document and collects what is wrong with them, so that a clerk sees all faults at once.</summary>
internal sealed class FaultList(PatternCache? patterns = null)
{
    private readonly ImmutableArray<JsonFault>.Builder faults = ImmutableArray.CreateBuilder<JsonFault>();

    /// <summary>The longest pattern a document may hold.</summary>
    private const int LongestPattern = 500;

    public void Add(JsonPlace place, string message) =>
        faults.Add(new JsonFault(place.Path.Length == 0 ? "the document" : place.Path, place.Line, message));

    /// <summary>Adds something that is likely not what is meant, although the document can be used.</summary>
    public void Warn(JsonPlace place, string message) =>
        faults.Add(new JsonFault(place.Path.Length == 0 ? "the document" : place.Path, place.Line, message, IsWarning: true));

    /// <summary>All that was found so far, warnings included.</summary>
    public ImmutableArray<JsonFault> Found => faults.ToImmutable();

    /// <exception cref="JsonFaultException">There is a fault that keeps the document from being used.</exception>
    public void ThrowIfAny()
    {
        if (faults.Any(fault => !fault.IsWarning))
            throw new JsonFaultException(faults.ToImmutable());
    }

    /// <summary>Faults an object's keys that are not among <paramref name="known"/>.</summary>
    public bool IsObjectOf(JsonPlace place, params ReadOnlySpan<string> known)
    {
        if (!place.IsObject)
        {
            Add(place, "An object in braces is wanted here.");
            return false;
        }
        foreach (var (key, value) in place.Members)
        {
            if (!known.Contains(key))
                Add(value, $"The key “{key}” is unknown here; {Meant(key, known)}.");
        }
        return true;
    }

    /// <summary>The known key that an unknown one is a slip of, or all of them.</summary>
    private static string Meant(string key, ReadOnlySpan<string> known) =>
        Slips.Meant(key, known.ToArray()) is { } meant ? $"“{meant}” is meant, perhaps" : $"known are {string.Join(", ", known)}";

    public string Text(JsonPlace? place, string fallback = "")
    {
        if (place is null)
            return fallback;
        if (place.IsString)
            return place.Text;
        Add(place, "A text in quotes is wanted here.");
        return fallback;
    }

    public string RequiredText(JsonPlace parent, string key)
    {
        if (parent.Find(key) is not { } place)
        {
            Add(parent, $"The key “{key}” is missing.");
            return "";
        }
        var text = Text(place);
        if (place.IsString && string.IsNullOrWhiteSpace(text))
            Add(place, "This text is empty.");
        return text;
    }

    /// <summary>What a document of ours, or a secret, is called.</summary>
    /// <returns>Empty if it is missing; a faulty name is a fault.</returns>
    public string RequiredName(JsonPlace parent, string key)
    {
        var name = RequiredText(parent, key);
        if (name.Length > 0 && DocumentName.FaultOf(name) is { } fault)
            Add(parent.Find(key)!, fault);
        return name;
    }

    /// <summary>The same where it may be left out.</summary>
    public string OptionalName(JsonPlace parent, string key) => parent.Find(key) is null ? "" : RequiredName(parent, key);

    /// <summary>A machine's name, under the key “host”.</summary>
    public string RequiredHost(JsonPlace parent)
    {
        var host = RequiredText(parent, "host");
        if (host.Length > 0 && Uri.CheckHostName(host) == UriHostNameType.Unknown)
            Add(parent.Find("host")!, $"“{host}” is no machine's name.");
        return host;
    }

    /// <summary>The port that a machine is asked at, under the key “port”.</summary>
    public int Port(JsonPlace parent, int usual)
    {
        const int Highest = 65_535;
        var port = Count(parent.Find("port"), usual, Highest);
        if (port == 0)
            Add(parent.Find("port")!, $"A port from 1 to {Highest} is wanted here.");
        return port;
    }

    public bool Flag(JsonPlace? place, bool fallback)
    {
        if (place is null)
            return fallback;
        if (place.Kind is JsonTokenType.True or JsonTokenType.False)
            return place.Kind == JsonTokenType.True;
        Add(place, "true or false is wanted here.");
        return fallback;
    }

    public double Points(JsonPlace? place, double fallback)
    {
        if (place is null)
            return fallback;
        if (place.Kind == JsonTokenType.Number
            && double.TryParse(place.Text, NumberStyles.Float, CultureInfo.InvariantCulture, out var points)
            && points is >= 0 and <= 20000)
            return points;
        Add(place, "A number of points is wanted here, 0 to 20000.");
        return fallback;
    }

    public int Count(JsonPlace? place, int fallback, int most, int least = 0)
    {
        if (place is null)
            return fallback;
        if (place.Kind == JsonTokenType.Number && int.TryParse(place.Text, CultureInfo.InvariantCulture, out var count)
            && count >= least && count <= most)
            return count;
        Add(place, $"A whole number from {least} to {most} is wanted here.");
        return fallback;
    }

    /// <summary>A place in a list: a number from 1, <c>"first"</c> or <c>"last"</c>; the last is -1.</summary>
    public int Position(JsonPlace place)
    {
        if (place is { IsString: true, Text: "first" or "last" })
            return place.Text == "first" ? 1 : -1;
        if (place.Kind == JsonTokenType.Number && int.TryParse(place.Text, CultureInfo.InvariantCulture, out var number)
            && number is >= -100 and <= 100 and not 0)
            return number;
        Add(place, "A number from 1, \"first\" or \"last\" is wanted here; -2 is the last but one.");
        return 1;
    }

    /// <summary>An amount, as a string with a decimal point like every amount in Daxlin's JSON.</summary>
    public decimal Amount(JsonPlace? place, decimal fallback)
    {
        if (place is null)
            return fallback;
        if (place.IsString && decimal.TryParse(place.Text, NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var amount))
            return amount;
        Add(place, "An amount in quotes is wanted here, as \"0.01\".");
        return fallback;
    }

    /// <summary>One of some lower-case words.</summary>
    public T OneOf<T>(JsonPlace? place, T fallback, params ReadOnlySpan<(string Word, T Value)> words)
    {
        if (place is null)
            return fallback;
        var list = new List<string>();
        foreach (var (word, value) in words)
        {
            if (place.IsString && place.Text == word)
                return value;
            list.Add(word);
        }
        Add(place, place.IsString
            ? $"“{place.Text}” is unknown here; known are {string.Join(", ", list)}."
            : $"One of {string.Join(", ", list)} is wanted here.");
        return fallback;
    }

    /// <summary>One text, or several in brackets.</summary>
    public ImmutableArray<string> Texts(JsonPlace? place)
    {
        if (place is null)
            return [];
        var items = place.IsArray ? place.Items : [place];
        var texts = ImmutableArray.CreateBuilder<string>();
        foreach (var item in items)
        {
            if (!item.IsString)
                Add(item, "A text in quotes is wanted here.");
            else if (string.IsNullOrWhiteSpace(item.Text))
                Add(item, "This text is empty.");
            else
                texts.Add(item.Text);
        }
        if (items.IsEmpty)
            Add(place, "At least one text is wanted here.");
        return texts.ToImmutable();
    }

    /// <summary>What is wrong with a pattern, in our words; the library's own sentences are for programmers.</summary>
    private static string ReasonOf(ArgumentException error)
    {
        if (error is not RegexParseException { Error: var code, Offset: var at })
            return "it cannot be read";
        var what = code switch
        {
            RegexParseError.InsufficientClosingParentheses => "an opening bracket “(” is not closed",
            RegexParseError.InsufficientOpeningParentheses => "a closing bracket “)” has none that it closes",
            RegexParseError.UnterminatedBracket => "a set “[” is not closed",
            RegexParseError.QuantifierAfterNothing => "nothing stands before a “*”, “+” or “?” that it could repeat",
            RegexParseError.NestedQuantifiersNotParenthesized => "two of “*”, “+”, “?” follow one another",
            RegexParseError.ReversedQuantifierRange => "the bounds in “{…}” are the wrong way round",
            RegexParseError.ReversedCharacterRange => "a range in “[…]” is the wrong way round",
            RegexParseError.UnescapedEndingBackslash => "it ends in a “\\” that stands before nothing",
            RegexParseError.UnrecognizedEscape => "a “\\” stands before a letter that it gives no meaning",
            RegexParseError.CaptureGroupNameInvalid => "a group's name is no name",
            _ => "it cannot be read",
        };
        return string.Create(CultureInfo.InvariantCulture, $"{what}, at its character {at}");
    }

    /// <summary>A pattern; non-backtracking where it can be, else with a time limit.</summary>
    private static Regex PatternOf(string text)
    {
        try
        {
            return new Regex(text, RegexOptions.NonBacktracking | RegexOptions.CultureInvariant, Regex.InfiniteMatchTimeout);
        }
        catch (NotSupportedException)
        {
            return new Regex(text, RegexOptions.CultureInvariant, TimeSpan.FromMilliseconds(200));
        }
    }

    public Regex? Pattern(JsonPlace? place)
    {
        if (place is null)
            return null;
        var text = Text(place);
        if (text.Length == 0 || text.Length > LongestPattern)
        {
            Add(place, $"A pattern of 1 to {LongestPattern} characters is wanted here.");
            return null;
        }
        try
        {
            // The time this engine takes grows with the text alone, so it needs no watch; one costs more than most matches.
            return patterns is null ? PatternOf(text) : patterns.Of(text, PatternOf);
        }
        catch (ArgumentException error)
        {
            Add(place, $"This is not a pattern: {ReasonOf(error)}.");
            return null;
        }
    }
}
