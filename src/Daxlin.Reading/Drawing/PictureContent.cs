namespace Daxlin.Reading.Drawing;

/// <summary>What a picture shows, as far as it can be told.</summary>
/// <param name="Colours">Its points; null for a stencil, which is all of one ink, and where nobody can unpack them.</param>
/// <param name="InkOf">What the numbers of a point mean as a colour; null for a colour that cannot be told.</param>
/// <param name="Cover">How much of what lies under it each point hides, from 0 to 1; null where it has no mask.</param>
/// <param name="IsUntold">It has a mask that cannot be read.</param>
internal sealed record PictureContent(PointGrid? Colours, Func<ReadOnlySpan<double>, Ink?> InkOf, PointGrid? Cover, bool IsUntold)
{
    /// <summary>The colour at a place; beside the picture, and where nobody can tell, there is none.</summary>
    /// <param name="across">From its left, of its width.</param>
    /// <param name="down">From its top, of its height.</param>
    public Ink? InkAt(double across, double down)
    {
        if (Colours is null)
            return InkOf([]);
        Span<double> parts = stackalloc double[Colours.Parts];
        return Colours.Read(across, down, parts) ? InkOf(parts) : null;
    }

    /// <summary>How much it hides of what lies under it at a place; null beside it.</summary>
    public double? CoverAt(double across, double down)
    {
        if (across is not (>= 0 and < 1) || down is not (>= 0 and < 1))
            return null;
        if (Cover is null)
            return 1;
        Span<double> part = stackalloc double[1];
        return Cover.Read(across, down, part) ? part[0] : null;
    }
}
