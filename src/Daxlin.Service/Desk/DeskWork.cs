using System.Collections.Immutable;
using System.Text.Json.Nodes;
using Daxlin.Core.Capture;
using Daxlin.Core.Drafting;
using Daxlin.Core.Pages;
using Daxlin.Core.Recognition;
using Daxlin.Core.Templates;
using Daxlin.Core.Templates.Json;
using Daxlin.Reading;
using Daxlin.Reading.Recognising;
using Daxlin.Service.Invoices;
using Daxlin.Service.Storage;
using Daxlin.Service.Templates;
using Daxlin.Service.Trial;

namespace Daxlin.Service.Desk;

/// <summary>Drafts and tries templates, inside a reading process.</summary>
internal static class DeskWork
{
    /// <exception cref="UnreadableException">A document cannot be read, or nothing can be drafted from it.</exception>
    public static TemplateDrafted Draft(DeskTask task)
    {
        var samples = task.Documents.Select(document => (Document: document, Own: Named(document.File, () => DeskPages.Of(document)))).ToList();
        var others = SamplesOf(task.Others);
        try
        {
            var draft = Drafter.Draft([.. samples.Select(one => new Sample(one.Document.File, one.Own.Read.Pages))], task.Vendor, others, task.TakenNames.ToHashSet());
            return Record(draft, [.. samples.Select(one => (Of(one.Document, one.Own.Size), one.Own.Read.Pages.Length))]);
        }
        catch (DraftException error)
        {
            throw new UnreadableException(error.Code, error.Message);
        }
    }

    public static TemplateDrafted Record(TemplateDraft draft, IReadOnlyList<(InvoiceDocument Document, int Pages)> samples) => new(
        draft.Document,
        [.. draft.Notes.Select(note => new DraftNoteRecord(note.Key, note.Certainty switch { Certainty.Certain => "certain", Certainty.Guess => "guess", _ => "notFound" }, note.Says))],
        [.. draft.Invoices.Select((invoice, index) => TriedInvoices.Of(samples[index].Document, samples[index].Pages, invoice))]);

    /// <summary>The ways to find what a person points at.</summary>
    /// <exception cref="UnreadableException">The document that is pointed at cannot be read, or the template does not say how the vendor writes.</exception>
    public static ImmutableArray<WayToFind> Ways(DeskTask task)
    {
        var pointed = task.Pointed!;
        var (template, shown, others) = PointedIn(task);
        var box = new Box(pointed.Box.Left, pointed.Box.Top, pointed.Box.Right, pointed.Box.Bottom);
        return [.. Pointing.Ways(shown, new PlaceOnPage(pointed.Page, box), pointed.Field, pointed.Kind, template.Reads, others, JsonNode.Parse(task.Template!)!["fields"]?[pointed.Field] as JsonObject)
            .Select(way => new WayToFind(way.Rule, way.Says, way.Fits, [.. way.Values.Select((value, index) => new ValueFound(others[index].FileName, value))]))];
    }

    /// <summary>The change of a template that gives what persons corrected again and again; null if none does.</summary>
    public static TaughtChangeRecord? Teach(DeskTask task)
    {
        var (correction, pages) = task.Repeated!;
        var samples = task.Documents.Select((document, at) =>
            new Sample(document.File, [.. DeskPages.Of(document).Read.Pages.Where(page => page.Number >= pages[at].First && page.Number <= pages[at].Last)])).ToList();
        return TaughtChange.For(correction, task.Template!, samples) is { } change ? new TaughtChangeRecord(change.Says, change.Document) : null;
    }

    /// <summary>The ways in which what a person says of the item rows can be said in the template.</summary>
    /// <exception cref="UnreadableException">The document that is pointed at cannot be read, or the template has faults.</exception>
    public static ImmutableArray<WayToCapture> RowWays(DeskTask task)
    {
        var pointed = task.PointedRows!;
        var (template, shown, others) = PointedIn(task);
        var place = pointed.Box is { } box ? new PlaceOnPage(pointed.Page, new Box(box.Left, box.Top, box.Right, box.Bottom)) : (PlaceOnPage?)null;
        return [.. RowPointing.Ways(shown, place, pointed.What, pointed.Column, task.Template!, template.Reads, others)
            .Select(way => new WayToCapture(way.Template, way.Says, way.Rows, way.Clear, others.Count + 1, way.Findings))];
    }

    private static (Template Template, Sample Shown, List<Sample> Others) PointedIn(DeskTask task)
    {
        if (TemplateReader.Check(task.Template!) is not { Template: { } template })
            throw new UnreadableException("template-faulty", "The template has faults; mend them first, so that it can be tried.");
        return (template, new Sample(task.Documents[0].File, DeskPages.Of(task.Documents[0]).Read.Pages), SamplesOf(task.Others));
    }

    /// <summary>Those that can be read; what cannot be is recognised by nothing and proves nothing.</summary>
    private static List<Sample> SamplesOf(ImmutableArray<DeskDocument> documents)
    {
        var samples = new List<Sample>();
        foreach (var document in documents)
        {
            try
            {
                samples.Add(new Sample(document.File, DeskPages.Of(document).Read.Pages));
            }
            catch (UnreadableException error) when (error is not PicturesUnreadException)
            {
                // Told where it was taken in.
            }
        }
        return samples;
    }

    public static TrialResult Try(DeskTask task)
    {
        var (template, faults) = TemplateReader.Check(task.Template!);
        var (invoices, unreadable) = (new List<InvoiceDetail>(), new List<UnreadableFile>());
        if (template is not null)
        {
            TemplateSet templates = [template];
            foreach (var document in task.Documents)
            {
                try
                {
                    var (read, size) = DeskPages.Of(document);
                    invoices.AddRange(TriedInvoices.Of(Of(document, size), read, templates));
                }
                catch (UnreadableException error) when (error is not PicturesUnreadException)
                {
                    unreadable.Add(new UnreadableFile(document.File, error.Code, error.Message));
                }
            }
        }
        return new TrialResult([TemplateChecks.Record("", template, faults)], [.. invoices], [.. unreadable]);
    }

    private static InvoiceDocument Of(DeskDocument document, long size) => new(document.File, document.Sha256, size, default);

    /// <summary>Of several documents a refusal says which it is.</summary>
    public static T Named<T>(string file, Func<T> read)
    {
        try
        {
            return read();
        }
        catch (UnreadableException error) when (error is not PicturesUnreadException)
        {
            throw new UnreadableException(error.Code, $"{file}: {error.Message}");
        }
    }
}
