using System.Collections.Frozen;
using System.Collections.Immutable;
using System.Globalization;

namespace Daxlin.Core.Posting.Expressions;

/// <summary>What words of invoices are called in the ledger: a vendor's account, a unit's code.</summary>
/// <remarks>
/// Words are found whatever their capitals and blanks. An entry counts from its day on, until another of the same word begins: of
/// "Fuel" → 4100 without a day and "Fuel" → 4150 from 2026-07-01, an invoice of 2026-06-30 gets 4100.
/// </remarks>
public sealed class TranslationList
{
    private const int LongestText = 500;

    private readonly FrozenDictionary<string, ImmutableArray<TranslationEntry>> entries;

    public TranslationList(string name, IEnumerable<TranslationEntry> entries)
    {
        Name = name;
        this.entries = entries.GroupBy(entry => KeyOf(entry.Word))
            .ToFrozenDictionary(group => group.Key, group => group.OrderByDescending(entry => entry.From).ToImmutableArray());
    }

    public string Name { get; }

    /// <summary>What a word is called on a day; null if the list does not have it then.</summary>
    public string? Of(string word, DateOnly on)
    {
        if (!entries.TryGetValue(KeyOf(word), out var own))
            return null;
        foreach (var entry in own)
        {
            if (entry.From <= on)
                return entry.Meaning;
        }
        return null;
    }

    /// <summary>What is wrong with the first entry that is, as "Entry 2: …"; null if all can stand in one list.</summary>
    public static string? FaultOf(IEnumerable<TranslationEntry> entries)
    {
        var known = new HashSet<(string, DateOnly)>();
        foreach (var (number, entry) in entries.Index())
        {
            var fault = entry switch
            {
                { Word.Length: 0 or > LongestText } => $"a word has 1 to {LongestText} letters.",
                { Meaning.Length: 0 or > LongestText } => $"what “{entry.Word}” is called has 1 to {LongestText} letters.",
                _ when !known.Add((KeyOf(entry.Word), entry.From)) =>
                    $"“{entry.Word}” stands in the list twice{(entry.From == DateOnly.MinValue ? "" : $" from {ExpressionTypes.Settled(entry.From)}")}.",
                _ => null,
            };
            if (fault is not null)
                return string.Create(CultureInfo.InvariantCulture, $"Entry {number + 1}: {fault}");
        }
        return null;
    }

    private static string KeyOf(string word) => string.Join(' ', word.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries)).ToUpperInvariant();
}
