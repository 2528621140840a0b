using System.Collections.Immutable;
using Daxlin.Core.Pages;
using Daxlin.Reading.Pictures;

namespace Daxlin.Reading.Recognising;

/// <summary>Makes a page of words of a picture: set upright and straight, read once as a whole and, where figures can be, a second time piece by piece.</summary>
public sealed class PageRecogniser : IDisposable
{
    private readonly TesseractEngine engine;
    private readonly FigureReader figures;

    private PageRecogniser(TesseractEngine engine, FigureReader figures) => (this.engine, this.figures) = (engine, figures);

    /// <summary>For all languages in Latin script where the model of the script is there; else for English.</summary>
    /// <exception cref="RecognitionMissingException">As for the other.</exception>
    public static PageRecogniser Start()
    {
        try
        {
            return Start("Latin");
        }
        catch (RecognitionMissingException)
        {
            return Start("eng");
        }
    }

    /// <param name="languages">As Tesseract names them, parted by +: <c>eng+deu</c>.</param>
    /// <exception cref="RecognitionMissingException">What it needs is not on this machine.</exception>
    public static PageRecogniser Start(string languages)
    {
        var engine = TesseractEngine.Start(languages);
        try
        {
            return new PageRecogniser(engine, FigureReader.Start());
        }
        catch
        {
            engine.Dispose();
            throw;
        }
    }

    /// <summary>Recognises a page.</summary>
    /// <param name="number">Its number, from 1.</param>
    /// <param name="picture">As a person sees it.</param>
    public Page Recognise(int number, GreyPicture picture)
    {
        var lit = Light.Evened(picture);
        var degrees = Skew.Of(lit);
        var isAslant = Math.Abs(degrees) >= LeastTurn;
        var straight = isAslant ? lit.Mapped(lit.Width, lit.Height, PlaneMap.Turning(degrees, lit.Width / 2.0, lit.Height / 2.0), lit.Dpi) : lit;
        var (clean, strokes) = Rulings.TakenOut(straight);
        var (words, unread) = new TwoReadings(engine, figures).Of(clean);
        var point = clean.Point;
        return new Page(number, clean.Width * point, clean.Height * point, [.. words.SelectMany(word => word.ToWords(point))], strokes)
        {
            Straightened = isAslant ? PlaneMap.Turning(degrees, lit.Width * point / 2, lit.Height * point / 2) : null,
            IsRecognised = true,
            Unread = [.. unread.Select(ink => new Box(ink.Left * point, ink.Top * point, ink.Right * point, ink.Bottom * point))],
        };
    }

    /// <summary>In degrees; less moves a word by a point at most.</summary>
    private const double LeastTurn = 0.05;

    public void Dispose()
    {
        engine.Dispose();
        figures.Dispose();
    }
}
