namespace Daxlin.Reading.Drawing;

/// <summary>A place on a page in points, from its lower left.</summary>
internal readonly record struct Point(double X, double Y);
