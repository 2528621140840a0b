namespace Daxlin.Core.Pages;

/// <summary>A word that a file holds and a person does not see, so that nothing is captured from it; or of which nobody can tell.</summary>
/// <param name="Box">Where it stands, or would stand.</param>
/// <param name="Drawn">What is drawn in its place, where the file claims another text; else empty.</param>
public sealed record UnseenWord(string Text, Box Box, UnseenBy Why, string Drawn = "")
{
    /// <summary>What is the matter with it, as part of a sentence.</summary>
    public static string Says(UnseenBy why) => why switch
    {
        UnseenBy.SameColour => "in the colour of what lies under it",
        UnseenBy.Covered => "covered by what is drawn over it",
        UnseenBy.Clipped => "outside the part of the page that is drawn in",
        UnseenBy.LayerOff => "in a layer that is off",
        UnseenBy.NoInk => "drawn without ink",
        UnseenBy.TooSmall => "in type smaller than 2 points",
        UnseenBy.OffPage => "beside the page",
        UnseenBy.Untold => "perhaps: over or under it lies something whose mask or colours are not read",
        _ => "claimed by the file where something else is drawn",
    };
}
