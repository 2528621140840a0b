namespace Daxlin.Reading.Drawing;

/// <summary>A colour as a screen shows it, each part from 0 to 1.</summary>
internal sealed record Ink(double Red, double Green, double Blue)
{
    /// <summary>What is drawn with before a colour is chosen.</summary>
    public static Ink Black { get; } = new(0, 0, 0);

    /// <summary>What a page is before anything is drawn.</summary>
    public static Ink Paper { get; } = new(1, 1, 1);

    /// <summary>
    /// Colours nearer than this in each part are one to the eye: grey of 95 % on white is not read. A watermark of 80 % is.
    /// </summary>
    private const double Nearest = 0.08;

    /// <summary>Says that it is hardly seen on paper: what it is read on must be darker.</summary>
    public bool IsLight => Math.Min(Red, Math.Min(Green, Blue)) > 0.8;

    /// <summary>This colour with a part of another.</summary>
    public Ink With(Ink other, double part) => new(Red + (part * other.Red), Green + (part * other.Green), Blue + (part * other.Blue));

    public bool LooksLike(Ink other) =>
        Math.Abs(Red - other.Red) < Nearest && Math.Abs(Green - other.Green) < Nearest && Math.Abs(Blue - other.Blue) < Nearest;
}
