namespace Daxlin.Core.Capture.Blocks;

/// <summary>A printed sum of the rows above it.</summary>
/// <param name="Stated">As printed.</param>
/// <param name="Counted">What the rows come to that it is a sum of.</param>
internal readonly record struct RowSum(decimal Stated, decimal Counted);
