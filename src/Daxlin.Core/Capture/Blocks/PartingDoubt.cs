namespace Daxlin.Core.Capture.Blocks;

/// <summary>A line that might as well be something else than what it was taken for.</summary>
/// <param name="Line">Index of the line in its block.</param>
/// <param name="Chosen">Where it went.</param>
/// <param name="Instead">Where it might have gone.</param>
/// <param name="RowsAbove">How many rows begin above it.</param>
internal sealed record PartingDoubt(int Line, RowParting.Part Chosen, RowParting.Part Instead, int RowsAbove);
