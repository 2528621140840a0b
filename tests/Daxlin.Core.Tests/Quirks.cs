using CsCheck;

namespace Daxlin.Core.Tests;

/// <summary>How a vendor's printer sets a made-up invoice: what may change from one producer or month to the next.</summary>
/// <param name="LetterWidth">As part of the type's size.</param>
/// <param name="Blank">As part of the type's size.</param>
/// <param name="LineGap">From one line of a text to the next, in points.</param>
/// <param name="RowGap">From the last line of a row to the first of the next, in points.</param>
/// <param name="Figures">Beside which line of the text the figures stand.</param>
/// <param name="HasNoise">Prints a column that the template does not know.</param>
/// <param name="CarriesSums">Prints the sum so far at a page's foot and head, in words that the template does not know.</param>
/// <param name="IsSwapped">Prints quantity and price in each other's place, with their headings.</param>
/// <param name="Remark">Printed below the first row, or null.</param>
internal sealed record Quirks(
    double LetterWidth, double Blank, double LineGap, double RowGap, FiguresAt Figures, bool HasNoise, bool CarriesSums,
    bool IsSwapped = false, string DescriptionHeading = "Description", string TotalCaption = "Total due", string? Remark = null)
{
    public static Quirks None { get; } = new(0.5, 0.28, 11, 15, FiguresAt.FirstLine, false, false);

    public double QuantityAt => IsSwapped ? 450 : 350;
    public double PriceAt => IsSwapped ? 350 : 450;

    /// <summary>Quirks that leave the layout as it is.</summary>
    public static Gen<Quirks> Gen { get; } = CsCheck.Gen.Select(
        CsCheck.Gen.Double[0.44, 0.55], CsCheck.Gen.Double[0.2, 0.34], CsCheck.Gen.Double[10, 12], CsCheck.Gen.Double[12, 22],
        CsCheck.Gen.Enum<FiguresAt>(), CsCheck.Gen.Bool, CsCheck.Gen.Bool,
        (letter, blank, line, row, figures, noise, sums) => new Quirks(letter, blank, line, row, figures, noise, sums));
}

/// <summary>Beside which line of a row's text its figures stand.</summary>
internal enum FiguresAt
{
    FirstLine,
    Middle,
    LastLine,
}
