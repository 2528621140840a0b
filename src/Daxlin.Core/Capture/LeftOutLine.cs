namespace Daxlin.Core.Capture;

/// <summary>A printed line inside a block that is no part of any row, and why.</summary>
/// <param name="Why">page furniture, left out by the template, or not accounted for.</param>
public sealed record LeftOutLine(string Block, PlaceOnPage Place, string Text, string Why);
