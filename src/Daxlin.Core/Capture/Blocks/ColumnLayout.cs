using System.Collections.Immutable;

namespace Daxlin.Core.Capture.Blocks;

/// <summary>The columns of a block on a page, from left to right.</summary>
/// <param name="HardEdges">
/// Says that the bounds are rulings or edges set by the template, so that a word belongs to the column it stands in.
/// Else they are where headings and values were seen, and text may reach beyond them.
/// </param>
internal sealed record ColumnLayout(ImmutableArray<ColumnSpan> Columns, bool HardEdges);
