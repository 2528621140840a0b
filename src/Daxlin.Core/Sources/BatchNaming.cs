using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.Json;

namespace Daxlin.Core.Sources;

/// <summary>What the batch is called that something goes into: a fixed name, or one with the day, the month or the folder in it.</summary>
/// <param name="Pattern"><c>Galley {day}</c> makes a batch of each day: Galley 2026-12-01.</param>
public sealed record BatchNaming(string Pattern)
{
    /// <summary>The longest name of a batch.</summary>
    public const int Longest = 100;

    public const string Day = "day";
    public const string Month = "month";
    public const string Folder = "folder";

    /// <summary>The names that may stand in braces.</summary>
    public static ImmutableArray<string> Known { get; } = [Day, Month, Folder];

    /// <summary>As part of a sentence.</summary>
    public string Says => $"“{Pattern}”{(Names.Any() ? $", one for each {string.Join(" and ", Names)}" : "")}";

    /// <summary>What stands in braces.</summary>
    public IEnumerable<string> Names => NamesInBraces.Of(Pattern);

    /// <param name="day">On which it came.</param>
    /// <param name="folder">In which it stood; for a file right in the source's folder, that one's name.</param>
    public string Of(DateOnly day, string folder)
    {
        var name = NamesInBraces.Fill(Pattern, known => known switch
        {
            Day => day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture),
            Month => day.ToString("yyyy-MM", CultureInfo.InvariantCulture),
            Folder => folder,
            _ => null,
        });
        name = string.Concat(name.Where(c => !char.IsControl(c))).Trim();
        if (name.Length > Longest)
            name = name[..Longest].TrimEnd();
        return name.Length == 0 ? "unnamed" : name;
    }
}
