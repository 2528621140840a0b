using System.Collections.Immutable;
using System.Runtime.InteropServices;
using Daxlin.Core.Pages;
using UglyToad.PdfPig;
using UglyToad.PdfPig.Content;
using UglyToad.PdfPig.Core;
using UglyToad.PdfPig.Exceptions;
using UglyToad.PdfPig.Graphics;
using UglyToad.PdfPig.Graphics.Core;
using Page = Daxlin.Core.Pages.Page;
using Word = Daxlin.Core.Pages.Word;

namespace Daxlin.Reading;

/// <summary>Reads a PDF into pages of words and strokes. The one place that knows the PDF library.</summary>
public static class PdfReader
{
    /// <summary>Reads all pages.</summary>
    /// <exception cref="UnreadableException">The bytes are no PDF, or one that is encrypted, damaged, without text or too large.</exception>
    public static ImmutableArray<Page> Read(ReadOnlyMemory<byte> bytes, ReadingLimits? limits = null) => ReadWhole(bytes, limits).Pages;

    /// <summary>Reads all pages, and the files that are attached to the document.</summary>
    /// <exception cref="UnreadableException">As for <see cref="Read"/>.</exception>
    public static (ImmutableArray<Page> Pages, ImmutableArray<AttachedFile> Attached) ReadWhole(ReadOnlyMemory<byte> bytes, ReadingLimits? limits = null)
    {
        limits ??= ReadingLimits.Usual;
        if (bytes.Length == 0)
            throw new UnreadableException("not-a-pdf", "The file is empty.");
        if (bytes.Span[..Math.Min(1024, bytes.Length)].IndexOf("%PDF-"u8) < 0)
            throw new UnreadableException("not-a-pdf", "This is not a PDF: it does not begin as one.");
        try
        {
            return ReadDocument(bytes, limits);
        }
        catch (UnreadableException)
        {
            throw;
        }
        catch (Exception error) when (Unreadable(error) is { } reason)
        {
            throw reason;
        }
    }

    private static UnreadableException? Unreadable(Exception error)
    {
        for (var cause = error; cause is not null; cause = cause.InnerException)
        {
            if (cause is UnreadableException known)
                return known;
        }
        return error switch
        {
            PdfDocumentEncryptedException => new(
                "encrypted", "The PDF is locked with a password; ask the vendor for one that is not.", error),
            OutOfMemoryException or InsufficientExecutionStackException => new(
                "too-large", "The PDF asks for more memory than one document may take; it was not read.", error),
            _ => new("damaged", "The PDF is damaged and cannot be read; ask the vendor to send it again.", error),
        };
    }

    private static (ImmutableArray<Page> Pages, ImmutableArray<AttachedFile> Attached) ReadDocument(ReadOnlyMemory<byte> bytes, ReadingLimits limits)
    {
        var filters = new LimitedFilters(limits);
        var options = new ParsingOptions
        {
            UseLenientParsing = true,
            SkipMissingFonts = true,
            ClipPaths = false,
            UseActualText = true,
            FilterProvider = filters,
        };
        using var document = PdfDocument.Open(ArrayOf(bytes), options);
        if (document.NumberOfPages > limits.Pages)
        {
            throw new UnreadableException(
                "too-large", $"The PDF has {document.NumberOfPages} pages; at most {limits.Pages} are read.");
        }
        if (document.NumberOfPages == 0)
            throw new UnreadableException("damaged", "The PDF has no pages.");

        var pages = ImmutableArray.CreateBuilder<Page>(document.NumberOfPages);
        var store = new WordStore();
        foreach (var page in document.GetPages())
        {
            pages.Add(PageOf(page, store, limits));
            if (filters.Refusal is { } refusal)
                throw refusal;
        }
        if (pages.All(page => page.Words.IsEmpty))
        {
            throw new UnreadableException(
                "no-text", "The PDF holds pictures but no text (a scan): it needs text recognition, which is not set up yet.");
        }
        var attached = AttachedFiles.Of(document, filters);
        if (filters.Refusal is { } packed)
            throw packed;
        return (pages.DrainToImmutable(), attached);
    }

    /// <summary>The array behind the bytes where it is theirs alone; the library takes nothing else.</summary>
    private static byte[] ArrayOf(ReadOnlyMemory<byte> bytes) =>
        MemoryMarshal.TryGetArray(bytes, out var segment) && segment.Offset == 0 && segment.Count == segment.Array!.Length
            ? segment.Array
            : bytes.ToArray();

    /// <summary>Kept for the thread's next page, since a page's letters are many and large, and gone in a millisecond.</summary>
    [ThreadStatic]
    private static List<Letter>? keptLetters;

    private static Page PageOf(UglyToad.PdfPig.Content.Page page, WordStore store, ReadingLimits limits)
    {
        var (width, height) = (page.Width, page.Height);
        if (page.Letters.Count > limits.LettersPerPage)
        {
            throw new UnreadableException(
                "too-large",
                $"Page {page.Number} holds {page.Letters.Count} letters; at most {limits.LettersPerPage} are read.");
        }
        var upright = keptLetters ??= [];
        upright.Clear();
        var turned = new Dictionary<TextOrientation, List<Letter>>();
        foreach (var letter in page.Letters)
        {
            if (letter.RenderingMode is TextRenderingMode.Neither or TextRenderingMode.NeitherClip)
                continue;
            var center = letter.StartBaseLine;
            if (center.X < -1 || center.X > width + 1 || center.Y < -1 || center.Y > height + 1)
                continue;
            if (string.IsNullOrEmpty(letter.Value))
                continue;
            if (letter.TextOrientation == TextOrientation.Horizontal)
            {
                upright.Add(new Letter(
                    Plain(letter.Value), letter.StartBaseLine.X, letter.EndBaseLine.X, height - letter.StartBaseLine.Y, SizeOf(letter)));
            }
            else
            {
                if (!turned.TryGetValue(letter.TextOrientation, out var same))
                    turned[letter.TextOrientation] = same = [];
                same.Add(Unturned(letter));
            }
        }

        var drawn = DrawnOf(turned, page.Letters.Count);
        if (drawn != Drawn.Upright)
            return TurnedPage(page, drawn, turned, store);
        var words = ImmutableArray.CreateBuilder<Word>();
        WordBuilder.AddWords(upright, Turn.Upright, store, words);
        foreach (var (orientation, letters) in turned)
        {
            var start = words.Count;
            WordBuilder.AddWords(letters, Turn.Turned, store, words);
            for (var index = start; index < words.Count; index++)
                words[index] = words[index] with { Box = TurnedBox(words[index].Box, orientation, height) };
        }
        return new Page(page.Number, width, height, words.DrainToImmutable(), StrokesOf(page, height));
    }

    /// <summary>A page is drawn turned if more than this part of its letters is; a note up the margin is less.</summary>
    private const double MostOfPage = 0.8;

    /// <summary>Which way a page is drawn: as most of its letters are, if that is one of the four right ones.</summary>
    private static Drawn DrawnOf(Dictionary<TextOrientation, List<Letter>> turned, int letters)
    {
        foreach (var (orientation, same) in turned)
        {
            if (same.Count > MostOfPage * letters)
            {
                return orientation switch
                {
                    TextOrientation.Rotate90 => Drawn.Downwards,
                    TextOrientation.Rotate270 => Drawn.Upwards,
                    TextOrientation.Rotate180 => Drawn.UpsideDown,
                    _ => Drawn.Upright,
                };
            }
        }
        return Drawn.Upright;
    }

    /// <summary>A page whose text is drawn turned, as if it were turned back. What stands otherwise on it is left out of its lines.</summary>
    private static Page TurnedPage(
        UglyToad.PdfPig.Content.Page page, Drawn drawn, Dictionary<TextOrientation, List<Letter>> turned, WordStore store)
    {
        var (seenWidth, seenHeight) = (page.Width, page.Height);
        var (orientation, right, down) = drawn switch
        {
            Drawn.Downwards => (TextOrientation.Rotate90, seenHeight, seenWidth),
            Drawn.Upwards => (TextOrientation.Rotate270, 0.0, 0.0),
            _ => (TextOrientation.Rotate180, seenWidth, 0.0),
        };
        var words = ImmutableArray.CreateBuilder<Word>();
        WordBuilder.AddWords(
            turned[orientation].ConvertAll(letter => letter with { Start = letter.Start + right, End = letter.End + right, Baseline = letter.Baseline + down }),
            Turn.Upright, store, words);
        var (width, height) = drawn == Drawn.UpsideDown ? (seenWidth, seenHeight) : (seenHeight, seenWidth);
        var read = new Page(page.Number, width, height, words.DrainToImmutable(), []) { Drawn = drawn };
        return new Page(page.Number, width, height, read.Words, [.. StrokesOf(page, seenHeight).Select(stroke => new Stroke(read.AsRead(stroke.Box)))]) { Drawn = drawn };
    }

    private static double SizeOf(UglyToad.PdfPig.Content.Letter letter) => letter.PointSize is > 0.5 and < 2000
        ? letter.PointSize
        : Math.Max(1, letter.BoundingBox.Height);

    /// <summary>Composed letters, no-break and thin blanks as plain ones, ligatures of the standard block written out.</summary>
    private static string Plain(string text)
    {
        if (text.Length == 1 && text[0] is >= ' ' and < '\u007F')
            return text;
        if (text.Length == 1 && text[0] is '\t' or '\n' or '\r')
            return " ";
        var plain = text;
        foreach (var letter in text)
        {
            if (letter is >= '\uFB00' and <= '\uFB06')
            {
                plain = plain.Normalize(System.Text.NormalizationForm.FormKC);
                break;
            }
        }
        return plain.Replace('\u00AD', '-').Replace("\u200B", "", StringComparison.Ordinal);
    }

    /// <summary>A turned letter in a frame where it runs from left to right.</summary>
    private static Letter Unturned(UglyToad.PdfPig.Content.Letter letter)
    {
        var (start, end) = (letter.StartBaseLine, letter.EndBaseLine);
        var (from, to, baseline) = letter.TextOrientation switch
        {
            TextOrientation.Rotate90 => (-start.Y, -end.Y, -start.X),
            TextOrientation.Rotate270 => (start.Y, end.Y, start.X),
            TextOrientation.Rotate180 => (-start.X, -end.X, start.Y),
            _ => (start.X, start.X + Math.Max(letter.Width, 0.1), -start.Y),
        };
        return new Letter(Plain(letter.Value), Math.Min(from, to), Math.Max(from, to), baseline, SizeOf(letter));
    }

    private static Box TurnedBox(Box box, TextOrientation orientation, double height) => orientation switch
    {
        TextOrientation.Rotate90 => new(-box.Bottom, height + box.Left, -box.Top, height + box.Right),
        TextOrientation.Rotate270 => new(box.Top, height - box.Right, box.Bottom, height - box.Left),
        TextOrientation.Rotate180 => new(-box.Right, height - box.Bottom, -box.Left, height - box.Top),
        _ => new(box.Left, height + box.Top, box.Right, height + box.Bottom),
    };

    private const double ThinAs = 2.5;
    private const double ShortestStroke = 6;

    private static ImmutableArray<Stroke> StrokesOf(UglyToad.PdfPig.Content.Page page, double height)
    {
        var strokes = ImmutableArray.CreateBuilder<Stroke>();
        foreach (var path in page.Paths)
        {
            if (path.IsClipping || !(path.IsFilled || path.IsStroked))
                continue;
            foreach (var subpath in path)
                AddStrokes(subpath, path, height, strokes);
        }
        return strokes.ToImmutable();
    }

    private static void AddStrokes(PdfSubpath subpath, PdfPath path, double height, ImmutableArray<Stroke>.Builder strokes)
    {
        if (subpath.GetBoundingRectangle() is not { } bounds)
            return;
        var box = new Box(bounds.Left, height - bounds.Top, bounds.Right, height - bounds.Bottom);
        if (Math.Min(box.Width, box.Height) <= ThinAs)
        {
            if (Math.Max(box.Width, box.Height) >= ShortestStroke)
                strokes.Add(new Stroke(box));
        }
        else if (path.IsStroked && subpath.IsDrawnAsRectangle)
        {
            // A cell drawn as a frame: its four sides are rulings.
            strokes.Add(new Stroke(box with { Right = box.Left }));
            strokes.Add(new Stroke(box with { Left = box.Right }));
            strokes.Add(new Stroke(box with { Bottom = box.Top }));
            strokes.Add(new Stroke(box with { Top = box.Bottom }));
        }
    }
}
