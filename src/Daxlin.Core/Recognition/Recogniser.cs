using System.Collections.Immutable;
using Daxlin.Core.Capture;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Recognition;

/// <summary>Says which template an invoice belongs to, by the cues that must, may and must not stand on it.</summary>
public static class Recogniser
{
    /// <summary>
    /// All templates that recognise the pages, best first. Two with the same score are both first: the caller must not choose.
    /// </summary>
    public static ImmutableArray<TemplateMatch> Recognise(ImmutableArray<Page> pages, TemplateSet templates) =>
        Matches(templates.CandidatesFor(pages), template => InvoicePages.Of(pages, template).Pages);

    /// <summary>The same for one page of a file, which may be a cover or an annex.</summary>
    public static ImmutableArray<TemplateMatch> RecognisePage(Page page, TemplateSet templates) =>
        Matches(templates.CandidatesFor(page), _ => [page]);

    private static ImmutableArray<TemplateMatch> Matches(IEnumerable<Template> templates, Func<Template, ImmutableArray<Page>> pagesFor)
    {
        var matches = new List<TemplateMatch>();
        foreach (var template in templates)
        {
            var invoice = pagesFor(template);
            var rule = template.Recognise;
            if (!rule.Must.All(IsOn) || rule.MustNot.Any(IsOn))
                continue;
            var score = rule.Must.Concat(rule.May.Where(IsOn)).Sum(cue => cue.Spellings.Max(spelling => spelling.Length));
            matches.Add(new TemplateMatch(template, score));

            bool IsOn(Cue cue) => invoice.Any(cue.IsOn);
        }
        return [.. matches.OrderByDescending(match => match.Score).ThenBy(match => match.Template.Name, StringComparer.Ordinal)];
    }

    /// <summary>The template that an invoice belongs to; null if none recognises it, or if two do alike.</summary>
    public static Template? Choice(ImmutableArray<TemplateMatch> matches) => matches switch
    {
        [] => null,
        [var first, var second, ..] when first.Score == second.Score => null,
        _ => matches[0].Template,
    };
}
