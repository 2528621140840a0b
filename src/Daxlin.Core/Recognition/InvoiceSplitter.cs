using System.Collections.Immutable;
using Daxlin.Core.Capture;
using Daxlin.Core.Capture.Fields;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Recognition;

/// <summary>Takes a document apart into its invoices.</summary>
/// <remarks>
/// A new one begins on a page that another vendor's template recognises, on a page with a cue that the template names
/// ("Page 1 of"), and on a page where a header field, usually the invoice number, has another value than before. A page
/// that no template recognises by itself goes with the invoice before it: the second page of a long one, an annex.
/// </remarks>
public static class InvoiceSplitter
{
    /// <summary>The invoices in the order of their pages, with those that a person chose a template for.</summary>
    /// <param name="chosen">Of several for one page the first counts; one for pages that are not there counts for nothing. One that goes to <see cref="SaidTemplate.ToTheEnd"/> was said unseen, of all pages that no other is for.</param>
    public static ImmutableArray<FoundInvoice> Split(ImmutableArray<Page> pages, TemplateSet templates, ImmutableArray<ChosenTemplate> chosen)
    {
        var invoices = ImmutableArray.CreateBuilder<FoundInvoice>();
        var next = 0;
        foreach (var choice in Counting(chosen, pages.Length))
        {
            AddRest(choice.FirstPage - 1);
            next = choice.LastPage;
            var own = pages[(choice.FirstPage - 1)..choice.LastPage];
            invoices.Add(new FoundInvoice(own, Recogniser.Recognise(own, templates)) { Chosen = choice });
        }
        AddRest(pages.Length);
        var said = chosen.FirstOrDefault(choice => choice.LastPage == SaidTemplate.ToTheEnd)?.Template;
        return said is null ? invoices.ToImmutable() : [.. invoices.Select(invoice => invoice.Chosen is null ? invoice with { Said = said } : invoice)];

        void AddRest(int end)
        {
            if (end > next || pages.IsEmpty)
                invoices.AddRange(Split(pages[next..end], templates));
        }
    }

    private static List<ChosenTemplate> Counting(ImmutableArray<ChosenTemplate> chosen, int pages)
    {
        var counting = new List<ChosenTemplate>();
        foreach (var choice in chosen.Where(choice => choice.FirstPage >= 1 && choice.FirstPage <= choice.LastPage && choice.LastPage <= pages))
        {
            if (!counting.Exists(choice.Overlaps))
                counting.Add(choice);
        }
        counting.Sort((one, other) => one.FirstPage.CompareTo(other.FirstPage));
        return counting;
    }

    /// <summary>The invoices in the order of their pages; a document that nothing is known of is one.</summary>
    public static ImmutableArray<FoundInvoice> Split(ImmutableArray<Page> pages, TemplateSet templates)
    {
        var starts = pages.Length < 2 ? [(0, null)] : StartsOf(pages, templates);
        var invoices = ImmutableArray.CreateBuilder<FoundInvoice>(starts.Count);
        for (var index = 0; index < starts.Count; index++)
        {
            var next = index + 1 < starts.Count ? starts[index + 1] : (Page: pages.Length, Parting: null);
            var own = pages[starts[index].Page..next.Page];
            var matches = Recogniser.Recognise(own, templates);
            invoices.Add(new FoundInvoice(own, matches) { Parting = starts[index].Parting ?? next.Parting, Nearly = matches.IsEmpty ? templates.NearlyFor(own) : null });
        }
        return invoices.MoveToImmutable();
    }

    private static List<(int Page, Parting? Parting)> StartsOf(ImmutableArray<Page> pages, TemplateSet templates)
    {
        var starts = new List<(int, Parting?)> { (0, null) };
        Template? current = null;
        string? value = null;
        var lastKnown = -1;
        for (var index = 0; index < pages.Length; index++)
        {
            var matches = Recogniser.RecognisePage(pages[index], templates);
            if (matches.IsEmpty)
                continue;
            var template = matches.Any(match => match.Template == current) ? current! : matches[0].Template;
            var here = ValueOn(pages[index], template);
            if (current is not null && Begins(pages[index], template, current, here, value))
            {
                var isByValue = template.Vendor == current.Vendor && here is not null && value is not null && !SameValue.Is(here, value);
                starts.Add((
                    WithCover(index, lastKnown, pages, template),
                    isByValue ? new Parting(pages[index].Number, template.Pages.NewInvoice.NewValueOf!, value!, here!) : null));
                value = null;
            }
            (current, value, lastKnown) = (template, value is not null && here is not null && SameValue.Is(value, here) && value.Length < here.Length ? value : here ?? value, index);
        }
        return starts;
    }

    /// <remarks>
    /// Another template of the same vendor is no new invoice by itself: a cue that tells its layouts apart may stand on the
    /// first page only.
    /// </remarks>
    private static bool Begins(Page page, Template template, Template before, string? value, string? valueBefore) =>
        template.Vendor != before.Vendor
        || template.Pages.NewInvoice.Cues.Any(cue => cue.IsOn(page))
        || (value is not null && valueBefore is not null && !SameValue.Is(value, valueBefore));

    private static string? ValueOn(Page page, Template template) =>
        template.Fields.FirstOrDefault(rule => rule.Name == template.Pages.NewInvoice.NewValueOf) is { } rule
        && FieldCapture.Capture(rule, InvoicePages.OfAll([page]), template.Reads, Captions.Of(template)) is (Value: { } value, Findings: [])
            ? value.Value : null;

    /// <summary>The first page of an invoice with its cover: pages before it that nobody knows, as many as the template skips.</summary>
    private static int WithCover(int index, int lastKnown, ImmutableArray<Page> pages, Template template)
    {
        var start = index;
        while (start - 1 > lastKnown && index - start < template.Pages.SkipFirst && !LooksLikeInvoice.Says(pages[start - 1], template))
            start--;
        return start;
    }
}
