using System.Runtime.CompilerServices;
using Daxlin.Reading.Drawing;
using UglyToad.PdfPig;
using UglyToad.PdfPig.Content;
using UglyToad.PdfPig.Filters;
using UglyToad.PdfPig.Outline.Destinations;
using UglyToad.PdfPig.Parser;
using UglyToad.PdfPig.Tokenization.Scanner;
using UglyToad.PdfPig.Tokens;

namespace Daxlin.Reading.Pdf.Content;

/// <summary>Makes pages of a document to be had as what they draw; the PDF library finds their dictionaries.</summary>
internal sealed class DrawnPageFactory : IPageFactory<DrawnPage>
{
    /// <summary>What is known of a document, by the options that it was opened with: the library makes the factory itself, and hands it nothing else of ours.</summary>
    private static readonly ConditionalWeakTable<ParsingOptions, Known> known = [];

    private readonly DocumentContent document;

    private sealed record Known(PdfObjects Objects, OptionalContent Layers, ReadingLimits Limits);

    /// <remarks>The library asks for just these parameters.</remarks>
    public DrawnPageFactory(IPdfTokenScanner scanner, IResourceStore resources, ILookupFilterProvider filters, IPageContentParser parser, ParsingOptions options)
    {
        (_, _, _) = (scanner, filters, parser);
        var own = known.TryGetValue(options, out var found) ? found : throw new InvalidOperationException("The document was opened with other options.");
        document = new DocumentContent(own.Objects, resources, own.Layers, own.Limits);
    }

    /// <summary>Makes pages of a document to be had as what they draw.</summary>
    public static void AddTo(PdfDocument document, ParsingOptions options, PdfObjects objects, ReadingLimits limits)
    {
        known.AddOrUpdate(options, new Known(objects, new OptionalContent(document.Structure.Catalog.CatalogDictionary, objects), limits));
        document.AddPageFactory<DrawnPage, DrawnPageFactory>();
    }

    public DrawnPage Create(int number, DictionaryToken dictionary, PageTreeMembers pageTreeMembers, NamedDestinations namedDestinations)
    {
        var objects = document.Objects;
        var frame = PageFrame.Of(dictionary, pageTreeMembers, objects);
        var drawing = new PageDrawing(number, frame.Width, frame.Height, document.Limits);
        var own = document.ResourcesOf(dictionary) ?? new Resources([.. pageTreeMembers.ParentResources.Reverse()], document);
        var reader = new ContentReader(number, document, own, drawing, frame.Initial);
        reader.Read(ContentOf(dictionary, objects).Span);
        foreach (var annotation in Annotation.On(dictionary, objects, document.Layers))
            reader.DrawAppearance(annotation);
        return drawing.ToPage();
    }

    [ThreadStatic]
    private static byte[]? keptContent;

    /// <summary>A page's content, good until the thread draws another page; several streams are one, with a blank between them (ISO 32000-2, 7.8.2).</summary>
    private static ReadOnlyMemory<byte> ContentOf(DictionaryToken page, PdfObjects objects)
    {
        if (!page.Data.TryGetValue("Contents", out var entry))
            return ReadOnlyMemory<byte>.Empty;
        IReadOnlyList<IToken> parts = objects.Resolve(entry) is ArrayToken several ? several.Data : [entry];
        var content = keptContent ?? [];
        var length = 0;
        foreach (var part in parts)
        {
            if (objects.Resolve(part) is not StreamToken stream)
                throw PdfObjects.PartlyThere();
            var bytes = objects.UnpackContentBriefly(stream);
            if (length + bytes.Length + 1 > content.Length)
                Array.Resize(ref content, Math.Max(2 * content.Length, length + bytes.Length + 1));
            bytes.Span.CopyTo(content.AsSpan(length));
            content[length + bytes.Length] = (byte)'\n';
            length += bytes.Length + 1;
        }
        keptContent = content.Length <= MostKept ? content : null;
        return content.AsMemory(0, length);
    }

    /// <summary>Bytes of content kept for the thread's next page.</summary>
    private const int MostKept = 4 << 20;
}
