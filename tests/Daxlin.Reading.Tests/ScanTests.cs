using System.Collections.Immutable;
using System.Diagnostics;
using Daxlin.Accuracy;
using Daxlin.Core.Capture;
using Daxlin.Core.Pages;
using Daxlin.Reading.Pictures;
using Daxlin.Reading.Recognising;
using Daxlin.Testing;

namespace Daxlin.Reading.Tests;

/// <summary>Pages as pictures: drawn by another program, turned, in shadow, and recognised.</summary>
public class ScanTests
{
    private static readonly string Sample = Path.Combine(Repository.Samples, "skerrow-sail-loft");

    /// <summary>Scans of the demo's invoices are captured exactly, or held; and figures come out as they are printed.</summary>
    [Theory]
    [InlineData("skerrow-sail-loft", 0)]
    [InlineData("port-ellery-galley", 2)]
    [InlineData("halvard-marine-diesel", -1.5)]
    public async Task What_is_clear_on_a_scan_is_what_is_printed(string vendor, double degrees)
    {
        var pages = ImmutableArray<Page>.Empty;
        var score = FamilyScore.Of(Path.Combine(Repository.Samples, vendor), 1, file => pages = Scan(file, picture => Turned(picture, degrees)).Result);
        var invoice = Assert.Single(score.Invoices);
        Assert.False(invoice.IsFalseClear, string.Join(", ", invoice.Wrong));
        var figures = invoice.Wrong.Where(cell => cell.Truth?.Any(char.IsAsciiDigit) == true).ToList();
        Assert.True(figures.Count == 0, string.Join(", ", figures));
        // Each value that is printed in a text layer stands where it stands there.
        var printed = PdfReader.Read(await File.ReadAllBytesAsync(Path.Combine(Repository.Samples, vendor, invoice.Truth.File), TestContext.Current.CancellationToken))[0];
        var amounts = printed.Words.Where(word => word.Text.Count(char.IsAsciiDigit) >= 5).ToList();
        Assert.True(amounts.Count > 5);
        Assert.All(amounts, word => Assert.Contains(pages[0].Words, own => own.Text == word.Text && IsAt(pages[0].AsSeen(own.Box), word.Box, degrees, printed)));
        Assert.All(pages[0].Words.Where(word => word.Text.Count(char.IsAsciiDigit) >= 5), word => Assert.True(word.Reading!.IsTwice));
    }

    /// <summary>Where a word of the print lies on the scan, which is turned around the page's middle.</summary>
    private static bool IsAt(Box seen, Box printed, double degrees, Page page)
    {
        var (x, y) = PlaneMap.Turning(degrees, page.Width / 2, page.Height / 2).Of(printed.CenterX, printed.CenterY);
        return Math.Abs(seen.CenterX - x) < 4 && Math.Abs(seen.CenterY - y) < 4;
    }

    /// <summary>A pen that goes over a value leaves what is printed, or a hold; one that goes where nothing was captured leaves everything.</summary>
    [Fact]
    public async Task What_is_scribbled_over_is_never_clear_as_something_else()
    {
        var vendor = Path.Combine(Repository.Samples, "port-ellery-galley");
        var page = PdfReader.Read(await File.ReadAllBytesAsync(Directory.GetFiles(vendor, "*.pdf").Order(StringComparer.Ordinal).First(), TestContext.Current.CancellationToken))[0];
        InvoiceScore Taken(Box? over)
        {
            var score = FamilyScore.Of(vendor, 1, file => Scan(file, picture => over is { } box ? Scribbled(picture, box) : picture).Result);
            return Assert.Single(score.Invoices);
        }
        Assert.True(Taken(null).IsClear);
        // Words of all kinds: of descriptions, codes, figures, units.
        var words = page.Lines.SelectMany(line => line.Words).Where(word => word.Box.Top > page.Height * 0.35 && word.Box.Top < page.Height * 0.6).ToList();
        var held = 0;
        for (var at = 0; at < words.Count; at += words.Count / 9)
        {
            var invoice = Taken(words[at].Box);
            Assert.False(invoice.IsFalseClear, $"“{words[at].Text}”: {string.Join(", ", invoice.Wrong)}");
            held += invoice.IsClear ? 0 : 1;
        }
        Assert.InRange(held, 5, 10);
        var beside = Taken(new Box(page.Width - 90, page.Height - 60, page.Width - 30, page.Height - 30));
        Assert.True(beside.IsClear, beside.WhyHeld);
    }

    /// <summary>A pen's stroke from side to side, up and down, a point thick.</summary>
    private static GreyPicture Scribbled(GreyPicture picture, Box box)
    {
        var dots = picture.Dots.ToArray();
        var (scale, thick) = (picture.Dpi / 72, (int)(picture.Dpi / 72));
        for (var x = (int)(box.Left * scale); x < (int)(box.Right * scale); x++)
        {
            var y = (int)(((box.Top + box.Bottom) / 2 * scale) + (Math.Sin(x / (2.5 * scale)) * box.Height * scale * 0.6));
            for (var dot = 0; dot < thick * thick; dot++)
                dots[((y + (dot / thick)) * picture.Width) + x + (dot % thick)] = 20;
        }
        return picture with { Dots = dots };
    }

    /// <summary>What lies aslant is set straight by the angle that it was turned by, and rulings are found.</summary>
    [Fact]
    public async Task A_shadow_and_a_turn_leave_the_words_as_they_are()
    {
        var file = Directory.GetFiles(Sample, "*.pdf").Order(StringComparer.Ordinal).First();
        var straight = (await Scan(file, picture => picture))[0];
        var shaded = (await Scan(file, picture => Turned(picture with { Dots = [.. picture.Dots.Select((dot, at) => (byte)(dot * (0.95 - (0.4 * (at % picture.Width) / picture.Width))))] }, 1)))[0];
        var degrees = Math.Atan2(shaded.Straightened!.D, shaded.Straightened.A) * 180 / Math.PI;
        Assert.InRange(degrees, 0.9, 1.1);
        Assert.Null(straight.Straightened);
        var known = straight.Words.Select(word => word.Text).ToHashSet();
        Assert.InRange(shaded.Words.Count(word => known.Contains(word.Text)), straight.Words.Length * 95 / 100, int.MaxValue);
        Assert.Contains(straight.Strokes, stroke => !stroke.IsUpright && stroke.Box.Width > 100);
    }

    /// <summary>A picture file says the same as the page that it was drawn from, whichever form it has, and a camera's turn is undone.</summary>
    [Fact]
    public async Task A_picture_is_read_in_each_form_and_upright()
    {
        var cancel = TestContext.Current.CancellationToken;
        var file = Directory.GetFiles(Sample, "*.pdf").Order(StringComparer.Ordinal).First();
        var (png, jpeg, tiff) = (await Drawn(file, "-png", cancel), await Drawn(file, "-jpeg", cancel), await Drawn(file, "-tiff", cancel));
        var page = PictureFile.Page(png, 1);
        Assert.Equal(("PNG", "JPEG", "TIFF"), (PictureFile.KindOf(png), PictureFile.KindOf(jpeg), PictureFile.KindOf(tiff)));
        Assert.InRange(page.Dpi, 95, 105);
        Assert.Equal(page.Dots, PictureFile.Page(tiff, 1).Dots);
        Assert.Equal(1, PictureFile.PagesOf(tiff, ReadingLimits.Usual));
        Assert.InRange(page.Dots.Zip(PictureFile.Page(jpeg, 1).Dots, (one, other) => Math.Abs(one - other)).Average(), 0, 4);

        // As a camera writes it that was held upright on its side: the same dots, and a tag that says how they are to be shown.
        byte[] exif = [0xFF, 0xE1, 0, 34, .. "Exif\0\0"u8, .. "MM\0*"u8, 0, 0, 0, 8, 0, 1, 0x01, 0x12, 0, 3, 0, 0, 0, 1, 0, 6, 0, 0, 0, 0, 0, 0];
        var turned = PictureFile.Page((byte[])[.. jpeg[..2], .. exif, .. jpeg[2..]], 1);
        Assert.Equal((page.Height, page.Width), (turned.Width, turned.Height));
        Assert.Equal(PictureFile.Page(jpeg, 1).Unturned(Core.Pages.Drawn.Upwards).Dots, turned.Dots);
    }

    [Fact]
    public async Task A_bomb_a_torso_and_what_is_no_picture_are_refused_with_a_sentence()
    {
        var png = await Drawn(Directory.GetFiles(Sample, "*.pdf")[0], "-png", TestContext.Current.CancellationToken);
        Assert.Equal("damaged", Assert.Throws<UnreadableException>(() => PictureFile.Page(png.AsSpan(0, 40), 1)).Code);
        // A header that claims 40,000 by 40,000 dots; nobody unpacks them.
        var bomb = png.ToArray();
        new byte[] { 0, 0, 0x9C, 0x40, 0, 0, 0x9C, 0x40 }.CopyTo(bomb, 16);
        var refused = Assert.Throws<UnreadableException>(() => PictureFile.Page(bomb, 1));
        Assert.Equal(("too-large", "The picture has 40000 × 40000 dots; at most 100 million are read."), (refused.Code, refused.Message));
        Assert.Equal("not-a-picture", Assert.Throws<UnreadableException>(() => PictureFile.Page("%PDF-1.7 and so on"u8, 1)).Code);
        // A chain of directories that leads back to itself.
        byte[] endless = [.. "II*\0"u8, 8, 0, 0, 0, 0, 0, 8, 0, 0, 0];
        Assert.Equal("too-large", Assert.Throws<UnreadableException>(() => PictureFile.PagesOf(endless, ReadingLimits.Usual)).Code);
    }

    [Fact]
    public void A_language_that_is_not_there_is_named() =>
        Assert.Contains("zzz", Assert.Throws<RecognitionMissingException>(() => PageRecogniser.Start("zzz")).Message, StringComparison.Ordinal);

    /// <summary>Four points that a plane is seen by are where it takes them, and the way back is the way back.</summary>
    [Fact]
    public void A_plane_is_mapped_there_and_back()
    {
        (double, double)[] corners = [(12, 30), (590, 8), (600, 810), (-5, 780)];
        var map = PlaneMap.OfCorners(612, 792, corners);
        Assert.All(new[] { (0.0, 0.0), (612.0, 0.0), (612.0, 792.0), (0.0, 792.0) }.Zip(corners), pair =>
        {
            var (x, y) = map.Of(pair.First.Item1, pair.First.Item2);
            Assert.Equal(pair.Second.Item1, x, 6);
            Assert.Equal(pair.Second.Item2, y, 6);
            var (backX, backY) = map.Back.Of(x, y);
            Assert.Equal(pair.First.Item1, backX, 6);
            Assert.Equal(pair.First.Item2, backY, 6);
        });
    }

    private static GreyPicture Turned(GreyPicture picture, double degrees) => degrees == 0 ? picture
        : picture.Mapped(picture.Width, picture.Height, PlaneMap.Turning(-degrees, picture.Width / 2.0, picture.Height / 2.0), picture.Dpi);

    private static async Task<ImmutableArray<Page>> Scan(string file, Func<GreyPicture, GreyPicture> make)
    {
        using var recogniser = PageRecogniser.Start("eng");
        var pages = ImmutableArray.CreateBuilder<Page>();
        foreach (var page in PdfReader.Read(await File.ReadAllBytesAsync(file)))
        {
            pages.Add(recogniser.Recognise(page.Number, make(await PageRaster.InGrey(file, page.Number, PageRaster.DpiFor(page.Width, page.Height), TimeSpan.FromSeconds(60), default))));
        }
        return pages.ToImmutable();
    }

    private static async Task<byte[]> Drawn(string file, string form, CancellationToken cancel)
    {
        var folder = Directory.CreateTempSubdirectory("daxlin-drawn-");
        try
        {
            using var program = Process.Start(new ProcessStartInfo("pdftoppm", ["-r", "100", "-gray", "-singlefile", form, file, Path.Combine(folder.FullName, "page")]))!;
            await program.WaitForExitAsync(cancel);
            return await File.ReadAllBytesAsync(Assert.Single(folder.GetFiles()).FullName, cancel);
        }
        finally
        {
            folder.Delete(recursive: true);
        }
    }
}
