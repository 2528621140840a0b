using System.Collections.Immutable;

namespace Daxlin.Core.Templates;

/// <summary>Where columns stand on some pages, if not where they stand on the others.</summary>
/// <param name="Pages">Of the invoice.</param>
/// <param name="Columns">By the column's name; those that are not named stand where they stand on every page.</param>
/// <example>From the second page on there is no margin for the letterhead, and all columns stand 40 points further left.</example>
public sealed record EdgesOnPages(PageRange Pages, ImmutableSortedDictionary<string, BetweenEdges> Columns);
