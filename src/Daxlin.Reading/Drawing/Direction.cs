namespace Daxlin.Reading.Drawing;

/// <summary>Which way letters run on the page as a person sees it.</summary>
internal enum Direction
{
    Horizontal,
    Down,
    Up,
    UpsideDown,

    /// <summary>Neither along the page nor across it.</summary>
    Slanted,
}
