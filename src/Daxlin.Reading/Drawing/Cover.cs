using Daxlin.Core.Pages;

namespace Daxlin.Reading.Drawing;

/// <summary>An area that is drawn: a filled path, a thick line or a picture.</summary>
/// <param name="Clip">What of the page it is drawn in.</param>
/// <param name="Bounds">Around it and within the clip, in points from the page's lower left; its top is the smaller height here.</param>
/// <param name="Picture">What it shows, if it is a picture.</param>
/// <param name="Paint">What it is painted with; a picture is its own paint.</param>
/// <param name="Opacity">How much of what lies under it it hides, from 0 to 1, beside what a picture's own mask lets through.</param>
/// <param name="Mixing">How it comes together with what lies under it; through a mask nobody can tell what it lets through.</param>
/// <param name="At">How many things were drawn before it.</param>
internal sealed record Cover(Outline Outline, Clip Clip, Box Bounds, Picture? Picture, Paint Paint, double Opacity, Mixing Mixing, int At)
{
    /// <summary>What lets through more than this hides nothing.</summary>
    private const double Opaque = 0.9;

    /// <summary>Says that it hides all of what lies under it.</summary>
    public static bool IsWhole(double? opacity) => opacity >= Opaque;

    /// <summary>Says that it lets through all of what lies under it.</summary>
    public static bool IsNone(double? opacity) => opacity <= 1 - Opaque;

    public bool Holds(Point point) => Outline.Holds(point) && Clip.Holds(point);

    /// <summary>Says that nobody can tell whether what lies under it is seen.</summary>
    public bool IsUntold(in DrawnLetter letter) => Mixing >= Mixing.Masked || Picture is { Content.Value.IsUntold: true } || (Picture is null && Paint.Only is null && (Paint.HasGaps || Mixing == Mixing.Multiplied)) || (Picture is not null && Mixing == Mixing.Multiplied && IsDark(Picture, letter));

    /// <summary>Says that what is multiplied with it around a letter is not seen any more: a black bar does that, a stamp does not.</summary>
    private static bool IsDark(Picture picture, in DrawnLetter letter) => picture.Swallows(Ink.Black, Mixing.None, letter.Middle, letter.Size, Ink.None, Ink.All) == true;

    /// <summary>How much of a letter under it it hides, from 0 to 1; null where nobody can tell, and where it is mixed with the letter.</summary>
    public double? OpacityOver(in DrawnLetter letter) => Mixing != Mixing.None ? null : Picture is null ? Opacity : Opacity * Picture.CoverAround(letter.Middle, letter.Size);

    /// <summary>What it leaves of each part of the colours under it, where it is one colour that is multiplied with them: a highlighter.</summary>
    public Ink? Filter => Mixing == Mixing.Multiplied && Picture is null && Paint.Only is { } own ? Ink.All.Times(1 - Opacity).With(own, Ink.All.Times(Opacity)) : null;
}
