using Daxlin.Core.Pages;
using Daxlin.Reading;
using Daxlin.Reading.Pictures;
using Daxlin.Reading.Recognising;

namespace Daxlin.Service.Trial;

/// <summary>A page's picture with the words drawn that Daxlin sees on it, and rulers in points along its edges.</summary>
/// <remarks>
/// The page is drawn by Poppler's pdftoppm; what is drawn over it are thin frames:
/// one for each cell, words apart by their own ends, and a tick at each 10 points, a long one at each 100.
/// </remarks>
internal static class WordsPicture
{
    /// <summary>Dots a point; two make small type readable.</summary>
    private const int Scale = 2;

    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(30);

    /// <exception cref="PictureException">The page cannot be drawn.</exception>
    public static void Write(string document, Page page, string file)
    {
        var picture = Raster(document, page.Number);
        foreach (var line in page.Lines)
        {
            foreach (var cell in line.Cells)
                picture.Frame(Dots(page.AsSeen(cell.Box)), Cells);
            foreach (var word in line.Words)
                picture.Frame(Dots(page.AsSeen(word.Box)) is var box ? box with { Top = box.Bottom - 1 } : default, Words);
        }
        for (var at = 0; at < Math.Max(picture.Width, picture.Height) / Scale; at += 10)
        {
            var length = at % 100 == 0 ? 16 : at % 50 == 0 ? 10 : 5;
            picture.Frame(new Box(at * Scale, 0, at * Scale, length), Rulers);
            picture.Frame(new Box(0, at * Scale, length, at * Scale), Rulers);
            if (at % 100 == 0 && at > 0)
            {
                picture.Number(at, at * Scale + 3, 6, Rulers);
                picture.Number(at, 3, at * Scale + 3, Rulers);
            }
        }
        File.WriteAllBytes(file, picture.ToPng());
    }

    private static readonly (byte, byte, byte) Cells = (0x9a, 0x4a, 0x00);
    private static readonly (byte, byte, byte) Words = (0x16, 0x5d, 0x74);
    private static readonly (byte, byte, byte) Rulers = (0xb0, 0x00, 0x40);

    private static Box Dots(Box box) => new(box.Left * Scale, box.Top * Scale, box.Right * Scale, box.Bottom * Scale);

    private static Picture Raster(string document, int page)
    {
        var drawn = Path.Combine(Path.GetTempPath(), $"daxlin-page-{Guid.NewGuid():N}.ppm");
        try
        {
            PageRaster.Draw(document, page, 72 * Scale, drawn, Patience, CancellationToken.None).GetAwaiter().GetResult();
            return Picture.OfPpm(File.ReadAllBytes(drawn));
        }
        catch (Exception error) when (error is UnreadableException or RecognitionMissingException)
        {
            throw new PictureException(error.Message);
        }
        finally
        {
            File.Delete(drawn);
        }
    }
}

/// <summary>A picture cannot be made; the message is a sentence for a clerk.</summary>
internal sealed class PictureException(string sentence) : Exception(sentence);
