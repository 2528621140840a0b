namespace Daxlin.Core.Capture;

/// <summary>A printed sum of the rows above it: carried forward, the subtotal of a section.</summary>
/// <param name="Block">The block's name.</param>
/// <param name="Text">The line as printed.</param>
/// <param name="Stated">The amount as printed.</param>
/// <param name="Counted">What the rows above come to, all of them or those since the sum before.</param>
public sealed record CapturedSum(string Block, string Text, PlaceOnPage Place, decimal Stated, decimal Counted);
