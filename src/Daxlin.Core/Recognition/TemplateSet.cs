using System.Collections;
using System.Collections.Immutable;
using System.Runtime.CompilerServices;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Recognition;

/// <summary>Templates that are tried together, with a way to find the few that can recognise a page among thousands.</summary>
/// <remarks>
/// One cue that must stand on the invoice, the one with the longest spelling, speaks for each template. All of them are
/// found in one pass over a page's text, so that 5,000 templates cost hardly more than five; whoever is found is then read,
/// if it was not yet, and asked in full.
/// </remarks>
[CollectionBuilder(typeof(TemplateSet), nameof(Of))]
public sealed class TemplateSet : IReadOnlyCollection<Template>
{
    private readonly ImmutableArray<Func<Template?>> templates;
    private readonly ImmutableArray<ImmutableArray<Cue>> musts;
    private readonly CueAutomaton automaton;

    /// <summary>All cues that must be there, not only one of each template; asked for where no template is found.</summary>
    private readonly Lazy<(CueAutomaton Automaton, ImmutableArray<(int Template, Cue Cue)> Cues)> all;

    /// <summary>Templates without a cue that must be there; the reader refuses such, but a program can make one.</summary>
    private readonly ImmutableArray<int> always;

    public TemplateSet(IEnumerable<Template> templates)
        : this(templates.Select(template => (template.Recognise.Must, (Func<Template?>)(() => template))))
    {
    }

    /// <param name="templates">Each with the cues that must stand on its invoices, and how to come by it; null is none.</param>
    public TemplateSet(IEnumerable<(ImmutableArray<Cue> Must, Func<Template?> Template)> templates)
    {
        var entries = templates.ToList();
        this.templates = [.. entries.Select(entry => entry.Template)];
        musts = [.. entries.Select(entry => entry.Must)];
        all = new(AllCues);
        var spellings = new List<(string Text, int Template)>();
        var without = ImmutableArray.CreateBuilder<int>();
        for (var index = 0; index < entries.Count; index++)
        {
            var cue = entries[index].Must.MaxBy(cue => cue.Spellings.Min(spelling => spelling.Length));
            if (cue is null || cue.Spellings.Any(string.IsNullOrWhiteSpace))
                without.Add(index);
            else
                spellings.AddRange(cue.Spellings.Select(spelling => (SquashedText.Squash(spelling).ToUpperInvariant(), index)));
        }
        automaton = new CueAutomaton(spellings);
        always = without.ToImmutable();
    }

    public static TemplateSet Of(ReadOnlySpan<Template> templates) => new(templates.ToArray());

    public int Count => templates.Length;

    public IEnumerator<Template> GetEnumerator() => templates.Select(template => template()).OfType<Template>().GetEnumerator();

    IEnumerator IEnumerable.GetEnumerator() => GetEnumerator();

    /// <summary>Those that may recognise one of the pages, in the order given; no other can.</summary>
    public IEnumerable<Template> CandidatesFor(params IEnumerable<Page> pages)
    {
        var found = new SortedSet<int>(always);
        foreach (var page in pages)
            automaton.Find(page.Squashed.Capitals, found);
        return found.Select(index => templates[index]()).OfType<Template>();
    }

    /// <summary>Those of which something is said by the cues that must stand on their invoices.</summary>
    public IEnumerable<Template> WithMust(Func<ImmutableArray<Cue>, bool> says) =>
        Enumerable.Range(0, musts.Length).Where(index => !musts[index].IsEmpty && says(musts[index])).Select(index => templates[index]()).OfType<Template>();

    /// <summary>The template that would recognise an invoice but for one cue; of several the one of which the most is there. Null if none would.</summary>
    /// <param name="pages">The invoice's, which no template recognises.</param>
    public NearMatch? NearlyFor(ImmutableArray<Page> pages)
    {
        var (automaton, cues) = all.Value;
        var found = new HashSet<int>();
        foreach (var page in pages)
            automaton.Find(page.Squashed.Capitals, found);
        var there = found.Where(at => pages.Any(cues[at].Cue.IsOn)).ToLookup(at => cues[at].Template, at => cues[at].Cue);
        return there.Select(own => (Nearly: Nearly(own.Key, [.. own], pages), There: own.Sum(cue => cue.Spellings.Max(spelling => spelling.Length)), own.Key))
            .Where(one => one.Nearly is not null).OrderByDescending(one => one.There).ThenBy(one => one.Key).FirstOrDefault().Nearly;
    }

    private NearMatch? Nearly(int template, HashSet<Cue> there, ImmutableArray<Page> pages)
    {
        var missing = musts[template].Where(cue => !there.Contains(cue)).ToList();
        if (missing.Count > 1 || templates[template]() is not { } read)
            return null;
        var forbidden = read.Recognise.MustNot.Where(cue => pages.Any(cue.IsOn)).ToList();
        return (missing, forbidden) switch
        {
            ([var cue], []) => new NearMatch(read, cue, IsThere: false),
            ([], [var cue]) => new NearMatch(read, cue, IsThere: true),
            _ => null,
        };
    }

    private (CueAutomaton, ImmutableArray<(int, Cue)>) AllCues()
    {
        ImmutableArray<(int Template, Cue Cue)> cues = [.. musts.SelectMany((own, template) => own.Select(cue => (template, cue)))];
        return (new CueAutomaton(cues.SelectMany((one, at) => one.Cue.Spellings.Where(spelling => !string.IsNullOrWhiteSpace(spelling)).Select(spelling => (SquashedText.Squash(spelling).ToUpperInvariant(), at)))), cues);
    }
}
