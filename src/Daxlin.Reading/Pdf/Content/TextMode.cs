namespace Daxlin.Reading.Pdf.Content;

/// <summary>How letters are drawn (ISO 32000-2, 9.3.6).</summary>
internal enum TextMode
{
    Fill,
    Stroke,
    FillAndStroke,
    Nothing,
    FillAndClip,
    StrokeAndClip,
    FillStrokeAndClip,
    Clip,
}
