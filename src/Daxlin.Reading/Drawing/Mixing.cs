namespace Daxlin.Reading.Drawing;

/// <summary>How what is drawn comes together with what lies under it (ISO 32000-2, 11.3.5).</summary>
/// <remarks>In the order of how little can be told.</remarks>
internal enum Mixing
{
    /// <summary>It is laid over it.</summary>
    None,

    /// <summary>Both colours are multiplied: black stays black, white vanishes.</summary>
    Multiplied,

    /// <summary>It is laid over it through a mask that is drawn, of which nobody can tell what it lets through.</summary>
    Masked,

    /// <summary>In another way.</summary>
    Untold,
}
