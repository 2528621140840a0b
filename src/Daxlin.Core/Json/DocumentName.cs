using System.Text.RegularExpressions;

namespace Daxlin.Core.Json;

/// <summary>What a template or a layout may be called: it becomes part of addresses and of files' names.</summary>
public static partial class DocumentName
{
    private const int Longest = 100;

    /// <summary>What is wrong with a name; null if it is in order.</summary>
    public static string? FaultOf(string name) =>
        name.Length <= Longest && Pattern().IsMatch(name) ? null : $"A name is lower-case words, joined by hyphens, of {Longest} letters at most: brinewood-standard.";

    [GeneratedRegex("^[a-z0-9]+(-[a-z0-9]+)*$", RegexOptions.CultureInvariant)]
    private static partial Regex Pattern();
}
