using System.Collections.Immutable;
using System.Text;
using Daxlin.Core.Pages;
using Daxlin.Reading.Pdf.Content;

namespace Daxlin.Reading.Drawing;

/// <summary>Takes down what a page draws, thing by thing and in order: letters with their ink, areas that cover, rulings.</summary>
/// <remarks>
/// The content reader says what is drawn; here stands what a person's eye needs to know beside: what was drawn before what, within which
/// clip, in which layer, and how much of it lets through what lies under it.
/// </remarks>
internal sealed class PageDrawing
{
    /// <summary>Ink that lets through all but so little is none.</summary>
    private const double Transparent = 0.1;

    /// <summary>Type smaller than this is not read by a person, in points.</summary>
    private const double Smallest = 2;

    /// <summary>Lines thinner than this are rulings, and cover nothing.</summary>
    private const double ThinAs = 2.5;

    private const double ShortestStroke = 6;

    /// <summary>No tile is larger, in points.</summary>
    private const double TileSide = 1e5;

    private static readonly Point Nowhere = new(-1e6, -1e6);

    /// <summary>Kept for the thread's next page, since a page's letters are many, and made into words before the next one is drawn.</summary>
    [ThreadStatic]
    private static List<DrawnLetter>? keptLetters;

    private readonly int number;
    private readonly double width;
    private readonly double height;
    private readonly ReadingLimits limits;
    private readonly List<DrawnLetter> letters;
    private readonly ImmutableArray<Cover>.Builder covers = ImmutableArray.CreateBuilder<Cover>();
    private readonly ImmutableArray<Stroke>.Builder strokes = ImmutableArray.CreateBuilder<Stroke>();
    private readonly ImmutableArray<(string, string, DrawnLetter)>.Builder claims = ImmutableArray.CreateBuilder<(string, string, DrawnLetter)>();
    private readonly HashSet<Paint>? paints;
    private int drawn;

    /// <param name="width">In points, as a person sees the page.</param>
    /// <param name="height">In points.</param>
    public PageDrawing(int number, double width, double height, ReadingLimits limits)
    {
        (this.number, this.width, this.height, this.limits) = (number, width, height, limits);
        letters = keptLetters ??= [];
        letters.Clear();
    }

    /// <summary>For the tile of a pattern within a page that is being drawn: nothing of it is kept but what it is painted with.</summary>
    private PageDrawing(int number, ReadingLimits limits)
    {
        (this.number, this.limits, width, height) = (number, limits, TileSide, TileSide);
        (letters, paints) = ([], []);
    }

    /// <inheritdoc cref="PageDrawing(int, ReadingLimits)"/>
    public static PageDrawing OfTile(int number, ReadingLimits limits) => new(number, limits);

    /// <summary>How many layers that are off what is drawn next stands in.</summary>
    public int Hidden { get; set; }

    /// <summary>How many letters are drawn so far.</summary>
    public int Letters => letters.Count;

    /// <summary>How many things are drawn so far.</summary>
    public int Things => drawn;

    /// <summary>What has been painted with so far, where that is noted.</summary>
    public IReadOnlyCollection<Paint> Paints => paints ?? [];

    /// <summary>What is drawn next is a glyph, whose lines are no rulings.</summary>
    public bool IsGlyph { get; set; }

    public DrawnPage ToPage() => new(number, width, height, letters, covers.ToImmutable(), strokes.ToImmutable(), claims.ToImmutable());

    /// <param name="text">Not empty; a character that nothing names is "\0".</param>
    /// <param name="size">Of the type, in points.</param>
    /// <param name="isBlank">Its font draws nothing for it.</param>
    /// <param name="ground">How many things were drawn before the letter's own drawing.</param>
    public void AddLetter(string text, Point start, Point end, Point middle, double size, bool isBlank, int ground, in GraphicsState state)
    {
        if (letters.Count > limits.LettersPerPage)
            throw new UnreadableException("too-large", $"Page {number} holds more than {limits.LettersPerPage} letters; it was not read.");
        if (letters.Count > 0 && text is [>= '\u0300' and <= '\u036F'] && letters[^1].Text is [var before] && char.IsLetter(before))
        {
            letters[^1] = letters[^1] with { Text = letters[^1].Text + text };
            return;
        }
        // Matrices can lead beyond all numbers; what stands there stands beside the page.
        if (!double.IsFinite(start.X + start.Y + end.X + end.Y + middle.X + middle.Y))
            start = end = middle = Nowhere;
        var isStroked = state.Mode is TextMode.Stroke or TextMode.StrokeAndClip;
        paints?.Add(isStroked ? state.StrokePaint : state.FillPaint);
        var unseen = Hidden > 0 ? UnseenBy.LayerOff
            : isBlank || state.Mode is TextMode.Nothing or TextMode.Clip || (isStroked ? state.StrokeOpacity : state.FillOpacity) < Transparent ? UnseenBy.NoInk
            : !state.Clip.Holds(middle) ? UnseenBy.Clipped
            : size is > 0 and < Smallest && Math.Abs(end.X - start.X) + Math.Abs(end.Y - start.Y) < Smallest ? UnseenBy.TooSmall : (UnseenBy?)null;
        var shown = size is > 0.5 and < 2000 ? size : Math.Max(1, Math.Abs(middle.Y - start.Y) + Math.Abs(middle.X - start.X));
        letters.Add(new DrawnLetter(text, start, end, middle, shown, isStroked ? state.StrokePaint : state.FillPaint, state.MixingOfAll, drawn++, ground, unseen));
    }

    /// <summary>What the letters say since one of them.</summary>
    /// <param name="except">But for the last so many.</param>
    public string TextFrom(int first, int except)
    {
        var text = new StringBuilder();
        for (var index = first; index < letters.Count - except; index++)
            text.Append(letters[index].Text);
        return text.ToString();
    }

    /// <summary>Takes down that the file claims another text for letters than their font draws.</summary>
    /// <param name="first">The number of the first of them.</param>
    public void AddClaim(string claimed, string read, int first)
    {
        if (first < letters.Count)
            claims.Add((claimed, read, letters[first]));
    }

    /// <summary>A text that the file states for some letters names those that no font does; where it says others than are drawn, it is a claim.</summary>
    /// <param name="first">The number of the first of them; they are the last ones.</param>
    public void Settle(string stated, int first)
    {
        if (first >= letters.Count)
            return;
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
        else if (SpokenText.Of(own) != SpokenText.Of(stated))
        {
            claims.Add((stated, own, letters[first]));
        }
        else if (stated.Equals(own, StringComparison.OrdinalIgnoreCase))
        {
            // Small letters that are drawn as small capitals.
            for (int index = first, at = 0; index < letters.Count; at += letters[index++].Text.Length)
                letters[index] = letters[index] with { Text = stated.Substring(at, letters[index].Text.Length) };
        }
    }

    private static bool IsUnnamed(char letter) => letter is '\0' or '\uFFFD' or (>= '\uE000' and <= '\uF8FF');

    public void Fill(DrawnPath path, bool isEvenOdd, in GraphicsState state)
    {
        paints?.Add(state.FillPaint);
        // Most are rulings drawn as thin rectangles.
        if (path.HasArea(ThinAs) && path.Outline(isEvenOdd, fewestPoints: 3) is { } outline)
            Add(outline, state, null, state.FillPaint, state.FillOpacity);
    }

    /// <summary>Takes down the rulings of a path: lines, thin areas, and the sides of frames.</summary>
    /// <param name="isStroked">It is drawn as lines.</param>
    public void AddStrokes(DrawnPath path, bool isStroked, in GraphicsState state)
    {
        paints?.Add(isStroked ? state.StrokePaint : state.FillPaint);
        if (isStroked)
            AddThickLines(path, state);
        if (IsGlyph)
            return;
        foreach (var part in path.Parts)
        {
            var bounds = part.Bounds;
            if (part.Count < 2 || !double.IsFinite(bounds.Width + bounds.Height))
                continue;
            var box = new Box(bounds.Left, height - bounds.Bottom, bounds.Right, height - bounds.Top);
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

    /// <summary>Takes a line that is thick enough to hide letters as the areas of its straight parts.</summary>
    private void AddThickLines(DrawnPath path, in GraphicsState state)
    {
        var half = state.LineWidth * Math.Sqrt(Math.Abs(state.Matrix.Area)) / 2;
        if (2 * half <= ThinAs)
            return;
        foreach (var part in path.Parts)
        {
            for (var index = part.Start + 1; index < part.Start + part.Count; index++)
            {
                var (from, to) = (path.At(index - 1), path.At(index));
                var length = Math.Sqrt(((to.X - from.X) * (to.X - from.X)) + ((to.Y - from.Y) * (to.Y - from.Y)));
                if (length < ThinAs)
                    continue;
                var (across, up) = (-(to.Y - from.Y) * half / length, (to.X - from.X) * half / length);
                Add(
                    Outline.Of([new(from.X + across, from.Y + up), new(to.X + across, to.Y + up), new(to.X - across, to.Y - up), new(from.X - across, from.Y - up)]),
                    state, null, state.StrokePaint, state.StrokeOpacity);
            }
        }
    }

    /// <param name="placed">Takes the unit square to where the picture stands.</param>
    /// <param name="content">What it shows, read when it matters.</param>
    public void AddPicture(in Matrix placed, Lazy<PictureContent> content, in GraphicsState state) => Add(
        Outline.Of([placed.Take(0, 0), placed.Take(1, 0), placed.Take(1, 1), placed.Take(0, 1)]), state, new Picture(content, placed), Paint.Untold, state.FillOpacity);

    /// <summary>A shading fills what the clip leaves, in colours that run from one into the other.</summary>
    public void AddShading(Paint paint, in GraphicsState state)
    {
        var area = state.Clip.Cut(new Box(0, 0, width, height));
        Add(Outline.Of([new(area.Left, area.Top), new(area.Right, area.Top), new(area.Right, area.Bottom), new(area.Left, area.Bottom)]), state, null, paint, state.FillOpacity);
    }

    private void Add(Outline outline, in GraphicsState state, Picture? picture, Paint paint, double opacity)
    {
        paints?.Add(paint);
        var (clip, mixing) = (state.Clip, state.MixingOfAll);
        if (Hidden == 0 && clip.Cut(outline.Bounds) is { Width: > ThinAs, Height: > ThinAs } seen)
            covers.Add(new Cover(outline, clip, seen, picture, paint, opacity, mixing, drawn++));
        if (covers.Count > limits.LettersPerPage)
            throw new UnreadableException("too-large", $"Page {number} draws more than {limits.LettersPerPage} areas; it was not read.");
    }
}
