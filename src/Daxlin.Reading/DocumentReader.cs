using System.Collections.Immutable;
using Daxlin.Core.Electronic;
using Daxlin.Core.Pages;
using Daxlin.Reading.Pdf;
using Daxlin.Reading.Pictures;
using Daxlin.Reading.Recognising;

namespace Daxlin.Reading;

/// <summary>Reads a received file: a PDF with what it carries, a picture, or an electronic invoice.</summary>
public static class DocumentReader
{
    /// <param name="recognised">What was recognised of its pages that are pictures; null where nothing is to be: such pages have no words then.</param>
    /// <exception cref="PicturesUnreadException">Pages of it are pictures that have not been recognised yet; or all of it is pictures, and nothing is to be recognised.</exception>
    /// <exception cref="UnreadableException">It is none of these, or cannot be read.</exception>
    public static ReadDocument Read(ReadOnlyMemory<byte> bytes, RecognisedPages? recognised = null, ReadingLimits? limits = null)
    {
        limits ??= ReadingLimits.Usual;
        if (ElectronicInvoiceReader.LooksLikeXml(bytes.Span))
            return ReadElectronic(bytes, limits);
        if (PictureFile.KindOf(bytes.Span) is not null)
            return new ReadDocument(WithRecognised([], [.. Enumerable.Range(1, PictureFile.PagesOf(bytes.Span, limits)).Select(number => new PicturedPage(number, 0, 0))], recognised), [], null);
        var (pages, attached, pictured) = PdfReader.ReadWhole(bytes, limits);
        return new ReadDocument(WithRecognised(pages, pictured, recognised), [.. attached.Select(Witness).OfType<ElectronicFile>()], null) { Mended = FileBuild.FaultOf(bytes.Span) };
    }

    /// <summary>The pages with what was recognised in the place of those that are pictures, or behind them.</summary>
    private static ImmutableArray<Page> WithRecognised(ImmutableArray<Page> pages, ImmutableArray<PicturedPage> pictured, RecognisedPages? recognised)
    {
        if (recognised is not null && pictured.Length > MostRecognised)
            throw new UnreadableException("too-large", $"{pictured.Length} pages of the document are pictures; at most {MostRecognised} are recognised. Scan invoices into files of their own, or fewer into one.");
        var missing = pictured.Where(page => recognised?.Has(page.Number) != true).ToImmutableArray();
        if (recognised is null ? pages.All(page => page.Words.IsEmpty) : !missing.IsEmpty)
            throw new PicturesUnreadException(missing, pages);
        if (recognised is null || pictured.IsEmpty)
            return pages;
        var found = pictured.Select(page => recognised.Find(page.Number) ?? throw new PicturesUnreadException([page])).ToDictionary(page => page.Number);
        ImmutableArray<Page> whole = pages.IsEmpty ? [.. found.Values] : [.. pages.Select(page => found.TryGetValue(page.Number, out var own) ? own with { Unseen = [.. page.Unseen.Where(IsHidden)] } : page)];
        return whole.Any(page => !page.Words.IsEmpty) ? whole : throw new UnreadableException(
            "no-text", "No word could be read on this document: it holds pictures without text, or such as nobody can read. Ask for a better scan.");
    }

    /// <summary>A scanner's own reading lies without ink over the picture, or under it: it is neither trusted nor held against the page.</summary>
    private static bool IsHidden(UnseenWord word) => word.Why is not (UnseenBy.NoInk or UnseenBy.Covered);

    /// <summary>So many pages are recognised of one document: some five minutes of one processor.</summary>
    private const int MostRecognised = 100;

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
