using Daxlin.Core.History;

namespace Daxlin.Core.People;

/// <summary>Names of people: what they sign in with, and what the history calls them.</summary>
public static class PersonName
{
    public const int Longest = 100;

    /// <summary>Without what cannot be seen and without blanks at its ends; blanks within count as one.</summary>
    public static string Tidied(string said) =>
        string.Join(' ', string.Concat(said.Where(c => !char.IsControl(c))).Split(' ', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries));

    /// <summary>Null for a name that one may have.</summary>
    public static string? FaultOf(string name) => name.Length switch
    {
        0 => "A person needs a name.",
        > Longest => $"A name has at most {Longest} characters.",
        _ => string.Equals(name, Deed.Daxlin, StringComparison.OrdinalIgnoreCase) ? "“Daxlin” stands in the history for what the service does by itself." : null,
    };
}
