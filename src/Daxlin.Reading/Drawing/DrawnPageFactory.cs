using System.Runtime.CompilerServices;
using Daxlin.Reading.Pdf;
using Daxlin.Reading.Pdf.Content;
using UglyToad.PdfPig;
using UglyToad.PdfPig.Content;
using UglyToad.PdfPig.Filters;
using UglyToad.PdfPig.Outline.Destinations;
using UglyToad.PdfPig.Parser;
using UglyToad.PdfPig.Tokenization.Scanner;
using UglyToad.PdfPig.Tokens;

namespace Daxlin.Reading.Drawing;

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
    public static void AddTo(PdfDocument document, ParsingOptions options, ReadingLimits limits)
    {
        var structure = document.Structure;
        var objects = new PdfObjects(structure.TokenScanner, structure.FilterProvider);
        known.AddOrUpdate(options, new Known(objects, new OptionalContent(structure.Catalog.CatalogDictionary, objects), limits));
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

    /// <summary>A page's content; several streams are one, with a blank between them (ISO 32000-2, 7.8.2).</summary>
    private static ReadOnlyMemory<byte> ContentOf(DictionaryToken page, PdfObjects objects)
    {
        switch (objects.Get(page, "Contents"))
        {
            case StreamToken only:
                return objects.Unpack(only);
            case ArrayToken { Data: [var single] } when objects.Resolve(single) is StreamToken stream:
                return objects.Unpack(stream);
            case ArrayToken several:
                var whole = new MemoryStream();
                foreach (var part in several.Data)
                {
                    if (objects.Resolve(part) is not StreamToken stream)
                        continue;
                    whole.Write(objects.Unpack(stream).Span);
                    whole.WriteByte((byte)'\n');
                }
                return whole.GetBuffer().AsMemory(0, (int)whole.Length);
            default:
                return ReadOnlyMemory<byte>.Empty;
        }
    }
}
