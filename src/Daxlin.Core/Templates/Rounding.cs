namespace Daxlin.Core.Templates;

/// <summary>What becomes of half a minor unit, and of the parts below it.</summary>
public enum Rounding
{
    /// <summary>0.005 EUR becomes 0.01, -0.005 becomes -0.01.</summary>
    HalfUp,

    /// <summary>0.005 EUR becomes 0.00, 0.015 becomes 0.02.</summary>
    HalfEven,

    /// <summary>Whatever is below a minor unit is dropped: 78,439.5 JPY becomes 78,439.</summary>
    Down,
}
