namespace Daxlin.Core.Checks;

/// <summary>How an amount of the whole order is shared out among the tax rates.</summary>
internal enum Share
{
    /// <summary>In proportion to the goods at each rate.</summary>
    ByAmounts,

    /// <summary>All of it at one of the rates.</summary>
    AtOneRate,

    /// <summary>It is not taxed, or taken off after tax.</summary>
    NotAtAll,
}
