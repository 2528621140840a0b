using System.Collections.Immutable;
using System.Globalization;
using System.Runtime.InteropServices;
using System.Text.Json;
using Daxlin.Core.Pages;

namespace Daxlin.Reading.Recognising;

/// <summary>The recognised pages of a document, kept in a folder of their own, a file for each: a page is recognised once, whatever it is captured by.</summary>
/// <param name="folder">It need not be there.</param>
public sealed class RecognisedPages(string folder)
{
    private string FileOf(int number) => Path.Combine(folder, number.ToString(CultureInfo.InvariantCulture) + ".json");

    /// <summary>Where the PNG of a page stands, if the document is a picture.</summary>
    public string PictureOf(int number) => Path.Combine(folder, number.ToString(CultureInfo.InvariantCulture) + ".png");

    public bool Has(int number) => File.Exists(FileOf(number));

    /// <summary>A page; null if it has not been recognised, or its file is damaged: then it is recognised again.</summary>
    public Page? Find(int number)
    {
        try
        {
            using var file = File.OpenRead(FileOf(number));
            return JsonSerializer.Deserialize<KeptPage>(file) is { } kept ? kept.ToPage(number) : null;
        }
        catch (Exception error) when (error is FileNotFoundException or DirectoryNotFoundException or JsonException)
        {
            return null;
        }
    }

    /// <summary>Writes a page as it is kept.</summary>
    public static void Write(Stream to, Page page) => JsonSerializer.Serialize(to, KeptPage.Of(page));

    /// <summary>Takes a file that <see cref="Write"/> wrote for its own; it is there as a whole or not at all.</summary>
    /// <param name="picture">The page's picture as a PNG, where the document is one that browsers cannot draw page by page; taken as well.</param>
    public void Take(int number, string file, string? picture = null)
    {
        Directory.CreateDirectory(folder);
        if (picture is not null)
            File.Move(picture, PictureOf(number), overwrite: true);
        File.Move(file, FileOf(number), overwrite: true);
    }

    /// <summary>A page as it stands in a file.</summary>
    private sealed record KeptPage(
        double Width, double Height, ImmutableArray<KeptWord> Words, ImmutableArray<double[]> Strokes, ImmutableArray<double[]> Unread, PlaneMap? Straightened, Drawn Drawn)
    {
        public static KeptPage Of(Page page) => new(
            page.Width, page.Height, [.. page.Words.Select(KeptWord.Of)], [.. page.Strokes.Select(stroke => Sides(stroke.Box))], [.. page.Unread.Select(Sides)], page.Straightened, page.Drawn);

        public Page ToPage(int number) => new(number, Width, Height, [.. Words.Select(word => word.ToWord())], [.. Strokes.Select(sides => new Stroke(BoxOf(sides)))])
        {
            IsRecognised = true,
            Unread = [.. Unread.Select(BoxOf)],
            Straightened = Straightened,
            Drawn = Drawn,
        };
    }

    /// <param name="Stops">As of <see cref="Word"/>, in bytes of a machine whose least come first: numbers in full, in few letters.</param>
    private sealed record KeptWord(string Text, double[] Box, double Baseline, double Size, byte[] Stops, Turn Turn, ImmutableArray<string> Others, bool IsTwice)
    {
        public static KeptWord Of(Word word) => new(
            word.Text, Sides(word.Box), word.Baseline, word.Size, MemoryMarshal.AsBytes(word.Stops.Span).ToArray(), word.Turn, word.Reading?.Others ?? [], word.Reading?.IsTwice ?? false);

        public Word ToWord() => new(Text, BoxOf(Box), Baseline, Size, MemoryMarshal.Cast<byte, double>(Stops).ToArray(), Turn) { Reading = new WordReading(Others, IsTwice) };
    }

    private static double[] Sides(Box box) => [box.Left, box.Top, box.Right, box.Bottom];

    private static Box BoxOf(double[] sides) => new(sides[0], sides[1], sides[2], sides[3]);
}
