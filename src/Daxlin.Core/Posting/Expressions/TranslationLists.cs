using System.Collections.Immutable;

namespace Daxlin.Core.Posting.Expressions;

/// <summary>The translation lists that there are, by name.</summary>
public sealed class TranslationLists(IEnumerable<TranslationList> lists)
{
    private readonly ImmutableDictionary<string, TranslationList> lists = lists.ToImmutableDictionary(list => list.Name);

    public static TranslationLists None { get; } = new([]);

    public IEnumerable<string> Names => lists.Keys.Order(StringComparer.Ordinal);

    public TranslationList? Find(string name) => lists.GetValueOrDefault(name);
}
