using Daxlin.Reading.Drawing;
using UglyToad.PdfPig.Graphics.Colors;

namespace Daxlin.Reading.Pdf.Content;

/// <summary>What the numbers of a colour mean (ISO 32000-2, 8.6), as a screen shows it.</summary>
/// <param name="Parts">How many numbers it takes.</param>
/// <param name="Initial">The colour that it begins with.</param>
/// <param name="Read">The colour of so many numbers.</param>
/// <param name="Under">What the numbers before the name of a pattern mean that has no colour of its own.</param>
/// <param name="IsTable">Its number says which colour of a list it is.</param>
internal sealed record ColourSpace(int Parts, Paint Initial, Func<ReadOnlySpan<double>, Ink?> Read, ColourSpace? Under = null, bool IsTable = false)
{
    public static ColourSpace Grey { get; } = new(1, Paint.Black, parts => new Ink(parts[0], parts[0], parts[0]));

    public static ColourSpace Rgb { get; } = new(3, Paint.Black, parts => new Ink(parts[0], parts[1], parts[2]));

    public static ColourSpace Cmyk { get; } = new(4, Paint.Black, parts => new Ink((1 - parts[0]) * (1 - parts[3]), (1 - parts[1]) * (1 - parts[3]), (1 - parts[2]) * (1 - parts[3])));

    /// <summary>A pattern has no one colour.</summary>
    public static ColourSpace Pattern { get; } = new(0, Paint.Untold, _ => null);

    /// <returns>Null for a number of parts that no such space has.</returns>
    public static ColourSpace? OfParts(int parts) => parts switch
    {
        1 => Grey,
        3 => Rgb,
        4 => Cmyk,
        _ => null,
    };

    /// <summary>One that the PDF library works out: tables of colours, inks of a press.</summary>
    public static ColourSpace Of(ColorSpaceDetails details)
    {
        return new(details.NumberOfColorComponents, InkOf(details.GetInitializeColor()) is { } first ? Paint.Of(first) : Paint.Untold, Read, IsTable: details is IndexedColorSpaceDetails);

        Ink? Read(ReadOnlySpan<double> parts)
        {
            try
            {
                return InkOf(details.GetColor(parts));
            }
            catch (Exception error) when (Damage.Is(error))
            {
                // The text in a colour that cannot be worked out is read all the same.
                return null;
            }
        }
    }

    private static Ink? InkOf(IColor? color)
    {
        if (color is null or PatternColor)
            return null;
        var (red, green, blue) = color.ToRGBValues();
        return new Ink(red, green, blue);
    }
}
