namespace Daxlin.Core.Capture;

/// <summary>A printed line inside a block that is no part of any row, and why.</summary>
/// <param name="Why">page furniture, left out by the template, or not accounted for.</param>
public sealed record LeftOutLine(string Block, PlaceOnPage Place, string Text, string Why)
{
    /// <summary>Why a line is left out that nothing speaks of; it holds the invoice.</summary>
    public const string NotAccountedFor = "not accounted for";
}
