using System.Runtime.CompilerServices;
using UglyToad.PdfPig;
using UglyToad.PdfPig.Content;
using UglyToad.PdfPig.Core;
using UglyToad.PdfPig.Filters;
using UglyToad.PdfPig.Geometry;
using UglyToad.PdfPig.Graphics.Operations;
using UglyToad.PdfPig.Outline.Destinations;
using UglyToad.PdfPig.Parser;
using UglyToad.PdfPig.Tokenization.Scanner;
using UglyToad.PdfPig.Tokens;

namespace Daxlin.Reading.Drawing;

/// <summary>Has the PDF library draw pages into <see cref="PageDrawing"/>.</summary>
internal sealed class DrawnPageFactory(
    IPdfTokenScanner scanner, IResourceStore resources, ILookupFilterProvider filters, IPageContentParser parser, ParsingOptions options)
    : BasePageFactory<DrawnPage>(scanner, resources, filters, parser, options)
{
    /// <summary>What is known of a document, by the options that it was opened with: the library makes the factory itself, and hands it nothing else of ours.</summary>
    private static readonly ConditionalWeakTable<ParsingOptions, Known> known = [];

    private sealed record Known(OptionalContent Layers, ReadingLimits Limits);

    /// <summary>Makes pages of a document to be had as what they draw.</summary>
    public static void AddTo(PdfDocument document, ParsingOptions options, ReadingLimits limits)
    {
        known.AddOrUpdate(options, new Known(new OptionalContent(document), limits));
        document.AddPageFactory<DrawnPage, DrawnPageFactory>();
    }

    protected override DrawnPage ProcessPage(
        int pageNumber, DictionaryToken dictionary, NamedDestinations namedDestinations, MediaBox mediaBox, CropBox cropBox, UserSpaceUnit userSpaceUnit,
        PageRotationDegrees rotation, TransformationMatrix initialMatrix, IReadOnlyList<IGraphicsStateOperation> operations)
    {
        var (layers, limits) = known.TryGetValue(ParsingOptions, out var own) ? own : throw new InvalidOperationException("The document was opened with other options.");
        var bounds = cropBox.GetVisibleBounds(rotation);
        var drawing = new PageDrawing(
            pageNumber, bounds, ResourceStore, PdfScanner, PageContentParser, FilterProvider, cropBox, userSpaceUnit, rotation, initialMatrix, ParsingOptions, layers, limits);
        return drawing.Draw(pageNumber, operations, dictionary);
    }
}
