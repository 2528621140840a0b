using DocumentFormat.OpenXml;
using DocumentFormat.OpenXml.Spreadsheet;

namespace Daxlin.Service.Posting.Files;

/// <summary>How cells of a spreadsheet look, by their place in its list of formats, and how wide columns are.</summary>
internal static class SheetStyles
{
    public const uint Plain = 0, Date = 1, Bold = 2;

    /// <summary>Column widths, in letters of the standard typeface.</summary>
    public const double DateWidth = 12, NumberWidth = 14, TextWidth = 24, WidestUnlessSaid = 60;

    private const uint FirstOfDecimals = 3;
    private const int MostDecimals = 10;

    /// <summary>A number with so many digits behind its point.</summary>
    public static uint Decimals(int digits) => FirstOfDecimals + (uint)digits;

    public static Stylesheet Sheet()
    {
        // Numbers of the book's own formats begin at 164 (ECMA-376, 18.8.30).
        const uint own = 164;
        var formats = new NumberingFormats(new NumberingFormat { NumberFormatId = own, FormatCode = "yyyy-mm-dd" });
        var cells = new CellFormats(new CellFormat(), new CellFormat { NumberFormatId = own, ApplyNumberFormat = true }, new CellFormat { FontId = 1, ApplyFont = true });
        for (uint digits = 0; digits <= MostDecimals; digits++)
        {
            formats.Append(new NumberingFormat { NumberFormatId = own + 1 + digits, FormatCode = "0" + (digits == 0 ? "" : "." + new string('0', (int)digits)) });
            cells.Append(new CellFormat { NumberFormatId = own + 1 + digits, ApplyNumberFormat = true });
        }
        return new Stylesheet(
            formats, new Fonts(new Font(), new Font(new Bold())), new Fills(new Fill(new PatternFill { PatternType = PatternValues.None }), new Fill(new PatternFill { PatternType = PatternValues.Gray125 })),
            new Borders(new Border()), new CellStyleFormats(new CellFormat()), cells);
    }
}
