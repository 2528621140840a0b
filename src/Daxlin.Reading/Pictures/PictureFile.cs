using System.Collections.Immutable;
using System.Runtime.InteropServices;
using Daxlin.Core.Pages;
using Daxlin.Reading.Recognising;

namespace Daxlin.Reading.Pictures;

/// <summary>A file that is a picture, or several: PNG, JPEG, TIFF or WebP.</summary>
public static class PictureFile
{
    /// <summary>More dots than this are a trick: a page of A3 at 600 an inch has 70 million.</summary>
    public const long MostDots = 100_000_000;

    /// <summary>Dots an inch of a picture that says nothing of them: as if it were a page of this width.</summary>
    private const double UsualInches = 8.27;

    /// <summary>What kind of picture bytes begin as; null for none.</summary>
    public static string? KindOf(ReadOnlySpan<byte> bytes) => bytes switch
    {
        [0x89, (byte)'P', (byte)'N', (byte)'G', 0x0D, 0x0A, 0x1A, 0x0A, ..] => "PNG",
        [0xFF, 0xD8, 0xFF, ..] => "JPEG",
        [(byte)'I', (byte)'I', 42, 0, ..] or [(byte)'M', (byte)'M', 0, 42, ..] => "TIFF",
        [(byte)'R', (byte)'I', (byte)'F', (byte)'F', _, _, _, _, (byte)'W', (byte)'E', (byte)'B', (byte)'P', ..] => "WebP",
        _ => null,
    };

    /// <summary>How many pages it has: one, but for a TIFF.</summary>
    /// <exception cref="UnreadableException">It is damaged, or has more pages than are read.</exception>
    public static int PagesOf(ReadOnlySpan<byte> bytes, ReadingLimits limits)
    {
        if (KindOf(bytes) != "TIFF")
            return 1;
        var pages = TiffDirectories.Count(bytes, limits.Pages + 1);
        return pages == 0 ? throw Damaged("TIFF")
            : pages <= limits.Pages ? pages : throw new UnreadableException("too-large", $"The TIFF has more than {limits.Pages} pages; at most so many are read.");
    }

    /// <summary>Unpacks a page, turned as the file says that it is to be shown.</summary>
    /// <param name="number">From 1.</param>
    /// <exception cref="UnreadableException">It is damaged, or too large.</exception>
    /// <exception cref="RecognitionMissingException">The library is not on this machine.</exception>
    public static GreyPicture Page(ReadOnlySpan<byte> bytes, int number)
    {
        var kind = KindOf(bytes) ?? throw new UnreadableException("not-a-picture", "This is no picture that is read: PNG, JPEG, TIFF or WebP.");
        try
        {
            _ = LeptonicaLibrary.SetMessages(6);
            var (width, height) = SizeOf(bytes, kind, number);
            if ((long)width * height > MostDots)
                throw new UnreadableException("too-large", $"The picture has {width} × {height} dots; at most {MostDots / 1_000_000} million are read.");
            var picture = kind == "TIFF" ? LeptonicaLibrary.ReadTiff(bytes, (nuint)bytes.Length, number - 1) : LeptonicaLibrary.Read(bytes, (nuint)bytes.Length);
            if (picture == 0)
                throw Damaged(kind);
            // A TIFF's own turn is made by the library.
            return Grey(picture).Unturned(kind == "TIFF" ? Drawn.Upright : PhotoTurn.Of(bytes));
        }
        catch (DllNotFoundException)
        {
            throw new RecognitionMissingException("Pictures are not read on this machine: it needs Debian's package tesseract-ocr.");
        }
    }

    private static (int Width, int Height) SizeOf(ReadOnlySpan<byte> bytes, string kind, int number)
    {
        int width, height;
        var fault = kind == "TIFF" ? LeptonicaLibrary.ReadTiffHeader(bytes, (nuint)bytes.Length, number - 1, out width, out height, out _, out _, out _, out _, out _)
            : LeptonicaLibrary.ReadHeader(bytes, (nuint)bytes.Length, out _, out width, out height, out _, out _, out _);
        return fault == 0 && width > 0 && height > 0 ? (width, height) : throw Damaged(kind);
    }

    private static GreyPicture Grey(nint picture)
    {
        var (onWhite, grey) = (nint.Zero, nint.Zero);
        try
        {
            var dpi = LeptonicaLibrary.ResolutionOf(picture);
            onWhite = LeptonicaLibrary.OnWhite(picture);
            grey = LeptonicaLibrary.ToGrey(onWhite, 0);
            if (grey == 0)
                throw new UnreadableException("damaged", "The picture is damaged and cannot be read.");
            // The library keeps four dots in a number, in the machine's own order.
            if (BitConverter.IsLittleEndian)
                _ = LeptonicaLibrary.SwapBytes(grey);
            var (width, height, line) = (LeptonicaLibrary.WidthOf(grey), LeptonicaLibrary.HeightOf(grey), LeptonicaLibrary.WordsALine(grey) * 4);
            var dots = new byte[width * height];
            for (var y = 0; y < height; y++)
                Marshal.Copy(LeptonicaLibrary.DataOf(grey) + (y * line), dots, y * width, width);
            return new GreyPicture(width, height, dots, DpiOf(dpi, width, height));
        }
        finally
        {
            LeptonicaLibrary.Destroy(ref grey);
            LeptonicaLibrary.Destroy(ref onWhite);
            LeptonicaLibrary.Destroy(ref picture);
        }
    }

    /// <summary>What a camera or a screen says of dots an inch has nothing to do with the paper: it is believed only if the page comes out as large as paper is.</summary>
    private static double DpiOf(int said, int width, int height)
    {
        var inches = said > 0 ? Math.Min(width, height) / (double)said : 0;
        return inches is > 3 and < 13 ? said : Math.Min(width, height) / UsualInches;
    }

    private static UnreadableException Damaged(string kind) => new("damaged", $"The {kind} is damaged and cannot be read; ask whoever sent it to send it again.");
}
