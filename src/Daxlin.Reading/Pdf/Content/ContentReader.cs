using System.Text;
using Daxlin.Core.Pages;
using Daxlin.Reading.Drawing;
using Daxlin.Reading.Pdf.Fonts;
using Daxlin.Reading.Pdf.Syntax;
using UglyToad.PdfPig.Core;
using UglyToad.PdfPig.Tokens;

namespace Daxlin.Reading.Pdf.Content;

/// <summary>Carries out a page's content (ISO 32000-2, 7.8, 8 and 9), as far as it decides which text is drawn where, and what covers it.</summary>
/// <remarks>Makes no object for an operator or a letter. No outlines of glyphs are drawn, and those of Type 3 fonts are not carried out.</remarks>
internal sealed class ContentReader
{
    /// <summary>Drawings within drawings.</summary>
    private const int DeepestDrawing = 24;

    /// <summary>States saved within each other; more is a damaged page, whose further ones are not told apart.</summary>
    private const int MostSaved = 4096;

    /// <summary>Operators of a page; one with 200,000 letters has about as many.</summary>
    private const int MostOperators = 10_000_000;

    private readonly DocumentContent document;
    private readonly PdfObjects objects;
    private readonly PageDrawing drawing;
    private readonly int number;
    private readonly Stack<GraphicsState> saved = new();
    private readonly Stack<Marked> marked = new();
    private readonly HashSet<IndirectReference> open = [];
    private readonly DrawnPath path = new();
    private readonly HashSet<string> names = new(StringComparer.Ordinal);
    private readonly HashSet<string>.AlternateLookup<ReadOnlySpan<char>> namesBySpan;
    private readonly Dictionary<(double, double, double), Paint> paints = [];
    private GraphicsState state = new();
    private Matrix text = Matrix.Identity;
    private Matrix line = Matrix.Identity;
    private Resources resources;
    private (bool IsAsked, bool IsEvenOdd) clipping;
    private int depth;
    private int carriedOut;

    /// <summary>A glyph is drawn in the ink of its text: colours within it say nothing (9.6.4).</summary>
    private bool hasOneInk;

    /// <summary>Content that is marked: in a layer that is off, or with a text that the file states for it.</summary>
    private readonly record struct Marked(bool IsHidden, string? Stated, int FirstLetter);

    /// <param name="number">The page's.</param>
    /// <param name="initial">Takes the page's own coordinates to points from its lower left, as a person sees it.</param>
    public ContentReader(int number, DocumentContent document, Resources resources, PageDrawing drawing, in Matrix initial)
    {
        (this.number, this.document, objects, this.resources, this.drawing) = (number, document, document.Objects, resources, drawing);
        state.Matrix = initial;
        namesBySpan = names.GetAlternateLookup<ReadOnlySpan<char>>();
    }

    /// <summary>Carries out some content, and leaves nothing open behind it.</summary>
    public void Read(ReadOnlySpan<byte> content)
    {
        var (savedBefore, markedBefore) = (saved.Count, marked.Count);
        var operands = new Operands();
        var lexer = new Lexer(content, operands);
        path.Clear();
        while (lexer.Next(out var word))
        {
            if (++carriedOut > MostOperators)
                throw new UnreadableException("too-large", $"Page {number} has more than {MostOperators} operations, which no invoice needs; it was not read.");
            var found = ContentOperators.Of(word);
            switch (found)
            {
                case ContentOperator.SaveState:
                    if (saved.Count - savedBefore < MostSaved)
                        saved.Push(state);
                    break;
                case ContentOperator.RestoreState:
                    if (saved.Count > savedBefore)
                        state = saved.Pop();
                    break;
                case ContentOperator.EndMarked:
                    if (marked.Count > markedBefore)
                        EndMarked();
                    break;
                case ContentOperator.PictureData:
                    ReadPicture(ref lexer, operands);
                    break;
                default:
                    if (!IsPath(found, operands) && !IsColour(found, operands, content))
                        Apply(found, operands, content);
                    break;
            }
        }
        while (marked.Count > markedBefore)
            EndMarked();
        while (saved.Count > savedBefore)
            state = saved.Pop();
    }

    private void Apply(ContentOperator found, Operands operands, ReadOnlySpan<byte> content)
    {
        switch (found)
        {
            case ContentOperator.ChangeMatrix when operands.AreNumbers(6):
                state.Matrix = MatrixOf(operands).Then(state.Matrix);
                break;
            case ContentOperator.LineWidth:
                state.LineWidth = operands.Number(0);
                break;
            case ContentOperator.NamedState when NameAt(operands, 0, content) is { } name && resources.StateOf(name) is { } change:
                Change(change);
                break;
            case ContentOperator.BeginText:
                text = line = Matrix.Identity;
                break;
            case ContentOperator.CharacterSpacing:
                state.CharacterSpacing = operands.Number(0);
                break;
            case ContentOperator.WordSpacing:
                state.WordSpacing = operands.Number(0);
                break;
            case ContentOperator.Stretch:
                state.Stretch = operands.Number(0) / 100;
                break;
            case ContentOperator.Leading:
                state.Leading = operands.Number(0);
                break;
            case ContentOperator.Font when NameAt(operands, 1, content) is { } font:
                state.Font = resources.FontOf(font) ?? MissingFont.Instance;
                state.FontSize = operands.Number(0);
                break;
            case ContentOperator.TextMode:
                state.Mode = (TextMode)(int)operands.Number(0);
                break;
            case ContentOperator.Rise:
                state.Rise = operands.Number(0);
                break;
            case ContentOperator.MoveLine:
                MoveLine(operands.Number(1), operands.Number(0));
                break;
            case ContentOperator.MoveLineAndSetLeading:
                state.Leading = -operands.Number(0);
                MoveLine(operands.Number(1), operands.Number(0));
                break;
            case ContentOperator.TextMatrix when operands.AreNumbers(6):
                text = line = MatrixOf(operands);
                break;
            case ContentOperator.NextLine:
                MoveLine(0, -state.Leading);
                break;
            case ContentOperator.Show or ContentOperator.ShowSpaced:
                Show(operands, content);
                break;
            case ContentOperator.ShowOnNextLineWithSpacing:
                if (operands.Count >= 3)
                    (state.WordSpacing, state.CharacterSpacing) = (operands.Number(2), operands.Number(1));
                goto case ContentOperator.ShowOnNextLine;
            case ContentOperator.ShowOnNextLine:
                MoveLine(0, -state.Leading);
                Show(operands, content);
                break;
            case ContentOperator.OneInk:
                hasOneInk = drawing.IsGlyph;
                break;
            case ContentOperator.Shading:
                drawing.AddShading(NameAt(operands, 0, content) is { } shading ? resources.ShadingOf(shading) : Drawing.Paint.Untold, state);
                break;
            case ContentOperator.Draw when NameAt(operands, 0, content) is { } name:
                Draw(name);
                break;
            case ContentOperator.BeginMarked:
                marked.Push(new Marked(false, null, drawing.Letters));
                break;
            case ContentOperator.BeginMarkedWithProperties:
                BeginMarked(operands, content);
                break;
        }
    }

    private bool IsPath(ContentOperator found, Operands operands)
    {
        switch (found)
        {
            case ContentOperator.MoveTo:
                path.Begin(PointAt(operands, 0));
                return true;
            case ContentOperator.LineTo:
                path.Add(PointAt(operands, 0));
                return true;
            case ContentOperator.Curve:
                path.Add(PointAt(operands, 4));
                path.Add(PointAt(operands, 2));
                path.Add(PointAt(operands, 0));
                return true;
            case ContentOperator.CurveFromHere or ContentOperator.CurveToEnd:
                path.Add(PointAt(operands, 2));
                path.Add(PointAt(operands, 0));
                return true;
            case ContentOperator.ClosePath:
                path.Close();
                return true;
            case ContentOperator.Rectangle:
                path.AddRectangle(state.Matrix, operands.Number(3), operands.Number(2), operands.Number(1), operands.Number(0));
                return true;
            case ContentOperator.Clip or ContentOperator.ClipEvenOdd:
                clipping = (true, found == ContentOperator.ClipEvenOdd);
                return true;
            case ContentOperator.Stroke or ContentOperator.CloseAndStroke:
                Paint(isFilled: false, isEvenOdd: false, isStroked: true, isClosed: found == ContentOperator.CloseAndStroke);
                return true;
            case ContentOperator.Fill or ContentOperator.FillEvenOdd:
                Paint(isFilled: true, isEvenOdd: found == ContentOperator.FillEvenOdd, isStroked: false, isClosed: false);
                return true;
            case ContentOperator.FillAndStroke or ContentOperator.FillEvenOddAndStroke:
                Paint(isFilled: true, isEvenOdd: found == ContentOperator.FillEvenOddAndStroke, isStroked: true, isClosed: false);
                return true;
            case ContentOperator.CloseFillAndStroke or ContentOperator.CloseFillEvenOddAndStroke:
                Paint(isFilled: true, isEvenOdd: found == ContentOperator.CloseFillEvenOddAndStroke, isStroked: true, isClosed: true);
                return true;
            case ContentOperator.EndPath:
                Paint(isFilled: false, isEvenOdd: false, isStroked: false, isClosed: false);
                return true;
            default:
                return false;
        }
    }

    private void Paint(bool isFilled, bool isEvenOdd, bool isStroked, bool isClosed)
    {
        if (isClosed)
            path.Close();
        if (isFilled)
            drawing.Fill(path, isEvenOdd, state);
        if (isFilled || isStroked)
            drawing.AddStrokes(path, isStroked, state);
        // A path cuts what is drawn after it.
        if (clipping.IsAsked && path.Outline(clipping.IsEvenOdd) is { } outline)
            state.Clip = state.Clip.CutTo(outline, path.IsUprightRectangle);
        clipping = default;
        path.Clear();
    }

    private Point PointAt(Operands operands, int fromLast) => state.Matrix.Take(operands.Number(fromLast + 1), operands.Number(fromLast));

    private bool IsColour(ContentOperator found, Operands operands, ReadOnlySpan<byte> content)
    {
        switch (found)
        {
            case ContentOperator.FillGrey:
                SetFill(ColourSpace.Grey, operands);
                return true;
            case ContentOperator.FillRgb:
                SetFill(ColourSpace.Rgb, operands);
                return true;
            case ContentOperator.FillCmyk:
                SetFill(ColourSpace.Cmyk, operands);
                return true;
            case ContentOperator.FillColour when NameAt(operands, 0, content) is { } pattern && !hasOneInk:
                state.FillPaint = PatternOf(pattern, state.FillSpace, operands);
                return true;
            case ContentOperator.FillColour:
                SetFill(state.FillSpace, operands);
                return true;
            case ContentOperator.StrokeGrey:
                SetStroke(ColourSpace.Grey, operands);
                return true;
            case ContentOperator.StrokeRgb:
                SetStroke(ColourSpace.Rgb, operands);
                return true;
            case ContentOperator.StrokeCmyk:
                SetStroke(ColourSpace.Cmyk, operands);
                return true;
            case ContentOperator.StrokeColour when NameAt(operands, 0, content) is { } pattern && !hasOneInk:
                state.StrokePaint = PatternOf(pattern, state.StrokeSpace, operands);
                return true;
            case ContentOperator.StrokeColour:
                SetStroke(state.StrokeSpace, operands);
                return true;
            case ContentOperator.FillSpace when !hasOneInk:
                state.FillSpace = SpaceAt(operands, content);
                state.FillPaint = state.FillSpace.Initial;
                return true;
            case ContentOperator.StrokeSpace when !hasOneInk:
                state.StrokeSpace = SpaceAt(operands, content);
                state.StrokePaint = state.StrokeSpace.Initial;
                return true;
            default:
                return false;
        }
    }

    /// <summary>A space that nobody knows has no colour that could be compared.</summary>
    private ColourSpace SpaceAt(Operands operands, ReadOnlySpan<byte> content) => (NameAt(operands, 0, content) is { } name ? resources.SpaceOf(name) : null) ?? ColourSpace.Pattern;

    private void SetFill(ColourSpace space, Operands operands)
    {
        if (!hasOneInk)
            (state.FillSpace, state.FillPaint) = (space, PaintOf(space, operands, 0));
    }

    private void SetStroke(ColourSpace space, Operands operands)
    {
        if (!hasOneInk)
            (state.StrokeSpace, state.StrokePaint) = (space, PaintOf(space, operands, 0));
    }

    /// <param name="behind">How many operands stand behind the numbers.</param>
    private Paint PaintOf(ColourSpace space, Operands operands, int behind)
    {
        if (space.Parts is 0 or > 32 || operands.Count < space.Parts + behind)
            return Drawing.Paint.Untold;
        Span<double> parts = stackalloc double[space.Parts];
        for (var index = 0; index < space.Parts; index++)
        {
            if (operands.All[operands.Count - behind - space.Parts + index] is not { Kind: OperandKind.Number } operand)
                return Drawing.Paint.Untold;
            parts[index] = operand.Number;
        }
        if (space.Read(parts) is not { } ink)
            return Drawing.Paint.Untold;
        // A page has few colours, and sets them for each of its words.
        var key = (ink.Red, ink.Green, ink.Blue);
        if (paints.TryGetValue(key, out var same))
            return same;
        var paint = Drawing.Paint.Of(ink);
        if (paints.Count < 4096)
            paints[key] = paint;
        return paint;
    }

    /// <summary>A pattern by its name, with the colour that stands before it where the pattern has none of its own (8.7.3.3).</summary>
    private Paint PatternOf(string name, ColourSpace space, Operands operands) =>
        resources.PatternOf(name, number, space.Under is { } under ? PaintOf(under, operands, behind: 1).Only : null);

    /// <summary>Takes over what a named graphics state says (8.4.5).</summary>
    private void Change(DictionaryToken change)
    {
        state.FillAlpha = objects.Number(change, "ca") ?? state.FillAlpha;
        state.StrokeAlpha = objects.Number(change, "CA") ?? state.StrokeAlpha;
        state.LineWidth = objects.Number(change, "LW") ?? state.LineWidth;
        if (objects.Get(change, "SMask") is { } mask)
            state.IsMasked = mask is not NameToken;
        if (objects.Get(change, "BM") is { } mixing)
        {
            if (mixing is ArrayToken { Data: [var first, ..] })
                mixing = objects.Resolve(first);
            state.Mixing = mixing is not NameToken { Data: var way } || way is "Normal" or "Compatible" ? Mixing.None : way == "Multiply" ? Mixing.Multiplied : Mixing.Untold;
        }
        if (objects.Array(change, "Font") is [IndirectReferenceToken reference, var size])
        {
            state.Font = document.FontOf(new DictionaryToken(new Dictionary<NameToken, IToken> { [NameToken.Font] = reference }), NameToken.Font.Data);
            state.FontSize = objects.AsNumber(size) ?? state.FontSize;
        }
    }

    private static Matrix MatrixOf(Operands operands) =>
        new(operands.Number(5), operands.Number(4), operands.Number(3), operands.Number(2), operands.Number(1), operands.Number(0));

    private string? NameAt(Operands operands, int fromLast, ReadOnlySpan<byte> content)
    {
        if (fromLast >= operands.Count || operands.All[operands.Count - 1 - fromLast] is not { Kind: OperandKind.Name } operand)
            return null;
        var bytes = operands.BytesOf(operand, content);
        if (bytes.Length > 128)
            return Encoding.UTF8.GetString(bytes);
        // As the PDF library reads names, so that both find the same.
        Span<char> letters = stackalloc char[bytes.Length];
        if (!Encoding.UTF8.TryGetChars(bytes, letters, out var length))
            return null;
        if (namesBySpan.TryGetValue(letters[..length], out var known))
            return known;
        var name = new string(letters[..length]);
        names.Add(name);
        return name;
    }

    private void MoveLine(double x, double y) => text = line = Matrix.MoveBy(x, y).Then(line);

    /// <summary>Shows one text, or texts with steps between them in thousandths of the type's size (9.4.3).</summary>
    private void Show(Operands operands, ReadOnlySpan<byte> content)
    {
        var first = drawing.Letters;
        StringBuilder? claimed = null, read = null;
        foreach (ref readonly var operand in operands.All)
        {
            if (operand.Kind == OperandKind.Text)
                Show(operands.BytesOf(operand, content), ref claimed, ref read, first);
            else if (operand.Kind == OperandKind.Number && state.Font is { } font && operands.Count > 1 && operands.All[0].Kind == OperandKind.ArrayStart)
                MoveBy(font, -operand.Number / 1000 * state.FontSize);
        }
        if (claimed is not null)
            drawing.AddClaim(claimed.ToString(), read!.ToString(), first);
    }

    private void MoveBy(Font font, double step) =>
        text = font.IsVertical ? text with { E = text.E + (step * text.C), F = text.F + (step * text.D) }
            : text with { E = text.E + (step * state.Stretch * text.A), F = text.F + (step * state.Stretch * text.B) };

    private void Show(ReadOnlySpan<byte> shown, ref StringBuilder? claimed, ref StringBuilder? read, int first)
    {
        if (state.Font is not { } font)
            return;
        var (size, stretch) = (state.FontSize, state.Stretch);
        var whole = text.Then(state.Matrix);
        var points = Math.Round(Math.Abs(size) * Math.Sqrt((whole.C * whole.C) + (whole.D * whole.D)), 2);
        // The middle of a letter's body, which is about 0.3 of its size above the line.
        const double MiddleHeight = 0.3;
        while (shown.Length > 0)
        {
            var glyph = font.Next(shown, out var length);
            var isBlank = length == 1 && shown[0] == ' ';
            shown = shown[length..];
            var (x, y) = (glyph.Origin.X * size * stretch, (glyph.Origin.Y * size) + state.Rise);
            var reach = glyph.Width * size * stretch;
            var (ground, before) = (drawing.Things, drawing.Letters);
            if (glyph.Drawing is { } own)
                DrawGlyph(own, new Matrix(size * stretch, 0, 0, size, 0, state.Rise).Then(whole));
            // A glyph that is drawn with letters of another font is those letters, whatever it is said to be.
            if (drawing.Letters > before)
                drawing.Settle(glyph.Text, before);
            else if (glyph.Text.Length > 0)
                drawing.AddLetter(glyph.Text, whole.Take(x, y), whole.Take(x + reach, y), whole.Take(x + (reach / 2), y + (MiddleHeight * size)), points, glyph.LeavesNoMark, ground, state);
            if (glyph.Claimed is not null && claimed is null)
            {
                (claimed, read) = (new StringBuilder(), new StringBuilder());
                // What stood before it in the same text is told with it.
                var text = drawing.TextFrom(first, except: 1);
                claimed.Append(text);
                read.Append(text);
            }
            claimed?.Append(glyph.Claimed ?? glyph.Text);
            read?.Append(glyph.Text);
            var step = (glyph.Advance * size) + state.CharacterSpacing + (isBlank ? state.WordSpacing : 0);
            MoveBy(font, step);
            whole = whole with { E = (text.E * state.Matrix.A) + (text.F * state.Matrix.C) + state.Matrix.E, F = (text.E * state.Matrix.B) + (text.F * state.Matrix.D) + state.Matrix.F };
        }
    }

    private void BeginMarked(Operands operands, ReadOnlySpan<byte> content)
    {
        string? stated = null;
        var isHidden = false;
        if (operands.Count >= 2 && operands.All[^1].Kind == OperandKind.Name)
        {
            var properties = NameAt(operands, 0, content) is { } name ? resources.PropertiesOf(name) : null;
            stated = (objects.Get(PdfObjects.AsDictionary(objects.Resolve(properties)), "ActualText") as IDataToken<string>)?.Data;
            isHidden = NameAt(operands, 1, content) == "OC" && document.Layers.Hides(properties);
        }
        else
        {
            for (int index = 0, within = 0; index + 1 < operands.Count; index++)
            {
                var operand = operands.All[index];
                within += operand.Kind == OperandKind.DictionaryStart ? 1 : operand.Kind == OperandKind.DictionaryEnd ? -1 : 0;
                if (within == 1 && operand.Kind == OperandKind.Name && operands.BytesOf(operand, content).SequenceEqual("ActualText"u8) && operands.All[index + 1].Kind == OperandKind.Text)
                    stated = TextStrings.Of(operands.BytesOf(operands.All[index + 1], content));
            }
        }
        drawing.Hidden += isHidden ? 1 : 0;
        marked.Push(new Marked(isHidden, stated, drawing.Letters));
    }

    private void EndMarked()
    {
        var content = marked.Pop();
        drawing.Hidden -= content.IsHidden ? 1 : 0;
        if (content.Stated is { } stated)
            drawing.Settle(stated, content.FirstLetter);
    }

    /// <summary>A picture that stands in the content itself.</summary>
    private void ReadPicture(ref Lexer lexer, Operands operands)
    {
        var entries = Pictures.EntriesOf(operands, lexer.Content);
        var bytes = lexer.PassPicture(Pictures.LengthOf(entries, resources, objects)).ToArray();
        var (here, ink) = (resources, state.FillPaint.Only);
        drawing.AddPicture(state.Matrix, new(() => Pictures.ContentOf(new StreamToken(entries, bytes), here, objects, ink)), state);
    }

    /// <summary>Draws a picture, or a drawing that has a name.</summary>
    private void Draw(string name)
    {
        var (drawn, reference) = resources.DrawingOf(name);
        if (drawn is null)
            return;
        var dictionary = drawn.StreamDictionary;
        var isHidden = document.Layers.Hides(dictionary.Data.GetValueOrDefault("OC"));
        drawing.Hidden += isHidden ? 1 : 0;
        switch (objects.Name(dictionary, "Subtype"))
        {
            case "Form":
                DrawForm(drawn, reference);
                break;
            case "Image":
                drawing.AddPicture(state.Matrix, document.PictureOf(drawn, reference, resources, state.FillPaint.Only), state);
                break;
        }
        drawing.Hidden -= isHidden ? 1 : 0;
    }

    /// <summary>Carries out the content of a drawing in its own coordinates, cut to its box (8.10).</summary>
    public void DrawForm(StreamToken form, IndirectReference? reference)
    {
        if (!TryEnter(reference, out var around))
            return;
        var dictionary = form.StreamDictionary;
        if (objects.Numbers(dictionary, "Matrix", 6) is { } own)
            state.Matrix = Matrix.Of(own).Then(state.Matrix);
        if (objects.Numbers(dictionary, "BBox", 4) is { } box)
        {
            path.Clear();
            path.AddRectangle(state.Matrix, box[0], box[1], box[2] - box[0], box[3] - box[1]);
            state.Clip = state.Clip.CutTo(path.Outline(isEvenOdd: false)!, path.IsUprightRectangle);
        }
        if (objects.Name(objects.Dictionary(dictionary, "Group"), "S") == "Transparency")
        {
            // What is drawn as one group is laid on the page as one: its own parts begin without what the group is laid on with.
            (state.GroupAlpha, state.GroupMixing, state.IsGroupMasked) = (state.FillOpacity, state.MixingOfColours, state.IsMasked || state.IsGroupMasked);
            (state.FillAlpha, state.StrokeAlpha, state.Mixing, state.IsMasked) = (1, 1, Mixing.None, false);
        }
        resources = document.ResourcesOf(dictionary) ?? resources;
        Read(document.BytesOf(form, reference).Span);
        Leave(reference, around);
    }

    /// <summary>Carries out the content of a glyph, which may hide what lies under it as any other does.</summary>
    /// <param name="placed">Takes the type's size to the page.</param>
    private void DrawGlyph(GlyphDrawing glyph, in Matrix placed)
    {
        if (!TryEnter(glyph.Reference, out var around))
            return;
        state.Matrix = glyph.Matrix.Then(placed);
        resources = document.ResourcesOf(glyph.Font) ?? resources;
        drawing.IsGlyph = true;
        Read(document.BytesOf(glyph.Content, glyph.Reference).Span);
        Leave(glyph.Reference, around);
    }

    /// <summary>What stands around a drawing, and goes on behind it.</summary>
    private readonly record struct Around(GraphicsState State, Resources Resources, Matrix Text, Matrix Line, bool HasOneInk, bool IsGlyph);

    /// <returns>False for what would be drawn within itself, without end.</returns>
    private bool TryEnter(IndirectReference? reference, out Around around)
    {
        around = new Around(state, resources, text, line, hasOneInk, drawing.IsGlyph);
        if (depth >= DeepestDrawing || (reference is { } begun && !open.Add(begun)))
            return false;
        depth++;
        return true;
    }

    private void Leave(IndirectReference? reference, in Around around)
    {
        depth--;
        if (reference is { } ended)
            open.Remove(ended);
        (state, resources, text, line, hasOneInk, drawing.IsGlyph) = (around.State, around.Resources, around.Text, around.Line, around.HasOneInk, around.IsGlyph);
    }

    /// <summary>Draws what an annotation or a form field shows over the page.</summary>
    public void DrawAppearance(Annotation annotation)
    {
        if (annotation.Bounds is not { Width: > 0, Height: > 0 } bounds)
            return;
        var place = annotation.Place;
        var (across, up) = (place.Width / bounds.Width, place.Height / bounds.Height);
        var before = state;
        state.Matrix = new Matrix(across, 0, 0, up, place.Left - (bounds.Left * across), place.Top - (bounds.Top * up)).Then(state.Matrix);
        DrawForm(annotation.Appearance, null);
        state = before;
    }
}
