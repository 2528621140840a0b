namespace Daxlin.Core.Pages;

/// <summary>Which way the text of a page is drawn on it, where its rotation entry does not say so.</summary>
/// <remarks>
/// A page whose text runs up or down is read as if it were turned, so that it has lines like any other; places of values
/// are turned back, since a person sees the page as it is.
/// </remarks>
public enum Drawn
{
    Upright,

    /// <summary>Text runs from the top of the page to its bottom.</summary>
    Downwards,

    /// <summary>Text runs from the bottom of the page to its top.</summary>
    Upwards,

    /// <summary>Text stands on its head.</summary>
    UpsideDown,
}
