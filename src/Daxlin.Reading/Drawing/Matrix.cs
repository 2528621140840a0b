namespace Daxlin.Reading.Drawing;

/// <summary>Takes points of one coordinate system to those of another (ISO 32000-2, 8.3.3): x' = A x + C y + E, y' = B x + D y + F.</summary>
internal readonly record struct Matrix(double A, double B, double C, double D, double E, double F)
{
    public static Matrix Identity { get; } = new(1, 0, 0, 1, 0, 0);

    /// <summary>The area that the unit square becomes; negative where it is mirrored.</summary>
    public double Area => (A * D) - (B * C);

    /// <param name="numbers">Six, as a file writes them.</param>
    public static Matrix Of(double[] numbers) => new(numbers[0], numbers[1], numbers[2], numbers[3], numbers[4], numbers[5]);

    public static Matrix MoveBy(double x, double y) => new(1, 0, 0, 1, x, y);

    /// <summary>First this one, then the next.</summary>
    public Matrix Then(in Matrix next) => new(
        (A * next.A) + (B * next.C), (A * next.B) + (B * next.D),
        (C * next.A) + (D * next.C), (C * next.B) + (D * next.D),
        (E * next.A) + (F * next.C) + next.E, (E * next.B) + (F * next.D) + next.F);

    public Point Take(double x, double y) => new((A * x) + (C * y) + E, (B * x) + (D * y) + F);
}
