using System.Collections.Immutable;
using System.Globalization;
using System.Text.Json.Serialization;
using Daxlin.Core.Posting.Expressions;

namespace Daxlin.Service.Posting.Lists;

/// <param name="Entries">How many words it has.</param>
public sealed record ListSummary(string Name, int Version, int Entries, DateTime SavedAt, string SavedBy);

public sealed record ListDetail(string Name, int Version, DateTime SavedAt, string SavedBy, ImmutableArray<ListEntryRecord> Entries);

/// <summary>What a word is called in the ledger.</summary>
/// <param name="From">The first day that it counts on, ISO 8601; empty for always.</param>
public sealed record ListEntryRecord(string Word, string Meaning, string From)
{
    [JsonIgnore]
    public TranslationEntry Entry => new(
        Word, Meaning, From.Length == 0 ? DateOnly.MinValue : DateOnly.ParseExact(From, "yyyy-MM-dd", CultureInfo.InvariantCulture));
}
