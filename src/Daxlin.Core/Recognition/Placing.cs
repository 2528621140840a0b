using System.Collections.Immutable;
using Daxlin.Core.Capture;
using Daxlin.Core.Checks;

namespace Daxlin.Core.Recognition;

/// <summary>Says why an invoice belongs to no template.</summary>
public static class Placing
{
    /// <summary>The code of what no template recognises.</summary>
    public const string NoTemplate = "no-template";

    /// <summary>The code of what two templates recognise alike.</summary>
    public const string SeveralTemplates = "several-templates";

    /// <summary>Why it belongs to none, first, and what else is to be looked at although nothing was captured.</summary>
    public static ImmutableArray<Finding> FindingsOf(FoundInvoice found, string? looksLike = null) => [FindingOf(found, looksLike), .. HiddenText.Of(found.Pages, found.Template), .. TextOverText.Of(found.Pages)];

    /// <param name="found">No template recognises it, or two do alike.</param>
    /// <param name="looksLike">The vendor whose name stands out on the page, if one does.</param>
    public static Finding FindingOf(FoundInvoice found, string? looksLike = null) => found.Matches is not [var first, var second, ..]
        ? found.Nearly is { } nearly
            ? Finding.Hold(NoTemplate, $"No template recognises this invoice. {nearly.Says} If it is one of {nearly.Template.Vendor}, mend that cue, or choose the template for it.")
            : Unrecognised(looksLike)
        : Finding.Hold(
            SeveralTemplates,
            $"The templates {first.Template.Name} and {second.Template.Name} both recognise this invoice; "
            + "give one of them a cue that the other must not have.");

    /// <summary>That an invoice is like none of what the templates recognise.</summary>
    /// <param name="looksLike">The vendor that it looks like one of; null or empty for none.</param>
    public static Finding Unrecognised(string? looksLike) => Finding.Hold(NoTemplate, string.IsNullOrEmpty(looksLike)
        ? "No template recognises this invoice; make a template for its vendor, and it is captured."
        : $"No template recognises this invoice, which looks like one of “{looksLike}”; make a template for its vendor, and it is captured.");
}
