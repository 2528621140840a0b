using System.Security.Cryptography;
using Daxlin.Core.Drafting;
using Daxlin.Reading;
using Daxlin.Service.Desk;
using Daxlin.Service.Invoices;

namespace Daxlin.Service.Trial;

/// <summary>Drafts a template from files. Nothing is stored, and no service need run.</summary>
internal static class FileDraft
{
    public const string Argument = "draft-template";

    /// <param name="arguments">The vendor's name, empty to look for it, and the files.</param>
    public static int Run(string[] arguments)
    {
        TrialOutput.Write(Of(arguments[0], arguments[1..]));
        return 0;
    }

    private static DraftOfFiles Of(string vendor, string[] files)
    {
        try
        {
            var samples = files.Select(file => (Path: file, File: Path.GetFileName(file), Bytes: File.ReadAllBytes(file)))
                .Select(one => (one.File, one.Bytes, Pages: DeskWork.Named(one.File, () => FileRecognition.Read(one.Path, one.Bytes).Pages))).ToList();
            var draft = Drafter.Draft([.. samples.Select(one => new Sample(one.File, one.Pages))], vendor);
            return new DraftOfFiles(DeskWork.Record(draft, [.. samples.Select(one => (
                new InvoiceDocument(one.File, Convert.ToHexStringLower(SHA256.HashData(one.Bytes)), one.Bytes.Length, default), one.Pages.Length))]), null);
        }
        catch (Exception error) when (error is UnreadableException or DraftException)
        {
            return new DraftOfFiles(null, error.Message);
        }
    }
}

/// <param name="Draft">Null if there is none.</param>
/// <param name="Refused">Why there is none.</param>
internal sealed record DraftOfFiles(TemplateDrafted? Draft, string? Refused);
