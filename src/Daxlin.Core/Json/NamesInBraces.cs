using System.Text.RegularExpressions;

namespace Daxlin.Core.Json;

/// <summary>Texts of documents in which names stand in braces, to be filled in: <c>Galley {day}</c>, <c>ledger-{run}</c>.</summary>
public static partial class NamesInBraces
{
    /// <summary>The names, in their order.</summary>
    public static IEnumerable<string> Of(string text) => Braces().Matches(text).Select(match => match.Groups[1].Value);

    /// <param name="value">What a name stands for; null leaves it as it is written.</param>
    public static string Fill(string text, Func<string, string?> value) => Braces().Replace(text, match => value(match.Groups[1].Value) ?? match.Value);

    /// <summary>A list of names as a text of ours names them: {run}, {date}.</summary>
    public static string Listed(IEnumerable<string> names) => string.Join(", ", names.Select(name => "{" + name + "}"));

    [GeneratedRegex(@"\{([^{}]*)\}", RegexOptions.CultureInvariant)]
    private static partial Regex Braces();
}
