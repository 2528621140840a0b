using System.Collections.Immutable;
using Daxlin.Core.Checks;

namespace Daxlin.Core.Capture.Blocks;

/// <summary>What one line block yielded.</summary>
/// <param name="Rows">Each row's printed cells by column name.</param>
internal sealed record BlockResult(
    ImmutableArray<IReadOnlyDictionary<string, Printed>> Rows,
    ImmutableArray<LeftOutLine> LeftOut,
    ImmutableArray<Finding> Findings);
