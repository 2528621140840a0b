using System.Security.Cryptography;
using Daxlin.Core.Recognition;
using Daxlin.Core.Templates;
using Daxlin.Core.Templates.Json;
using Daxlin.Reading;
using Daxlin.Service.Invoices;
using Daxlin.Service.Templates;

namespace Daxlin.Service.Trial;

/// <summary>Captures and checks documents by templates that are not saved. Nothing is stored, and no service need run.</summary>
/// <remarks>
/// It runs as a process of its own that the client starts, with the reading processes' limit of memory, writes one JSON
/// document to the standard output, and ends.
/// </remarks>
internal static class TemplateTrial
{
    public const string Argument = "try-templates";

    /// <summary>What stands between the templates and the documents.</summary>
    private const string Separator = "--";

    /// <param name="arguments">Files of templates, <c>--</c>, files of documents.</param>
    public static int Run(string[] arguments)
    {
        TrialOutput.Write(Try([.. arguments.TakeWhile(one => one != Separator)], [.. arguments.SkipWhile(one => one != Separator).Skip(1)]));
        return 0;
    }

    private static TrialResult Try(string[] templateFiles, string[] documentFiles)
    {
        // A person waits for the first answer: the first document is read while the templates are.
        var first = documentFiles.Length > 0 ? Task.Run(() => Read(documentFiles[0])) : null;
        var warm = Task.Run(TrialOutput.Prepare<TrialResult>);
        var read = templateFiles.Select(file => (File: file, Check: TemplateReader.Check(File.ReadAllText(file)))).ToList();
        TemplateSet templates = [.. read.Select(entry => entry.Check.Template).OfType<Template>()];
        var invoices = new List<InvoiceDetail>();
        var unreadable = new List<UnreadableFile>();
        // By a template with faults nothing is tried: what came out would say nothing of what was meant.
        foreach (var file in templates.Count == read.Count ? documentFiles : [])
        {
            var (document, error) = file == documentFiles[0] ? first!.Result : Read(file);
            if (document is not null)
                invoices.AddRange(TriedInvoices.Of(document.Document, document.Read, templates));
            else
                unreadable.Add(new UnreadableFile(Path.GetFileName(file), error!.Code, error.Message));
        }
        warm.Wait();
        return new TrialResult(
            [.. read.Select(entry => TemplateChecks.Record(entry.File, entry.Check.Template, entry.Check.Faults))], [.. invoices], [.. unreadable]);
    }

    private static (TriedDocument? Document, UnreadableException? Error) Read(string file)
    {
        var bytes = File.ReadAllBytes(file);
        try
        {
            var document = new InvoiceDocument(Path.GetFileName(file), Convert.ToHexStringLower(SHA256.HashData(bytes)), bytes.Length, default);
            return (new TriedDocument(document, FileRecognition.Read(file, bytes)), null);
        }
        catch (UnreadableException error)
        {
            return (null, error);
        }
    }

    private sealed record TriedDocument(InvoiceDocument Document, ReadDocument Read);
}
