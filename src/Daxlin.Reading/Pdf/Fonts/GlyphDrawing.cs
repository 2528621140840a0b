using Daxlin.Reading.Drawing;
using UglyToad.PdfPig.Core;
using UglyToad.PdfPig.Tokens;

namespace Daxlin.Reading.Pdf.Fonts;

/// <summary>A glyph that is content of its own (ISO 32000-2, 9.6.4).</summary>
/// <param name="Font">Whose resources it draws with.</param>
/// <param name="Matrix">Takes its measure to the type's size.</param>
internal sealed record GlyphDrawing(StreamToken Content, IndirectReference? Reference, DictionaryToken Font, Matrix Matrix);
