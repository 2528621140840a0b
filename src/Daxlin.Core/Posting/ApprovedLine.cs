using System.Collections.Immutable;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Posting;

/// <summary>One item row of an approved invoice.</summary>
/// <param name="Page">From 1; 0 if the row stands on no page.</param>
/// <param name="Under">Lists that stand under the row.</param>
public sealed record ApprovedLine(
    string Block, int Number, int Page, IReadOnlyDictionary<string, string> Cells, ImmutableArray<ApprovedList> Under);

/// <summary>A list under an item row.</summary>
/// <param name="Rows">Each row's values by column.</param>
public sealed record ApprovedList(string Name, FlatForm Flat, ImmutableArray<ImmutableSortedDictionary<string, string>> Rows);
