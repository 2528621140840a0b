using Daxlin.Core.Checks;

namespace Daxlin.Core.Recognition;

/// <summary>Says why an invoice belongs to no template.</summary>
public static class Placing
{
    /// <param name="found">No template recognises it, or two do alike.</param>
    /// <param name="looksLike">The vendor whose name stands out on the page, if one does.</param>
    public static Finding FindingOf(FoundInvoice found, string? looksLike = null) => found.Matches is not [var first, var second, ..]
        ? Finding.Hold("no-template", found.Nearly is { } nearly
            ? $"No template recognises this invoice. {nearly.Says} If it is one of {nearly.Template.Vendor}, mend that cue, or choose the template for it."
            : string.IsNullOrEmpty(looksLike) ? "No template recognises this invoice; make a template for its vendor, and it is captured."
            : $"No template recognises this invoice, which looks like one of “{looksLike}”; make a template for its vendor, and it is captured.")
        : Finding.Hold(
            "several-templates",
            $"The templates {first.Template.Name} and {second.Template.Name} both recognise this invoice; "
            + "give one of them a cue that the other must not have.");
}
