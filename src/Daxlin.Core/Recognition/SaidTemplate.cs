using System.Collections.Immutable;
using Daxlin.Core.Checks;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Recognition;

/// <summary>Whoever sent a document said which template it is for, before anybody had read it.</summary>
/// <remarks>
/// It decides between templates that know an invoice. Nobody has looked, so it counts for nothing against the cues: an invoice on which they do not stand is held, whatever its figures come to.
/// A person who looks and says the same is a <see cref="ChosenTemplate"/>.
/// </remarks>
public static class SaidTemplate
{
    /// <summary>The code of its finding.</summary>
    public const string Code = "template-said";

    /// <summary>In the place of a choice's last page: it was said of all pages, however many there are.</summary>
    public const int ToTheEnd = int.MaxValue;

    internal static bool IsAmong(Template said, ImmutableArray<TemplateMatch> matches) => matches.Any(match => match.Template.Name == said.Name);

    /// <param name="recognised">The template that the cues speak for; null for none, or for several alike.</param>
    internal static Finding ToFinding(Template said, Template? recognised) => new(
        Code, Severity.Hold,
        $"It was sent as an invoice for the template {said.Name}, whose cues do not stand on it; {(recognised is null ? "no one template is" : $"the template {recognised.Name} is")} for it by its cues. Choose the right one.", []);
}
