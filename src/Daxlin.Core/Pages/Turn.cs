namespace Daxlin.Core.Pages;

/// <summary>Which way words run on the page as a person sees it.</summary>
public enum Turn
{
    /// <summary>From left to right, as most text.</summary>
    Upright,

    /// <summary>Any other way: a note up the margin, a slanted stamp. Such words are kept but never captured from.</summary>
    Turned,
}
