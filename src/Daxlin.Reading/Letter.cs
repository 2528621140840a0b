namespace Daxlin.Reading;

/// <summary>One glyph as drawn, in the page's settled coordinates (top left origin, y downwards, points).</summary>
/// <param name="Text">What it stands for; several characters for a ligature, blank for a drawn blank.</param>
/// <param name="Start">Left end of its advance on the baseline.</param>
/// <param name="End">Right end of its advance.</param>
/// <param name="Baseline">Height of the baseline, from the top.</param>
/// <param name="Size">Size of the type in points.</param>
internal readonly record struct Letter(string Text, double Start, double End, double Baseline, double Size)
{
    public bool IsBlank { get; } = string.IsNullOrWhiteSpace(Text);
}
