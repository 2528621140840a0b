namespace Daxlin.Core.Pages;

/// <summary>Takes points of one plane to another: turned, shifted, scaled, or seen from aslant.</summary>
/// <remarks>
/// x' = (A x + B y + C) / (G x + H y + 1), y' = (D x + E y + F) / (G x + H y + 1); without perspective G and H are 0. See Hartley and Zisserman,
/// Multiple View Geometry in Computer Vision, 2.3.
/// </remarks>
/// <example>A scan that lies turned by 2°: <c>PlaneMap.Turning(2, 306, 396)</c>.</example>
public sealed record PlaneMap(double A, double B, double C, double D, double E, double F, double G = 0, double H = 0)
{
    public static PlaneMap Same { get; } = new(1, 0, 0, 0, 1, 0);

    /// <summary>Turns by an angle around a point.</summary>
    /// <param name="degrees">Clockwise, as y runs down.</param>
    public static PlaneMap Turning(double degrees, double x, double y)
    {
        var (sin, cos) = Math.SinCos(degrees * Math.PI / 180);
        return new(cos, -sin, x - (cos * x) + (sin * y), sin, cos, y - (sin * x) - (cos * y));
    }

    /// <summary>Takes the corners of a rectangle that begins at the origin to four points: of its left top, right top, right bottom and left bottom.</summary>
    public static PlaneMap OfCorners(double width, double height, ReadOnlySpan<(double X, double Y)> to)
    {
        var (p, q, r, s) = (to[0], to[1], to[2], to[3]);
        // Heckbert, Fundamentals of Texture Mapping and Image Warping, 2.2.3: the unit square to a quadrilateral.
        var (dx1, dx2, sx) = (q.X - r.X, s.X - r.X, p.X - q.X + r.X - s.X);
        var (dy1, dy2, sy) = (q.Y - r.Y, s.Y - r.Y, p.Y - q.Y + r.Y - s.Y);
        var area = (dx1 * dy2) - (dx2 * dy1);
        var g = ((sx * dy2) - (dx2 * sy)) / area;
        var h = ((dx1 * sy) - (sx * dy1)) / area;
        return new(
            (q.X - p.X + (g * q.X)) / width, (s.X - p.X + (h * s.X)) / height, p.X,
            (q.Y - p.Y + (g * q.Y)) / width, (s.Y - p.Y + (h * s.Y)) / height, p.Y, g / width, h / height);
    }

    public (double X, double Y) Of(double x, double y)
    {
        var depth = (G * x) + (H * y) + 1;
        return (((A * x) + (B * y) + C) / depth, ((D * x) + (E * y) + F) / depth);
    }

    /// <summary>The smallest upright box around where a box comes to lie, with its own height along its middle, since text that is set straight is no higher for having lain aslant.</summary>
    public Box Of(Box box)
    {
        var (left, right) = (Of(box.Left, box.CenterY), Of(box.Right, box.CenterY));
        var (top, bottom) = (Of(box.CenterX, box.Top), Of(box.CenterX, box.Bottom));
        var high = Math.Abs(bottom.Y - top.Y) / 2;
        return new(Math.Min(left.X, right.X), Math.Min(left.Y, right.Y) - high, Math.Max(left.X, right.X), Math.Max(left.Y, right.Y) + high);
    }

    /// <summary>The way back.</summary>
    public PlaneMap Back
    {
        get
        {
            // The adjugate of the matrix, scaled so that its last member is 1.
            var (a, b, c) = (E - (F * H), (C * H) - B, (B * F) - (C * E));
            var (d, e, f) = ((F * G) - D, A - (C * G), (C * D) - (A * F));
            var (g, h, i) = ((D * H) - (E * G), (B * G) - (A * H), (A * E) - (B * D));
            return new(a / i, b / i, c / i, d / i, e / i, f / i, g / i, h / i);
        }
    }
}
