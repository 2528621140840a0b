using System.IO.Compression;
using System.Text;
using CsCheck;
using Daxlin.Core;
using Daxlin.Core.Capture;
using Daxlin.Core.Checks;
using Daxlin.Core.Pages;
using Daxlin.Core.Recognition;
using Daxlin.Testing;

namespace Daxlin.Reading.Tests;

/// <summary>Pictures over and under figures, in every form that a PDF has for them.</summary>
public sealed class PictureTests
{
    private static string FigureAt(int left) => $"BT /F1 12 Tf 1 0 0 1 {left} 700 Tm (8) Tj ET";

    /// <summary>How a picture's points are written.</summary>
    /// <param name="Space">Of its colours.</param>
    /// <param name="Parts">Numbers a point has.</param>
    /// <param name="Dark">The numbers of a dark point, of all their bits.</param>
    /// <param name="Light">The numbers of a white point.</param>
    private sealed record Form(string Space, int Bits, int Parts, double[] Dark, double[] Light);

    private static readonly Form[] Forms =
    [
        .. new[] { 1, 2, 4, 8, 16 }.Select(bits => new Form("/DeviceGray", bits, 1, [0], [1])),
        .. new[] { 1, 2, 4, 8 }.Select(bits => new Form("[/Indexed /DeviceRGB 1 <FFFFFF000000>]", bits, 1, [1.0 / ((1 << bits) - 1)], [0])),
        new("/DeviceRGB", 8, 3, [0, 0, 0], [1, 1, 1]),
        new("/DeviceRGB", 4, 3, [0, 0, 0], [1, 1, 1]),
        new("/DeviceCMYK", 8, 4, [0, 0, 0, 1], [0, 0, 0, 0]),
        new("[/ICCBased 8 0 R]", 8, 3, [0, 0, 0], [1, 1, 1]),
        new("[/CalGray << /WhitePoint [0.9505 1 1.089] >>]", 8, 1, [0], [1]),
    ];

    private const int Width = 30, Height = 10;

    /// <summary>A picture whose left half is dark and whose right half is white.</summary>
    private static byte[] Points(Form form, bool isTurned, Func<int, bool> isDark)
    {
        var points = new List<byte>();
        for (var row = 0; row < Height; row++)
        {
            var (kept, count) = (0L, 0);
            for (var column = 0; column < Width; column++)
            {
                foreach (var part in isDark(column) ? form.Dark : form.Light)
                {
                    kept = (kept << form.Bits) | (long)Math.Round((isTurned ? 1 - part : part) * ((1 << form.Bits) - 1));
                    for (count += form.Bits; count >= 8; count -= 8)
                        points.Add((byte)(kept >> (count - 8)));
                }
            }
            if (count > 0)
                points.Add((byte)(kept << (8 - count)));
        }
        return [.. points];
    }

    private static byte[] Packed(byte[] bytes)
    {
        using var packed = new MemoryStream();
        using (var zlib = new ZLibStream(packed, CompressionLevel.Optimal, leaveOpen: true))
            zlib.Write(bytes);
        return packed.ToArray();
    }

    /// <summary>The figure is seen if and only if the page looks otherwise without it, whatever form the picture has.</summary>
    [Fact]
    public void A_figure_over_or_under_a_picture_is_seen_if_the_page_looks_otherwise_without_it()
    {
        var (seen, unseen) = (0, 0);
        Gen.Select(Gen.Int[0, Forms.Length - 1], Gen.Int[0, 6], Gen.Int[0, 4], Gen.Select(Gen.Bool, Gen.Bool, Gen.Bool)).Sample(
            (which, packing, mask, more) =>
            {
                var ((isOver, isRight, isWhite), isTurned) = (more, packing == 1);
                var form = Forms[which];
                static bool IsDark(int column) => column < Width / 2;
                var isPhotograph = packing >= 4;
                if (isPhotograph)
                    form = packing == 4 ? new Form("/DeviceGray", 8, 1, [0], [1]) : new Form("/DeviceRGB", 8, 3, [0, 0, 0], [1, 1, 1]);
                var all = form.Space.Contains("Indexed", StringComparison.Ordinal) ? (1 << form.Bits) - 1 : 1;
                var decode = isTurned ? $"/Decode [{string.Join(' ', Enumerable.Repeat($"{all} 0", form.Parts))}]" : "";
                var points = isPhotograph ? TinyPicture.Photograph(Width, Height, form.Parts, IsDark) : Points(form, isTurned, IsDark);
                var filter = packing switch { 2 => "/FlateDecode", 3 => "[/ASCIIHexDecode /FlateDecode]", 4 or 5 => "/DCTDecode", 6 => "[/FlateDecode /DCTDecode]", _ => null };
                points = packing switch { 2 or 6 => Packed(points), 3 => Encoding.ASCII.GetBytes(Convert.ToHexString(Packed(points)) + ">"), _ => points };
                var size = $"/Width {Width} /Height {Height}";
                var entries = $"/Type /XObject /Subtype /Image {size} /BitsPerComponent {form.Bits} /ColorSpace {form.Space} {decode} {(filter is null ? "" : $"/Filter {filter}")}";
                // The mask's left third lets all through, or the other way about.
                static bool IsLeft(int column) => column < Width / 3;
                var (masked, maskEntries, maskPoints) = mask switch
                {
                    1 => ("/SMask 7 0 R", $"/Subtype /Image {size} /BitsPerComponent 8 /ColorSpace /DeviceGray", Points(Forms[3], false, IsLeft)),
                    2 => ("/SMask 7 0 R", $"/Subtype /Image {size} /BitsPerComponent 1 /ColorSpace /DeviceGray /Decode [1 0]", Points(Forms[0], false, IsLeft)),
                    3 => ("/Mask 7 0 R", $"/Subtype /Image {size} /ImageMask true /BitsPerComponent 1", Points(Forms[0], false, IsLeft)),
                    _ => ("", "", Array.Empty<byte>()),
                };
                if (mask == 4)
                    (entries, points) = ($"/Subtype /Image {size} /ImageMask true /BitsPerComponent 1 {(isTurned ? "/Decode [1 0]" : "")}", Points(Forms[0], false, IsDark));
                byte[] Page(bool isThere)
                {
                    var figure = isThere ? FigureAt(isRight ? 170 : 110) : "";
                    var picture = $"q 90 0 0 30 100 690 cm {(isRight ? "1 g" : "0 g")} /X Do Q";
                    var ink = isWhite ? "1 g " : "0 g ";
                    return TinyPdf.OnePage(
                        $"{(isOver ? ink + figure : picture)} {(isOver ? picture : ink + figure)} 0 g BT /F1 10 Tf 1 0 0 1 400 100 Tm (Total) Tj ET", resources: "/XObject << /X 6 0 R >>",
                        objects: [($"{entries} {masked}", points), (maskEntries, maskPoints), ("/N 3 /Alternate /DeviceRGB", "no profile"u8.ToArray())]);
                }
                // Black comes out as a dark grey from four inks.
                var isSeen = Looks(Page(true)).Zip(Looks(Page(false))).Any(points => Math.Abs(points.First - points.Second) > 60);
                var page = PdfReader.Read(Page(true))[0];
                Assert.Equal((isSeen, !isSeen), (page.Words.Any(word => word.Text == "8"), page.Unseen.Any(word => word.Text == "8")));
                (seen, unseen) = (seen + (isSeen ? 1 : 0), unseen + (isSeen ? 0 : 1));
            },
            iter: 120, threads: 1);
        Assert.True(seen > 20 && unseen > 20, $"{seen} were seen and {unseen} were not");
    }

    /// <summary>Pictures within the content itself: one point is enough to cover a figure, or to lie under one.</summary>
    [Theory]
    [InlineData("q 90 0 0 30 100 690 cm 1 g BI /W 1 /H 1 /IM true ID \0 EI Q", true, false)]
    [InlineData("q 90 0 0 30 100 690 cm 1 g BI /W 1 /H 1 /IM true /D [1 0] ID \0 EI Q", true, true)]
    [InlineData("q 90 0 0 30 100 690 cm BI /W 1 /H 1 /BPC 8 /CS /G ID \0 EI Q", false, false)]
    [InlineData("q 90 0 0 30 100 690 cm BI /W 1 /H 1 /BPC 8 /CS /G ID \u00FF EI Q", false, true)]
    [InlineData("q 90 0 0 30 100 690 cm BI /W 1 /H 1 /BPC 8 /CS /G /F [/AHx] ID 00> EI Q", false, false)]
    [InlineData("q 90 0 0 30 100 690 cm BI /W 1 /H 1 /BPC 1 /CS [/I /RGB 1 <FFFFFF000000>] ID \u0080 EI Q", false, false)]
    [InlineData("q 90 0 0 30 100 690 cm BI /W 1 /H 1 /BPC 1 /CS [/I /RGB 1 (\\377\\377\\377\\0\\0\\0)] ID \0 EI Q", false, true)]
    [InlineData("q 90 0 0 30 100 690 cm BI /W 1 /H 1 /BPC 8 /CS /Own ID \0 EI Q", false, false)]
    public void A_picture_in_the_content_hides_like_any_other(string picture, bool isOver, bool isSeen)
    {
        var figure = FigureAt(110);
        var page = PdfReader.Read(TinyPdf.OnePage(
            $"0 g {(isOver ? figure : picture)} {(isOver ? picture : figure)} 0 g BT /F1 10 Tf 1 0 0 1 400 100 Tm (Total) Tj ET", resources: "/ColorSpace << /Own /DeviceGray /A /B /B /A >>"))[0];
        Assert.Equal((isSeen, !isSeen), (page.Words.Any(word => word.Text == "8"), page.Unseen.Any(word => word.Text == "8")));
    }

    private const string Jpeg2000 = "/Subtype /Image /Width 9 /Height 9 /Filter /JPXDecode", Plain = "/Subtype /Image /Width 1 /Height 1 /BitsPerComponent 8 /ColorSpace /DeviceGray";

    /// <summary>Where nobody can tell whether a figure is seen, it is read, and told.</summary>
    [Theory]
    [InlineData("1 g", "/X Do", "", Jpeg2000, "", true)]
    [InlineData("0 g", "/X Do", "", Jpeg2000, "", false)]
    [InlineData("0 g", "", "/X Do", Plain + " /SMask 7 0 R", Jpeg2000, true)]
    [InlineData("0 g", "", "/X Do", Plain + " /SMaskInData 1", "", true)]
    [InlineData("0 g", "", "/X Do", Plain + " /Mask [0 9]", "", true)]
    [InlineData("0 g", "/X Do", "", Plain + " /SMask 7 0 R", Jpeg2000, false)]
    [InlineData("0 g", "", "/Masked gs 1 g 0 0 1 1 re f", Plain, "", true)]
    [InlineData("0 g", "/Masked gs 1 g 0 0 1 1 re f", "", Plain, "", false)]
    [InlineData("0 g", "", "/Masked gs /Open gs 1 g 0 0 0.1 0.1 re f", Plain, "", false)]
    [InlineData("0 g", "", "/Masked gs 1 g 0.9 0 0.1 1 re f", Plain, "", false)]
    [InlineData("0 g", "", "/Darker gs 1 g 0 0 1 1 re f", Plain, "", false)]
    public void What_nobody_can_tell_is_read_and_told(string ink, string under, string over, string picture, string mask, bool isUntold)
    {
        var page = PdfReader.Read(TinyPdf.OnePage(
            $"q 90 0 0 30 100 690 cm {under} Q /Open gs {ink} {FigureAt(110)} q 90 0 0 30 100 690 cm {over} Q 0 g BT /F1 10 Tf 1 0 0 1 400 100 Tm (Total) Tj ET",
            resources: "/XObject << /X 6 0 R >> /ExtGState << /Masked << /SMask << /S /Luminosity /G 6 0 R >> >> /Open << /SMask /None >> /Darker << /BM [/Multiply] >> >>",
            objects: [(picture, "x"u8.ToArray()), (mask, "x"u8.ToArray())]))[0];
        Assert.Contains(page.Words, word => word.Text == "8");
        Assert.Equal(isUntold ? ["8"] : [], page.Unseen.Where(word => word.Why == UnseenBy.Untold).Select(word => word.Text));
        var told = Placing.FindingsOf(Assert.Single(InvoicePath.Take([page], [], DocumentFacts.Unknown)).Found).Where(finding => finding.Code == "hidden-text").Select(finding => (finding.Severity, finding.Message));
        Assert.Equal(
            isUntold ? [(Severity.Hold, "Page 1 holds text of which nobody can tell whether it is seen: “8”. Over or under it lies something whose mask or colours are not read. It was read as if it were seen; look at the page.")] : [],
            told);
    }

    private static byte[] LightOn(string picture, byte[] bytes) => TinyPdf.OnePage(
        $"q 90 0 0 30 100 690 cm /X Do Q 1 g {FigureAt(110)} 0 g BT /F1 10 Tf 1 0 0 1 400 100 Tm (Total) Tj ET", resources: "/XObject << /X 6 0 R >>", objects: [(picture, bytes)]);

    /// <summary>A picture that is said to be larger than memory, or is, is one that is not read; the file is.</summary>
    [Fact]
    public void A_picture_beyond_the_limits_is_not_read_and_refuses_nothing()
    {
        var clear = TinyPicture.Photograph(16, 16, 3, _ => true, growsClearer: true);
        Assert.Contains(PdfReader.Read(LightOn("/Subtype /Image /Width 16 /Height 16 /Filter /DCTDecode", clear))[0].Words, word => word.Text == "8");
        foreach (var photograph in new[] { clear, TinyPicture.Photograph(16, 16, 3, _ => true) })
        {
            // Its head says 65,000 × 65,000 points.
            var frame = photograph.AsSpan().IndexOf([(byte)0xFF, (byte)0xC2]) is >= 0 and var at ? at : photograph.AsSpan().IndexOf([(byte)0xFF, (byte)0xC0]);
            byte[] said = [.. photograph[..(frame + 5)], 0xFD, 0xE8, 0xFD, 0xE8, .. photograph[(frame + 9)..]];
            Assert.Contains(UnseenBy.Untold, PdfReader.Read(LightOn("/Subtype /Image /Width 65000 /Height 65000 /Filter /DCTDecode", said))[0].Unseen.Select(word => word.Why));
        }
        var bomb = Packed(new byte[9000 * 9000]);
        Assert.Equal([UnseenBy.Untold], PdfReader.Read(LightOn("/Subtype /Image /Width 9000 /Height 9000 /BitsPerComponent 8 /ColorSpace /DeviceGray /Filter /FlateDecode", bomb))[0].Unseen.Select(word => word.Why));

        // What pictures take is no part of what pages may have.
        var small = new ReadingLimits(10, 1000, 3000, 4000);
        var names = string.Join(' ', Enumerable.Range(0, 5).Select(page => $"/X{page} {page + 14} 0 R"));
        var pages = PdfReader.Read(
            TinyPdf.Pages(
                [.. Enumerable.Range(0, 5).Select(page => $"q 90 0 0 30 100 690 cm /X{page} Do Q 1 g {FigureAt(110)} 0 g BT /F1 10 Tf 1 0 0 1 400 100 Tm (Total) Tj ET")], resources: $"/XObject << {names} >>",
                objects: [.. Enumerable.Range(0, 5).Select(_ => ("/Subtype /Image /Width 50 /Height 50 /BitsPerComponent 8 /ColorSpace /DeviceGray /Filter /FlateDecode", (byte[]?)Packed(new byte[2500])))]), small);
        Assert.Equal(5, pages.Length);
        Assert.Equal([0, 1, 1, 1, 1], pages.Select(page => page.Unseen.Length));
    }

    private static byte[] Looks(byte[] pdf) => Rasteriser.Draw(pdf, (90, 110, 120, 50));
}
