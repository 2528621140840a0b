namespace Daxlin.Core.Capture.Blocks;

/// <summary>What a line of a block is.</summary>
internal enum LineRole
{
    /// <summary>Text of a row, a heading or none of the block's business: what stands around it decides.</summary>
    Open,

    /// <summary>The line that a row begins on, or, where gaps or rulings part the rows, the first one with figures.</summary>
    Row,

    /// <summary>The line of a row that the template leaves out; what belongs to the row goes with it.</summary>
    RowLeftOut,

    /// <summary>More figures of the row above.</summary>
    More,

    /// <summary>Part of a list under the row above.</summary>
    Under,

    /// <summary>Wrapped text of the row above.</summary>
    TextOfAbove,

    /// <summary>Text of the row below, whose figures stand at its middle or its end.</summary>
    TextOfBelow,

    /// <summary>Taken onto the rows below: a section, a delivery note.</summary>
    Carried,

    /// <summary>A page's head or foot.</summary>
    Furniture,

    /// <summary>Says what the rows above come to.</summary>
    Sum,

    /// <summary>The template says that it is no row.</summary>
    LeftOut,

    /// <summary>None of these: a person must look.</summary>
    Unaccounted,
}
