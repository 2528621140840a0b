using System.Collections.Immutable;
using System.Security.Cryptography;
using Daxlin.Core.Drafting;
using Daxlin.Core.Pages;
using Daxlin.Core.Recognition;
using Daxlin.Core.Templates.Json;
using Daxlin.Reading;
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
        var samples = task.Documents.Select(document => (Document: document, Bytes: BytesOf(document)))
            .Select(one => (one.Document, one.Bytes.Length, Pages: Named(one.Document.File, () => PdfReader.Read(one.Bytes)))).ToList();
        var others = new List<Sample>();
        foreach (var other in task.Others)
        {
            try
            {
                others.Add(new Sample(other.File, PdfReader.Read(BytesOf(other))));
            }
            catch (UnreadableException)
            {
                // What cannot be read is recognised by nothing.
            }
        }
        try
        {
            var draft = Drafter.Draft([.. samples.Select(one => new Sample(one.Document.File, one.Pages))], task.Vendor, others);
            return Record(draft, [.. samples.Select(one => (Of(one.Document, one.Length), one.Pages.Length))]);
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
                    var bytes = BytesOf(document);
                    invoices.AddRange(TriedInvoices.Of(Of(document, bytes.Length), PdfReader.Read(bytes), templates));
                }
                catch (UnreadableException error)
                {
                    unreadable.Add(new UnreadableFile(document.File, error.Code, error.Message));
                }
            }
        }
        return new TrialResult([TemplateChecks.Record("", template, faults)], [.. invoices], [.. unreadable]);
    }

    private static InvoiceDocument Of(DeskDocument document, long size) => new(document.File, document.Sha256, size, default);

    private static byte[] BytesOf(DeskDocument document)
    {
        byte[] bytes;
        try
        {
            bytes = File.ReadAllBytes(document.Path);
        }
        catch (Exception error) when (error is FileNotFoundException or DirectoryNotFoundException)
        {
            var (code, sentence) = DocumentStore.FaultMissing(document.Sha256);
            throw new UnreadableException(code, sentence);
        }
        if (Convert.ToHexStringLower(SHA256.HashData(bytes)) == document.Sha256)
            return bytes;
        var (altered, says) = DocumentStore.FaultAltered(document.Sha256);
        throw new UnreadableException(altered, says);
    }

    /// <summary>Of several documents a refusal says which it is.</summary>
    public static ImmutableArray<Page> Named(string file, Func<ImmutableArray<Page>> read)
    {
        try
        {
            return read();
        }
        catch (UnreadableException error)
        {
            throw new UnreadableException(error.Code, $"{file}: {error.Message}");
        }
    }
}
