using System.Collections.Immutable;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Capture;

/// <summary>A list that stands under a row.</summary>
/// <param name="Name">The list's name: deliveries.</param>
/// <param name="Flat">What becomes of it where a file has one row a line.</param>
/// <param name="Rows">Its rows, each with its cells, from the top.</param>
public sealed record RowsUnder(string Name, FlatForm Flat, ImmutableArray<CapturedLine> Rows);
