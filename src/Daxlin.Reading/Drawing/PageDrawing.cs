using System.Collections.Immutable;
using Daxlin.Core.Pages;
using UglyToad.PdfPig;
using UglyToad.PdfPig.Content;
using UglyToad.PdfPig.Core;
using UglyToad.PdfPig.Filters;
using UglyToad.PdfPig.Geometry;
using UglyToad.PdfPig.Graphics;
using UglyToad.PdfPig.Graphics.Colors;
using UglyToad.PdfPig.Graphics.Core;
using UglyToad.PdfPig.Graphics.Operations;
using UglyToad.PdfPig.Parser;
using UglyToad.PdfPig.PdfFonts;
using UglyToad.PdfPig.Tokenization.Scanner;
using UglyToad.PdfPig.Tokens;

namespace Daxlin.Reading.Drawing;

/// <summary>Takes down what a page draws, thing by thing: letters with their ink, areas that cover, rulings.</summary>
/// <remarks>
/// The PDF library reads the content streams and fonts; here stands only what a person's eye needs to know beside: in which order things
/// are drawn, within which clip, in which layer, and how much of them lets through what lies under it.
/// </remarks>
internal sealed class PageDrawing : BaseStreamProcessor<DrawnPage>
{
    /// <summary>Ink that lets through all but so little is none.</summary>
    private const double Transparent = 0.1;

    /// <summary>Type smaller than this is not read by a person, in points.</summary>
    private const double Smallest = 2;

    private static readonly NameToken ActualText = NameToken.Create("ActualText");
    private static readonly NameToken SoftMask = NameToken.Create("SMask");
    private static readonly NameToken Mask = NameToken.Create("Mask");
    private static readonly NameToken ImageMask = NameToken.Create("ImageMask");

    /// <summary>Kept for the thread's next page, since a page's letters are many, and made into words before the next one is drawn.</summary>
    [ThreadStatic]
    private static List<DrawnLetter>? keptLetters;

    private readonly PdfRectangle page;
    private readonly OptionalContent layers;
    private readonly ReadingLimits limits;
    private readonly List<DrawnLetter> letters = keptLetters ??= [];
    private readonly ImmutableArray<Cover>.Builder covers = ImmutableArray.CreateBuilder<Cover>();
    private readonly ImmutableArray<Stroke>.Builder strokes = ImmutableArray.CreateBuilder<Stroke>();
    private readonly ImmutableArray<(string, string, DrawnLetter)>.Builder claims = ImmutableArray.CreateBuilder<(string, string, DrawnLetter)>();
    private readonly Stack<Box> clips = new();
    private readonly Stack<Marked> marked = new();
    private readonly List<Subpath> path = [];
    private Box clip;
    private int drawn;
    private int hidden;
    private (IColor? Color, Ink? Ink) lastInk;

    /// <summary>Content that is marked: in a layer that is off, or with a text that the file states for it.</summary>
    private readonly record struct Marked(bool IsHidden, string? Stated, int FirstLetter);

    public PageDrawing(
        int number, PdfRectangle page, IResourceStore resources, IPdfTokenScanner scanner, IPageContentParser parser, ILookupFilterProvider filters, CropBox cropBox, UserSpaceUnit unit,
        PageRotationDegrees rotation, TransformationMatrix initialMatrix, ParsingOptions options, OptionalContent layers, ReadingLimits limits)
        : base(number, resources, scanner, parser, filters, cropBox, unit, rotation, initialMatrix, options)
    {
        (this.page, this.layers, this.limits) = (page, layers, limits);
        letters.Clear();
        clip = new Box(double.MinValue, double.MinValue, double.MaxValue, double.MaxValue);
    }

    public DrawnPage Draw(int number, IReadOnlyList<IGraphicsStateOperation> operations, DictionaryToken dictionary)
    {
        ProcessOperations(operations);
        foreach (var annotation in Annotation.On(dictionary, PdfScanner, layers))
            DrawAppearance(annotation);
        return new DrawnPage(number, page.Width, page.Height, letters, covers.ToImmutable(), strokes.ToImmutable(), claims.ToImmutable());
    }

    public override DrawnPage Process(int pageNumberCurrent, IReadOnlyList<IGraphicsStateOperation> operations) => throw new NotSupportedException();

    public override void PushState()
    {
        base.PushState();
        clips.Push(clip);
    }

    public override void PopState()
    {
        base.PopState();
        if (clips.Count > 0)
            clip = clips.Pop();
    }

    public override void RenderGlyph(
        IFont font, CurrentGraphicsState state, double fontSize, double pointSize, int code, string unicode, long currentOffset,
        in TransformationMatrix renderingMatrix, in TransformationMatrix textMatrix, in TransformationMatrix transformationMatrix, CharacterBoundingBox characterBoundingBox)
    {
        if (letters.Count > limits.LettersPerPage)
            throw new UnreadableException("too-large", $"Page {PageNumber} holds more than {limits.LettersPerPage} letters; it was not read.");
        var start = transformationMatrix.Transform(textMatrix.Transform(renderingMatrix.Transform(new PdfPoint(0, 0))));
        var end = transformationMatrix.Transform(textMatrix.Transform(renderingMatrix.Transform(new PdfPoint(characterBoundingBox.Width, 0))));
        var middle = transformationMatrix.Transform(textMatrix.Transform(renderingMatrix.Transform(new PdfPoint(characterBoundingBox.Width / 2, 0.3))));
        var size = pointSize is > 0.5 and < 2000 ? pointSize : Math.Max(1, Math.Abs(middle.Y - start.Y) + Math.Abs(middle.X - start.X));
        if (letters.Count > 0 && unicode.Length == 1 && unicode[0] is >= '\u0300' and <= '\u036F' && currentOffset > 0 && letters[^1].Text.Length == 1 && char.IsLetter(letters[^1].Text[0]))
        {
            letters[^1] = letters[^1] with { Text = letters[^1].Text + unicode };
            return;
        }
        var mode = state.FontState.TextRenderingMode;
        var isStroked = mode is TextRenderingMode.Stroke or TextRenderingMode.StrokeClip;
        var unseen = hidden > 0 ? UnseenBy.LayerOff
            : mode is TextRenderingMode.Neither or TextRenderingMode.NeitherClip || (isStroked ? state.AlphaConstantStroking : state.AlphaConstantNonStroking) < Transparent ? UnseenBy.NoInk
            : middle.X < clip.Left || middle.X > clip.Right || middle.Y < clip.Top || middle.Y > clip.Bottom ? UnseenBy.Clipped
            : pointSize is > 0 and < Smallest && Math.Abs(end.X - start.X) + Math.Abs(end.Y - start.Y) < Smallest ? UnseenBy.TooSmall : (UnseenBy?)null;
        letters.Add(new DrawnLetter(unicode, start, end, middle, size, InkOf(isStroked ? state.CurrentStrokingColor : state.CurrentNonStrokingColor), drawn++, unseen));
    }

    private Ink? InkOf(IColor? color)
    {
        if (ReferenceEquals(color, lastInk.Color))
            return lastInk.Ink;
        Ink? ink = null;
        if (color is not null and not PatternColor)
        {
            var (red, green, blue) = color.ToRGBValues();
            ink = new Ink(red, green, blue);
        }
        lastInk = (color, ink);
        return ink;
    }

    public override void BeginMarkedContent(NameToken name, NameToken? propertyDictionaryName, DictionaryToken? properties)
    {
        var own = properties ?? (propertyDictionaryName is null ? null : ResourceStore.GetMarkedContentPropertiesDictionary(propertyDictionaryName));
        var isHidden = name.Data == OptionalContent.Key.Data && layers.Hides(own);
        string? stated = null;
        if (own is not null && own.TryGet(ActualText, out var text))
            stated = (text as IDataToken<string>)?.Data;
        hidden += isHidden ? 1 : 0;
        marked.Push(new Marked(isHidden, stated, letters.Count));
    }

    public override void EndMarkedContent()
    {
        if (!marked.TryPop(out var content))
            return;
        hidden -= content.IsHidden ? 1 : 0;
        if (content.Stated is { } stated && letters.Count > content.FirstLetter)
            Settle(stated, content.FirstLetter);
    }

    /// <summary>A text that the file states for some letters names those that no font does; where it says others than are drawn, it is a claim.</summary>
    private void Settle(string stated, int first)
    {
        var own = string.Concat(letters.Skip(first).Select(letter => letter.Text));
        if (own.Length == 0 || own.Any(IsUnnamed))
        {
            // Over several lines nobody could say where which of it stands.
            if ((letters[first] with { End = letters[^1].End }).Direction != letters[first].Direction)
                return;
            // They are one glyph to whoever reads: from the first one's start to the last one's end.
            letters[first] = letters[first] with { Text = stated.Length == 0 ? " " : stated, End = letters[^1].End };
            letters.RemoveRange(first + 1, letters.Count - first - 1);
        }
        else if (!PlainOf(own).SequenceEqual(PlainOf(stated)))
        {
            claims.Add((stated, own, letters[first]));
        }
        else if (stated.Length == own.Length)
        {
            // Small letters that are drawn as small capitals.
            for (int index = first, at = 0; index < letters.Count; at += letters[index++].Text.Length)
                letters[index] = letters[index] with { Text = stated.Substring(at, letters[index].Text.Length) };
        }
    }

    /// <summary>Letters and figures without regard to capitals and ligatures: what a person would read out.</summary>
    private static IEnumerable<char> PlainOf(string text) => Ligatures.WrittenOut(text).Where(char.IsLetterOrDigit).Select(char.ToUpperInvariant);

    private static bool IsUnnamed(char letter) => letter is '\0' or '\uFFFD' or (>= '\uE000' and <= '\uF8FF');

    public override void BeginSubpath() => path.Add(new Subpath());

    public override PdfPoint? CloseSubpath() => path.Count > 0 && path[^1].Points.Count > 0 ? path[^1].Points[0] : null;

    public override void MoveTo(double x, double y)
    {
        if (path.Count == 0 || path[^1].Points.Count > 0)
            BeginSubpath();
        Add(x, y);
    }

    public override void LineTo(double x, double y) => Add(x, y);

    public override void BezierCurveTo(double x2, double y2, double x3, double y3)
    {
        Add(x2, y2);
        Add(x3, y3);
    }

    public override void BezierCurveTo(double x1, double y1, double x2, double y2, double x3, double y3)
    {
        Add(x1, y1);
        Add(x2, y2);
        Add(x3, y3);
    }

    public override void Rectangle(double x, double y, double width, double height)
    {
        BeginSubpath();
        Add(x, y);
        Add(x + width, y);
        Add(x + width, y + height);
        Add(x, y + height);
        path[^1].IsRectangle = true;
    }

    private void Add(double x, double y)
    {
        // What is drawn on from a rectangle is another part.
        if (path.Count == 0 || path[^1].IsRectangle)
            BeginSubpath();
        var point = CurrentTransformationMatrix.Transform(new PdfPoint(x, y));
        path[^1].Add(point);
        CurrentPosition = point;
    }

    public override void StrokePath(bool close)
    {
        AddStrokes(isStroked: true);
        path.Clear();
    }

    public override void FillPath(FillingRule fillingRule, bool close)
    {
        AddCover();
        AddStrokes(isStroked: false);
        path.Clear();
    }

    public override void FillStrokePath(FillingRule fillingRule, bool close)
    {
        AddCover();
        AddStrokes(isStroked: true);
        path.Clear();
    }

    public override void EndPath() => path.Clear();

    public override void ClosePath()
    {
    }

    public override void ModifyClippingIntersect(FillingRule clippingRule)
    {
        if (BoundsOf(path.SelectMany(part => part.Points)) is { } bounds)
            clip = Within(clip, bounds);
    }

    protected override void ClipToRectangle(PdfRectangle rectangle, FillingRule clippingRule)
    {
        if (BoundsOf(new[] { rectangle.BottomLeft, rectangle.BottomRight, rectangle.TopLeft, rectangle.TopRight }.Select(CurrentTransformationMatrix.Transform)) is { } bounds)
            clip = Within(clip, bounds);
    }

    private static Box Within(Box one, Box other) => new(
        Math.Max(one.Left, other.Left), Math.Max(one.Top, other.Top), Math.Min(one.Right, other.Right), Math.Min(one.Bottom, other.Bottom));

    /// <summary>Around some points; the top is the smaller height here, since heights count from the page's foot.</summary>
    private static Box? BoundsOf(IEnumerable<PdfPoint> points)
    {
        var (left, low, right, high) = (double.MaxValue, double.MaxValue, double.MinValue, double.MinValue);
        foreach (var point in points)
            (left, low, right, high) = (Math.Min(left, point.X), Math.Min(low, point.Y), Math.Max(right, point.X), Math.Max(high, point.Y));
        return left > right ? null : new Box(left, low, right, high);
    }

    /// <summary>How much of what lies under it an area hides; null where it is mixed in another way than by a number.</summary>
    private static double? OpacityOf(CurrentGraphicsState state, double alpha) => state.SoftMask is null && state.BlendMode is BlendMode.Normal ? alpha : null;

    private void AddCover()
    {
        var state = GetCurrentState();
        // Most are rulings drawn as thin rectangles.
        if (path.Exists(part => part.Points.Count > 2 && part.Bounds is { Width: > ThinAs, Height: > ThinAs }))
            Add([.. path.Where(part => part.Points.Count > 2).Select(part => part.Points.ToImmutableArray())], null, InkOf(state.CurrentNonStrokingColor), OpacityOf(state, state.AlphaConstantNonStroking));
    }

    private void Add(ImmutableArray<ImmutableArray<PdfPoint>> parts, Picture? picture, Ink? ink, double? opacity)
    {
        if (hidden == 0 && BoundsOf(parts.SelectMany(part => part)) is { } bounds && Within(clip, bounds) is { Width: > ThinAs, Height: > ThinAs } seen)
            covers.Add(new Cover(parts, seen, picture, ink, opacity, drawn++));
        if (covers.Count > limits.LettersPerPage)
            throw new UnreadableException("too-large", $"Page {PageNumber} draws more than {limits.LettersPerPage} areas; it was not read.");
    }

    /// <summary>Takes a line that is thick enough to hide letters as the areas of its straight parts.</summary>
    private void AddThickLines()
    {
        var state = GetCurrentState();
        var matrix = CurrentTransformationMatrix;
        var half = state.LineWidth * Math.Sqrt(Math.Abs((matrix.A * matrix.D) - (matrix.B * matrix.C))) / 2;
        if (2 * half <= ThinAs)
            return;
        foreach (var points in path.Select(part => part.Points))
        {
            for (var index = 1; index < points.Count; index++)
            {
                var (from, to) = (points[index - 1], points[index]);
                var length = Math.Sqrt(((to.X - from.X) * (to.X - from.X)) + ((to.Y - from.Y) * (to.Y - from.Y)));
                if (length < ThinAs)
                    continue;
                var (across, up) = (-(to.Y - from.Y) * half / length, (to.X - from.X) * half / length);
                Add(
                    [[new(from.X + across, from.Y + up), new(to.X + across, to.Y + up), new(to.X - across, to.Y - up), new(from.X - across, from.Y - up)]],
                    null, InkOf(state.CurrentStrokingColor), OpacityOf(state, state.AlphaConstantStroking));
            }
        }
    }

    private const double ThinAs = 2.5;
    private const double ShortestStroke = 6;

    private void AddStrokes(bool isStroked)
    {
        if (isStroked)
            AddThickLines();
        foreach (var part in path)
        {
            if (part.Points.Count < 2)
                continue;
            var bounds = part.Bounds;
            var box = new Box(bounds.Left, page.Height - bounds.Bottom, bounds.Right, page.Height - bounds.Top);
            if (Math.Min(box.Width, box.Height) <= ThinAs)
            {
                if (Math.Max(box.Width, box.Height) >= ShortestStroke)
                    strokes.Add(new Stroke(box));
            }
            else if (isStroked && part.IsRectangle)
            {
                // A cell drawn as a frame: its four sides are rulings.
                strokes.Add(new Stroke(box with { Right = box.Left }));
                strokes.Add(new Stroke(box with { Left = box.Right }));
                strokes.Add(new Stroke(box with { Bottom = box.Top }));
                strokes.Add(new Stroke(box with { Top = box.Bottom }));
            }
        }
    }

    public override void ApplyXObject(NameToken xObjectName)
    {
        var isHidden = layers.Hides(ResourceStore.TryGetXObject(xObjectName, out var stream) && stream.StreamDictionary.TryGet(OptionalContent.Key, out var layer) ? layer : null);
        hidden += isHidden ? 1 : 0;
        base.ApplyXObject(xObjectName);
        hidden -= isHidden ? 1 : 0;
    }

    protected override void RenderXObjectImage(XObjectContentRecord xObjectContentRecord)
    {
        var (dictionary, placed) = (xObjectContentRecord.Stream.StreamDictionary, xObjectContentRecord.AppliedTransformation);
        AddPicture(dictionary, placed, () => PictureSamples.Of(xObjectContentRecord.Stream, PdfScanner, FilterProvider));
    }

    protected override void RenderInlineImage(InlineImage inlineImage) => AddPicture(inlineImage.ImageDictionary, CurrentTransformationMatrix, () => null);

    private void AddPicture(DictionaryToken dictionary, TransformationMatrix placed, Func<PictureSamples?> samples)
    {
        var isWhole = !dictionary.ContainsKey(SoftMask) && !dictionary.ContainsKey(Mask) && !(dictionary.TryGet<BooleanToken>(ImageMask, PdfScanner, out var isMask) && isMask.Data);
        var state = GetCurrentState();
        ImmutableArray<PdfPoint> corners = [.. new[] { new PdfPoint(0, 0), new PdfPoint(1, 0), new PdfPoint(1, 1), new PdfPoint(0, 1) }.Select(placed.Transform)];
        Add([corners], new Picture(new Lazy<PictureSamples?>(samples), placed), null, isWhole ? OpacityOf(state, state.AlphaConstantNonStroking) : null);
    }

    /// <summary>A shading fills what the clip leaves, in colours that run from one into the other.</summary>
    public override void PaintShading(NameToken shadingName)
    {
        var area = Within(clip, new Box(0, 0, page.Width, page.Height));
        Add([[new(area.Left, area.Top), new(area.Right, area.Top), new(area.Right, area.Bottom), new(area.Left, area.Bottom)]], null, null, OpacityOf(GetCurrentState(), GetCurrentState().AlphaConstantNonStroking));
    }

    /// <summary>Draws what an annotation or a form field shows over the page.</summary>
    private void DrawAppearance(Annotation annotation)
    {
        if (BoundsOf(annotation.Corners.Select(annotation.Matrix.Transform)) is not { Width: > 0, Height: > 0 } bounds)
            return;
        var place = annotation.Place;
        var (across, up) = (place.Width / bounds.Width, place.Height / bounds.Height);
        PushState();
        ModifyCurrentTransformationMatrix(TransformationMatrix.FromValues(across, 0, 0, up, place.Left - (bounds.Left * across), place.Top - (bounds.Top * up)));
        ProcessFormXObject(annotation.Appearance, Annotation.Normal);
        PopState();
    }
}
