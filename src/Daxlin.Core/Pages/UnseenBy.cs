namespace Daxlin.Core.Pages;

/// <summary>Why a person does not see a word that a file holds.</summary>
public enum UnseenBy
{
    /// <summary>In the colour of what lies under it.</summary>
    SameColour,

    /// <summary>Something was drawn over it afterwards.</summary>
    Covered,

    /// <summary>Outside the part of the page that is drawn in.</summary>
    Clipped,

    /// <summary>In a layer that is off when the file is opened.</summary>
    LayerOff,

    /// <summary>Drawn without ink, or with ink that lets everything through.</summary>
    NoInk,

    /// <summary>In type smaller than two points.</summary>
    TooSmall,

    /// <summary>Beside the page.</summary>
    OffPage,

    /// <summary>The file states it for letters that say something else.</summary>
    Claimed,

    /// <summary>
    /// Nobody can tell whether it is seen: under what is drawn through a mask that is not read, or light on what has no colours that are
    /// read. The word is one of the page's all the same.
    /// </summary>
    Untold,
}
