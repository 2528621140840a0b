using System.Collections.Immutable;
using Daxlin.Core.Electronic;
using Daxlin.Core.Pages;
using Daxlin.Reading.Pdf;

namespace Daxlin.Reading;

/// <summary>Reads a received file: a PDF with what it carries, or an electronic invoice.</summary>
public static class DocumentReader
{
    /// <exception cref="UnreadableException">It is neither, or cannot be read.</exception>
    public static ReadDocument Read(ReadOnlyMemory<byte> bytes, ReadingLimits? limits = null)
    {
        if (ElectronicInvoiceReader.LooksLikeXml(bytes.Span))
            return ReadElectronic(bytes, limits ?? ReadingLimits.Usual);
        var (pages, attached) = PdfReader.ReadWhole(bytes, limits);
        return new ReadDocument(pages, [.. attached.Select(Witness).OfType<ElectronicFile>()], null) { Mended = FileBuild.FaultOf(bytes.Span) };
    }

    private static ElectronicFile? Witness(AttachedFile file) => file.Bytes is { } bytes
        ? ElectronicInvoiceReader.Read(file.Name, bytes) : new ElectronicFile(file.Name, null, "Its bytes within the PDF are damaged.");

    private static ReadDocument ReadElectronic(ReadOnlyMemory<byte> bytes, ReadingLimits limits)
    {
        try
        {
            var invoice = ElectronicInvoiceReader.ReadInvoice(bytes)
                ?? throw new UnreadableException("not-an-invoice", "This is XML, but no electronic invoice in UBL or CII: its root element is another.");
            var sheet = ElectronicSheet.Of(invoice);
            return sheet.Pages.Length <= limits.Pages ? new ReadDocument(sheet.Pages, [], sheet)
                : throw new UnreadableException("too-large", $"The electronic invoice takes {sheet.Pages.Length} pages to be shown; at most {limits.Pages} are read.");
        }
        catch (ElectronicFaultException error)
        {
            throw new UnreadableException("damaged", $"The electronic invoice cannot be read: {error.Message}", error);
        }
    }
}

/// <summary>A file that has been read.</summary>
/// <param name="Pages">Those of the PDF; of an electronic invoice those that it is set on.</param>
/// <param name="Attached">The electronic invoices that a PDF carries.</param>
/// <param name="Plain">The electronic invoice that the file is, on its pages; null for a PDF.</param>
public sealed record ReadDocument(ImmutableArray<Page> Pages, ImmutableArray<ElectronicFile> Attached, ElectronicSheet? Plain)
{
    /// <summary>What is wrong with the build of the file, which was read all the same; empty if it is whole.</summary>
    public string Mended { get; init; } = "";

    /// <summary>What is known of the document, with what it carries.</summary>
    public Core.Capture.DocumentFacts FactsWith(Core.Capture.DocumentFacts facts) => facts with { Electronic = Attached, Plain = Plain, Mended = Mended };
}
