using Daxlin.Core.Checks;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Recognition;

/// <summary>A person said which template some pages of a document are for, whatever their cues say.</summary>
/// <remarks>Those pages are one invoice then, so that is settled by it, too. The others are parted as if these were not there.</remarks>
/// <param name="FirstPage">From 1.</param>
/// <param name="LastPage">The last of them, not the first behind them.</param>
public sealed record ChosenTemplate(int FirstPage, int LastPage, Template Template)
{
    /// <summary>The code of its finding.</summary>
    public const string Code = "template-chosen";

    /// <summary>What stands on an invoice that was captured so.</summary>
    /// <param name="recognised">The template that the cues speak for; null for none, or for several alike.</param>
    public Finding ToFinding(Template? recognised) => new(
        Code, Severity.Note,
        $"A person chose the template {Template.Name}; by its cues {(recognised is null ? "no one template is" : $"the template {recognised.Name} is")} for this invoice.", []);

    internal bool Overlaps(ChosenTemplate other) => FirstPage <= other.LastPage && LastPage >= other.FirstPage;
}
