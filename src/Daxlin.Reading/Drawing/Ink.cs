namespace Daxlin.Reading.Drawing;

/// <summary>A colour as a screen shows it, each part from 0 to 1.</summary>
internal readonly record struct Ink(double Red, double Green, double Blue)
{
    public static Ink Black { get; } = new(0, 0, 0);

    /// <summary>What a page is before anything is drawn.</summary>
    public static Ink Paper { get; } = new(1, 1, 1);

    /// <summary>No part of a colour.</summary>
    public static Ink None => Black;

    /// <summary>All of each part of a colour.</summary>
    public static Ink All => Paper;

    /// <summary>
    /// Colours nearer than this in each part are one to the eye: grey of 95 % on white is not read. A watermark of 80 % is.
    /// </summary>
    private const double Nearest = 0.08;

    /// <summary>Says that it is hardly seen on paper: what it is read on must be darker.</summary>
    public bool IsLight => Math.Min(Red, Math.Min(Green, Blue)) > 0.8;

    /// <summary>This colour with parts of another.</summary>
    public Ink With(Ink other, Ink parts) => new(Red + (parts.Red * other.Red), Green + (parts.Green * other.Green), Blue + (parts.Blue * other.Blue));

    public Ink Times(double factor) => new(factor * Red, factor * Green, factor * Blue);

    public Ink Times(Ink other) => new(Red * other.Red, Green * other.Green, Blue * other.Blue);

    /// <summary>How it looks on a ground.</summary>
    public Ink On(Ink ground, Mixing mixing) => mixing == Mixing.Multiplied ? Times(ground) : this;

    /// <summary>What is missing of it to paper.</summary>
    public Ink Turned => new(1 - Red, 1 - Green, 1 - Blue);

    public bool LooksLike(Ink other) =>
        Math.Abs(Red - other.Red) < Nearest && Math.Abs(Green - other.Green) < Nearest && Math.Abs(Blue - other.Blue) < Nearest;
}
