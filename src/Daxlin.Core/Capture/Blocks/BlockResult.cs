using System.Collections.Immutable;
using Daxlin.Core.Checks;

namespace Daxlin.Core.Capture.Blocks;

/// <summary>What one line block yielded.</summary>
internal sealed record BlockResult(
    ImmutableArray<RowDraft> Rows, ImmutableArray<LeftOutLine> LeftOut, ImmutableArray<CapturedSum> Sums, ImmutableArray<Finding> Findings);
