using System.Collections.Immutable;
using System.Runtime.InteropServices;
using Daxlin.Core.Pages;
using Daxlin.Reading.Pictures;

namespace Daxlin.Reading.Recognising;

/// <summary>The first reading: words by Tesseract, kept warm for the next page.</summary>
internal sealed class TesseractEngine : IDisposable
{
    /// <summary>Looks for text wherever it stands: an invoice is no running text, and its reading order is made by <see cref="TextLine"/>.</summary>
    private const int SparseText = 11;

    /// <summary>Takes all of a picture for one word.</summary>
    private const int OneWord = 8;

    private readonly nint engine;

    private TesseractEngine(nint engine) => this.engine = engine;

    /// <param name="languages">As Tesseract names them, parted by +.</param>
    /// <exception cref="RecognitionMissingException">It is not on this machine, or a language is not.</exception>
    public static TesseractEngine Start(string languages)
    {
        try
        {
            var engine = TesseractLibrary.Create();
            if (TesseractLibrary.Begin(engine, null, languages) == 0)
            {
                TesseractLibrary.Set(engine, "debug_file", "/dev/null");
                TesseractLibrary.SetLayout(engine, SparseText);
                return new TesseractEngine(engine);
            }
            TesseractLibrary.Delete(engine);
            throw new RecognitionMissingException($"Tesseract has no data for the language {languages}: Debian's packages are called tesseract-ocr-… after the language.");
        }
        catch (DllNotFoundException)
        {
            throw new RecognitionMissingException("Text recognition is not set up on this machine: it needs Debian's package tesseract-ocr.");
        }
    }

    public ImmutableArray<RecognisedWord> WordsOf(GreyPicture page)
    {
        TesseractLibrary.SetPicture(engine, page.Dots, page.Width, page.Height, 1, page.Width);
        TesseractLibrary.SetResolution(engine, (int)Math.Round(page.Dpi));
        try
        {
            if (TesseractLibrary.Recognise(engine, 0) != 0)
                return [];
            var results = TesseractLibrary.Results(engine);
            if (results == 0)
                return [];
            try
            {
                return Words(results);
            }
            finally
            {
                TesseractLibrary.DeleteResults(results);
            }
        }
        finally
        {
            TesseractLibrary.Clear(engine);
        }
    }

    /// <summary>What stands on a picture of one word; empty if nothing does.</summary>
    public string WordOf(GreyPicture piece)
    {
        TesseractLibrary.SetLayout(engine, OneWord);
        try
        {
            return string.Join(' ', WordsOf(piece).Select(word => word.Text));
        }
        finally
        {
            TesseractLibrary.SetLayout(engine, SparseText);
        }
    }

    private static ImmutableArray<RecognisedWord> Words(nint results)
    {
        var place = TesseractLibrary.PlaceOf(results);
        var words = ImmutableArray.CreateBuilder<RecognisedWord>();
        do
        {
            if (TesseractLibrary.BoxOf(place, TesseractLibrary.Word, out var left, out var top, out var right, out var bottom) == 0)
                continue;
            var certainty = TesseractLibrary.CertaintyOf(results, TesseractLibrary.Word) / 100.0;
            var baseline = TesseractLibrary.BaselineOf(place, TesseractLibrary.Line, out var x1, out var y1, out var x2, out var y2) != 0 && x2 > x1
                ? y1 + ((y2 - y1) * (((left + right) / 2.0) - x1) / (x2 - x1)) : bottom;
            var letters = ImmutableArray.CreateBuilder<(string, Box)>();
            do
            {
                if (TextOf(results, TesseractLibrary.Symbol) is { Length: > 0 } text
                    && TesseractLibrary.BoxOf(place, TesseractLibrary.Symbol, out var from, out var high, out var to, out var low) != 0)
                    letters.Add((text, new Box(from, high, to, low)));
            }
            while (TesseractLibrary.Ends(place, TesseractLibrary.Word, TesseractLibrary.Symbol) == 0 && TesseractLibrary.Next(results, TesseractLibrary.Symbol) != 0);
            var whole = string.Concat(letters.Select(letter => letter.Item1));
            if (whole.Trim().Length > 0)
                words.Add(new RecognisedWord(whole, new Box(left, top, right, bottom), baseline, letters.ToImmutable(), certainty));
        }
        while (TesseractLibrary.Next(results, TesseractLibrary.Word) != 0);
        return words.ToImmutable();
    }

    private static string TextOf(nint results, int part)
    {
        var text = TesseractLibrary.TextOf(results, part);
        if (text == 0)
            return "";
        try
        {
            return Marshal.PtrToStringUTF8(text) ?? "";
        }
        finally
        {
            TesseractLibrary.DeleteText(text);
        }
    }

    public void Dispose() => TesseractLibrary.Delete(engine);
}
