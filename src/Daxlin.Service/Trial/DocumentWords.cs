using System.Collections.Immutable;
using Daxlin.Core.Pages;
using Daxlin.Reading;

namespace Daxlin.Service.Trial;

/// <summary>Shows the lines and words of a document as Daxlin sees them, with their places. Nothing is stored.</summary>
internal static class DocumentWords
{
    public const string Argument = "show-words";

    /// <param name="arguments">A file; the number of a page, or 0 for all; and the file of a picture, or none.</param>
    public static int Run(string[] arguments)
    {
        var (file, only) = (arguments[0], arguments.Length > 1 ? int.Parse(arguments[1], System.Globalization.CultureInfo.InvariantCulture) : 0);
        try
        {
            var read = FileRecognition.Read(file, File.ReadAllBytes(file));
            var pages = read.Pages;
            if (arguments.Length > 2 && read.Plain is not null)
                throw new PictureException("An electronic invoice has no print that words could be drawn on; ask for its words without a picture.");
            // One picture shows one page.
            if (arguments.Length > 2 && pages.FirstOrDefault(page => page.Number == Math.Max(1, only)) is { } drawn)
                WordsPicture.Write(file, drawn, arguments[2]);
            TrialOutput.Write(new WordsOfDocument(
                Path.GetFileName(file), pages.Length, [.. pages.Where(page => only is 0 || page.Number == only).Select(Of)], null));
        }
        catch (Exception error) when (error is UnreadableException or PictureException)
        {
            TrialOutput.Write(new WordsOfDocument(Path.GetFileName(file), 0, [], error.Message));
        }
        return 0;
    }

    private static WordsOfPage Of(Page page) => new(
        page.Number, page.Width, page.Height,
        [.. page.Lines.Select(line => new WordsOfLine(
            Round(line.Box.Top), Round(line.Box.Bottom), Round(line.Words[0].Baseline), line.Text,
            [.. line.Cells.Select(cell => new WordsOfCell(Round(cell.Box.Left), Round(cell.Box.Right), cell.Text))],
            [.. line.Words.Select(word => new WordsOfCell(Round(word.Box.Left), Round(word.Box.Right), word.Text))]))],
        [.. page.Words.Where(word => word.Turn != Turn.Upright).Select(word => word.Text)],
        [.. page.Unseen.Select(word => new UnseenOnPage(Round(word.Box.Left), Round(word.Box.Top), word.Text, UnseenWord.Says(word.Why)))]);

    private static double Round(double points) => Math.Round(points, 1);
}

/// <param name="Pages">How many pages the document has.</param>
/// <param name="Shown">Those that were asked for.</param>
/// <param name="Unreadable">Why the document could not be read; null if it was.</param>
internal sealed record WordsOfDocument(string File, int Pages, ImmutableArray<WordsOfPage> Shown, string? Unreadable);

/// <param name="Number">From 1.</param>
/// <param name="Turned">Words that run upwards, downwards or upside down, which no line holds.</param>
/// <param name="Unseen">Words that the file holds and a person does not see.</param>
internal sealed record WordsOfPage(int Number, double Width, double Height, ImmutableArray<WordsOfLine> Lines, ImmutableArray<string> Turned, ImmutableArray<UnseenOnPage> Unseen);

/// <param name="Why">What is the matter with it, as part of a sentence.</param>
internal sealed record UnseenOnPage(double Left, double Top, string Text, string Why);

/// <summary>A line in points from the top left of the page.</summary>
/// <param name="Cells">Its words as they stand together.</param>
internal sealed record WordsOfLine(
    double Top, double Bottom, double Baseline, string Text, ImmutableArray<WordsOfCell> Cells, ImmutableArray<WordsOfCell> Words);

internal sealed record WordsOfCell(double Left, double Right, string Text);
