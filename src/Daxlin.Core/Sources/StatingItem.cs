using System.Collections.Immutable;
using Daxlin.Core.Posting;

namespace Daxlin.Core.Sources;

/// <summary>Something that came from a source and states what invoices come to.</summary>
/// <param name="Place">A file's place below the source's folder, with <c>/</c> between folders; a message's subject.</param>
/// <param name="IsCover">Says that it is a cover sheet in a folder: it speaks of the files beside it. Anything else speaks of what is in it.</param>
public sealed record StatingItem(int Id, string Source, string Place, bool IsCover, ImmutableArray<StatedTotal> Stated)
{
    /// <summary>The folder that it stands in, with its last stroke; empty for the source's own.</summary>
    public string Folder => FolderOf(Place);

    /// <summary>Says that a file stands in the same folder, and in none below it.</summary>
    public bool IsBeside(string place) => FolderOf(place) == Folder;

    /// <summary>Those that speak of the same invoices, with what they state of them, in the order in which they came.</summary>
    /// <remarks>
    /// Cover sheets of one folder add up: each came with a part of what is there. A message's subject and the cover sheet in it speak of the same invoices, so each is held against them.
    /// </remarks>
    public static ImmutableArray<(ImmutableArray<StatingItem> Items, ImmutableArray<StatedTotal> Stated)> Together(IEnumerable<StatingItem> items) =>
    [
        .. items.GroupBy(item => item.IsCover ? (item.Source, item.Folder, 0) : (item.Source, "", item.Id)).Select(all =>
            (all.ToImmutableArray(), all.First().IsCover ? StatedTotal.Together(all.SelectMany(item => item.Stated)) : [.. all.SelectMany(item => item.Stated)])),
    ];

    private static string FolderOf(string place) => place[..(place.LastIndexOf('/') + 1)];
}
