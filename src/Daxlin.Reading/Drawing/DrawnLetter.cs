namespace Daxlin.Reading.Drawing;

/// <summary>A glyph as the page draws it, in points from the page's lower left.</summary>
/// <param name="Text">What it stands for by its font.</param>
/// <param name="Start">Where its advance begins on the baseline.</param>
/// <param name="End">Where it ends.</param>
/// <param name="Middle">The middle of its body, where it is looked at.</param>
/// <param name="Size">Of the type, in points.</param>
/// <param name="Paint">What it is painted with.</param>
/// <param name="Mixing">How it comes together with what lies under it.</param>
/// <param name="At">How many things were drawn before it was.</param>
/// <param name="Ground">How many were drawn before its own drawing began, where it is one; else as <paramref name="At"/>.</param>
/// <param name="Unseen">Why it leaves no mark, whatever else is drawn; null if it does.</param>
internal readonly record struct DrawnLetter(string Text, Point Start, Point End, Point Middle, double Size, Paint Paint, Mixing Mixing, int At, int Ground, Core.Pages.UnseenBy? Unseen)
{
    /// <summary>Lengths below this are none, in points.</summary>
    private const double Straight = 1e-4;

    /// <summary>Which way it runs.</summary>
    public Direction Direction
    {
        get
        {
            var (across, up) = (End.X - Start.X, End.Y - Start.Y);
            return Math.Abs(up) < Straight ? across < 0 ? Direction.UpsideDown : Direction.Horizontal
                : Math.Abs(across) < Straight ? up < 0 ? Direction.Down : Direction.Up : Direction.Slanted;
        }
    }
}
