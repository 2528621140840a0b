using System.Collections.Immutable;
using Daxlin.Core.Checks;

namespace Daxlin.Core.Recognition;

/// <summary>Says why an invoice belongs to no template.</summary>
public static class Placing
{
    /// <param name="matches">The templates that recognise it: none, or two that do alike.</param>
    /// <param name="looksLike">The vendor whose name stands out on the page, if one does.</param>
    public static Finding FindingOf(ImmutableArray<TemplateMatch> matches, string? looksLike = null) => matches.IsEmpty
        ? Finding.Hold("no-template", string.IsNullOrEmpty(looksLike)
            ? "No template recognises this invoice; make a template for its vendor, and it is captured."
            : $"No template recognises this invoice, which looks like one of “{looksLike}”; make a template for its vendor, and it is captured.")
        : Finding.Hold(
            "several-templates",
            $"The templates {matches[0].Template.Name} and {matches[1].Template.Name} both recognise this invoice; "
            + "give one of them a cue that the other must not have.");
}
