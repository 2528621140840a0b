using System.Collections.Immutable;
using System.Runtime.InteropServices;
using Daxlin.Core.Pages;
using Daxlin.Reading.Drawing;
using Daxlin.Reading.Pdf;
using Daxlin.Reading.Pdf.Content;
using Daxlin.Reading.Recognising;
using UglyToad.PdfPig;
using UglyToad.PdfPig.Exceptions;
using Page = Daxlin.Core.Pages.Page;
using Word = Daxlin.Core.Pages.Word;

namespace Daxlin.Reading;

/// <summary>Reads a PDF into pages of words and strokes.</summary>
public static class PdfReader
{
    /// <summary>Reads all pages.</summary>
    /// <exception cref="UnreadableException">The bytes are no PDF, or one that is encrypted, damaged, without text or too large.</exception>
    /// <remarks>A page that is a picture has no words here.</remarks>
    public static ImmutableArray<Page> Read(ReadOnlyMemory<byte> bytes, ReadingLimits? limits = null) =>
        ReadWhole(bytes, limits) is var read && read.Pages.All(page => page.Words.IsEmpty)
            ? throw new PicturesUnreadException(read.Pictured, read.Pages) : read.Pages;

    /// <summary>Reads all pages, those without words as well; the files that are attached to the document; and which of the pages are pictures.</summary>
    /// <exception cref="UnreadableException">The bytes are no PDF, or one that is encrypted, damaged or too large.</exception>
    public static (ImmutableArray<Page> Pages, ImmutableArray<AttachedFile> Attached, ImmutableArray<PicturedPage> Pictured) ReadWhole(ReadOnlyMemory<byte> bytes, ReadingLimits? limits = null)
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

    private static (ImmutableArray<Page> Pages, ImmutableArray<AttachedFile> Attached, ImmutableArray<PicturedPage> Pictured) ReadDocument(ReadOnlyMemory<byte> bytes, ReadingLimits limits)
    {
        var filters = new LimitedFilters(limits);
        var options = new ParsingOptions
        {
            UseLenientParsing = true,
            SkipMissingFonts = true,
            ClipPaths = false,
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

        var objects = new PdfObjects(document.Structure.TokenScanner, document.Structure.FilterProvider, filters);
        DrawnPageFactory.AddTo(document, options, objects, limits);
        var pages = ImmutableArray.CreateBuilder<Page>(document.NumberOfPages);
        var pictured = new List<(PicturedPage Page, bool Is)>();
        var store = new WordStore();
        for (var number = 1; number <= document.NumberOfPages; number++)
        {
            var drawn = document.GetPage<DrawnPage>(number);
            pages.Add(PageOf(drawn, store));
            pictured.Add((new PicturedPage(number, drawn.Width, drawn.Height), IsPicture(drawn, pages[^1])));
            if (filters.Refusal is { } refusal)
                throw refusal;
        }
        var attached = AttachedFiles.Of(document.Structure.Catalog.CatalogDictionary, objects);
        if (filters.Refusal is { } packed)
            throw packed;
        var hasWords = pages.Any(page => !page.Words.IsEmpty);
        // Where nothing has words, letters may be drawn as areas.
        return (pages.DrainToImmutable(), attached, hasWords ? [.. pictured.Where(one => one.Is).Select(one => one.Page)] : [.. pictured.Select(one => one.Page)]);
    }

    /// <summary>A page with fewer words than this is a picture if pictures cover it: a scanner's imprint, a stamp of the day it came.</summary>
    private const int FewWords = 15;

    /// <summary>So much of a page is covered by the picture that it is, or by the strips of it.</summary>
    private const double MostlyPicture = 0.5;

    /// <summary>So much is covered by a picture that says something where nothing else does.</summary>
    private const double PartlyPicture = 0.2;

    private static bool IsPicture(DrawnPage drawn, Page page)
    {
        if (page.Words.Length >= FewWords)
            return false;
        var covered = drawn.Covers.Where(cover => cover.Picture is not null).Sum(cover => cover.Bounds.Width * cover.Bounds.Height);
        return covered > (page.Words.IsEmpty ? PartlyPicture : MostlyPicture) * drawn.Width * drawn.Height;
    }

    /// <summary>The array behind the bytes where it is theirs alone; the library takes nothing else.</summary>
    private static byte[] ArrayOf(ReadOnlyMemory<byte> bytes) =>
        MemoryMarshal.TryGetArray(bytes, out var segment) && segment.Offset == 0 && segment.Count == segment.Array!.Length
            ? segment.Array
            : bytes.ToArray();

    /// <summary>Kept for the thread's next page, since a page's letters are many and large, and gone in a millisecond.</summary>
    [ThreadStatic]
    private static List<Letter>? keptLetters;

    private static Page PageOf(DrawnPage page, WordStore store)
    {
        var (width, height) = (page.Width, page.Height);
        var upright = keptLetters ??= [];
        upright.Clear();
        var turned = new Dictionary<Direction, List<Letter>>();
        var unseen = new UnseenWords(page);
        var sight = new Sight(page);
        foreach (var letter in page.Letters)
        {
            if (letter.Text.Length == 0)
                continue;
            var direction = letter.Direction;
            var read = direction == Direction.Horizontal
                ? new Letter(Plain(letter.Text), letter.Start.X, letter.End.X, height - letter.Start.Y, letter.Size) : Unturned(letter, direction);
            if (sight.Hides(letter) is { } why)
            {
                unseen.Add(read, direction, why);
                if (why != UnseenBy.Untold)
                    continue;
            }
            if (direction == Direction.Horizontal)
            {
                upright.Add(read);
            }
            else
            {
                if (!turned.TryGetValue(direction, out var same))
                    turned[direction] = same = [];
                same.Add(read);
            }
        }

        var drawn = DrawnOf(turned, page.Letters.Count);
        if (drawn != Drawn.Upright)
            return TurnedPage(page, drawn, turned, unseen, store);
        var words = ImmutableArray.CreateBuilder<Word>();
        WordBuilder.AddWords(upright, Turn.Upright, store, words);
        foreach (var (direction, letters) in turned)
        {
            var start = words.Count;
            WordBuilder.AddWords(letters, Turn.Turned, store, words);
            for (var index = start; index < words.Count; index++)
                words[index] = words[index] with { Box = TurnedBox(words[index].Box, direction, height) };
        }
        return new Page(page.Number, width, height, words.DrainToImmutable(), page.Strokes) { Unseen = unseen.Words(store) };
    }

    /// <summary>A page is drawn turned if more than this part of its letters is; a note up the margin is less.</summary>
    private const double MostOfPage = 0.8;

    /// <summary>Which way a page is drawn: as most of its letters are, if that is one of the four right ones.</summary>
    private static Drawn DrawnOf(Dictionary<Direction, List<Letter>> turned, int letters)
    {
        foreach (var (orientation, same) in turned)
        {
            if (same.Count > MostOfPage * letters)
            {
                return orientation switch
                {
                    Direction.Down => Drawn.Downwards,
                    Direction.Up => Drawn.Upwards,
                    Direction.UpsideDown => Drawn.UpsideDown,
                    _ => Drawn.Upright,
                };
            }
        }
        return Drawn.Upright;
    }

    /// <summary>A page whose text is drawn turned, as if it were turned back. What stands otherwise on it is left out of its lines.</summary>
    private static Page TurnedPage(
        DrawnPage page, Drawn drawn, Dictionary<Direction, List<Letter>> turned, UnseenWords unseen, WordStore store)
    {
        var (seenWidth, seenHeight) = (page.Width, page.Height);
        var (orientation, right, down) = drawn switch
        {
            Drawn.Downwards => (Direction.Down, seenHeight, seenWidth),
            Drawn.Upwards => (Direction.Up, 0.0, 0.0),
            _ => (Direction.UpsideDown, seenWidth, 0.0),
        };
        var words = ImmutableArray.CreateBuilder<Word>();
        WordBuilder.AddWords(
            turned[orientation].ConvertAll(letter => letter with { Start = letter.Start + right, End = letter.End + right, Baseline = letter.Baseline + down }),
            Turn.Upright, store, words);
        var (width, height) = drawn == Drawn.UpsideDown ? (seenWidth, seenHeight) : (seenHeight, seenWidth);
        var read = new Page(page.Number, width, height, words.DrainToImmutable(), []) { Drawn = drawn };
        return new Page(page.Number, width, height, read.Words, [.. page.Strokes.Select(stroke => new Stroke(read.AsRead(stroke.Box)))])
        {
            Drawn = drawn,
            Unseen = [.. unseen.Words(store).Select(word => word with { Box = read.AsRead(word.Box) })],
        };
    }

    /// <summary>Composed letters, no-break and thin blanks as plain ones, ligatures of the standard block written out.</summary>
    private static string Plain(string text)
    {
        if (text.Length == 1 && text[0] is >= ' ' and < '\u007F')
            return text;
        if (text.Length == 1 && text[0] is '\t' or '\n' or '\r')
            return " ";
        var plain = Ligatures.WrittenOut(text);
        return plain.Replace('\u00AD', '-').Replace("\u200B", "", StringComparison.Ordinal);
    }

    /// <summary>A turned letter in a frame where it runs from left to right.</summary>
    private static Letter Unturned(DrawnLetter letter, Direction direction)
    {
        var (start, end) = (letter.Start, letter.End);
        var (from, to, baseline) = direction switch
        {
            Direction.Down => (-start.Y, -end.Y, -start.X),
            Direction.Up => (start.Y, end.Y, start.X),
            Direction.UpsideDown => (-start.X, -end.X, start.Y),
            _ => (start.X, start.X + Math.Max(Math.Abs(end.X - start.X), 0.1), -start.Y),
        };
        return new Letter(Plain(letter.Text), Math.Min(from, to), Math.Max(from, to), baseline, letter.Size);
    }

    /// <summary>Where a box of the frame in which turned letters run from left to right stands on the page.</summary>
    internal static Box TurnedBox(Box box, Direction direction, double height) => direction switch
    {
        Direction.Horizontal => box,
        Direction.Down => new(-box.Bottom, height + box.Left, -box.Top, height + box.Right),
        Direction.Up => new(box.Top, height - box.Right, box.Bottom, height - box.Left),
        Direction.UpsideDown => new(-box.Right, height - box.Bottom, -box.Left, height - box.Top),
        _ => new(box.Left, height + box.Top, box.Right, height + box.Bottom),
    };
}
