namespace Daxlin.Core.Capture.Blocks;

/// <summary>Beside which height of a row's text its figures stand.</summary>
internal enum FigureAnchor
{
    /// <summary>The text is not around them.</summary>
    None,

    /// <summary>Its first line.</summary>
    Top,

    /// <summary>Half its height.</summary>
    Middle,

    /// <summary>Its last line.</summary>
    End,
}
