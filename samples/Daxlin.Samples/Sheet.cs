using UglyToad.PdfPig.Content;
using UglyToad.PdfPig.Core;
using UglyToad.PdfPig.Writer;

namespace Daxlin.Samples;

/// <summary>A document drawn piece by piece, in points from the top left, with Debian's DejaVu fonts.</summary>
internal sealed class Sheet : IDisposable
{
    private const string Fonts = "/usr/share/fonts/truetype/dejavu/";

    private readonly PdfDocumentBuilder document = new();
    private readonly PdfDocumentBuilder.AddedFont regular;
    private readonly PdfDocumentBuilder.AddedFont bold;
    private readonly bool isLandscape;
    private PdfPageBuilder page = null!;

    /// <param name="family">Sans or Serif.</param>
    public Sheet(string family, bool isLandscape = false)
    {
        this.isLandscape = isLandscape;
        regular = document.AddTrueTypeFont(File.ReadAllBytes($"{Fonts}DejaVu{family}.ttf"));
        bold = document.AddTrueTypeFont(File.ReadAllBytes($"{Fonts}DejaVu{family}-Bold.ttf"));
        NewPage();
    }

    public int Pages { get; private set; }

    public void NewPage()
    {
        page = document.AddPage(PageSize.A4, !isLandscape);
        Pages++;
    }

    public void Text(string text, double left, double baseline, double size = 9, bool isBold = false) =>
        page.AddText(text, size, new PdfPoint(left, FromBottom(baseline)), isBold ? bold : regular);

    public void Right(string text, double right, double baseline, double size = 9, bool isBold = false) =>
        Text(text, right - WidthOf(text, size, isBold), baseline, size, isBold);

    public void Line(double left, double top, double right, double bottom, double width = 0.6) =>
        page.DrawLine(new PdfPoint(left, FromBottom(top)), new PdfPoint(right, FromBottom(bottom)), width);

    /// <summary>Breaks a text into lines no wider than <paramref name="width"/>.</summary>
    public List<string> Wrap(string text, double width, double size = 9)
    {
        var lines = new List<string>();
        foreach (var word in text.Split(' '))
        {
            if (lines.Count > 0 && WidthOf(lines[^1] + " " + word, size, isBold: false) <= width)
                lines[^1] += " " + word;
            else
                lines.Add(word);
        }
        return lines;
    }

    private double WidthOf(string text, double size, bool isBold)
    {
        var letters = page.MeasureText(text, size, new PdfPoint(0, 0), isBold ? bold : regular);
        return letters.Count == 0 ? 0 : letters[^1].EndBaseLine.X;
    }

    private double FromBottom(double top) => page.PageSize.Height - top;

    public void Save(string path) => File.WriteAllBytes(path, document.Build());

    public void Dispose() => document.Dispose();
}
