using System.ComponentModel;
using System.Diagnostics;
using System.Globalization;
using Daxlin.Reading.Recognising;

namespace Daxlin.Reading.Pictures;

/// <summary>Draws pages of a PDF as pictures, by Poppler's pdftoppm in a process of its own with bounds of its own.</summary>
public static class PageRaster
{
    /// <summary>Dots an inch: what recognisers are made for, and what small type needs.</summary>
    public const int Dpi = 300;

    /// <summary>A page of A3 has 17 million dots at <see cref="Dpi"/>; larger ones are drawn coarser.</summary>
    private const double MostDots = 30_000_000;

    private const long MostMemory = 2L << 30;

    /// <summary>How many dots an inch a page is drawn with to be recognised.</summary>
    /// <param name="width">Of the page, in points.</param>
    /// <param name="height">Of the page, in points.</param>
    public static double DpiFor(double width, double height) => Math.Min(Dpi, Math.Sqrt(MostDots / Math.Max(1, width * height)) * 72);

    /// <summary>Draws a page in grey, by way of a file that is gone afterwards.</summary>
    /// <exception cref="UnreadableException">As for <see cref="Draw"/>.</exception>
    /// <exception cref="RecognitionMissingException">As for <see cref="Draw"/>.</exception>
    public static async Task<GreyPicture> InGrey(string document, int page, double dpi, TimeSpan patience, CancellationToken cancel)
    {
        var drawn = Path.Combine(Path.GetTempPath(), $"daxlin-page-{Guid.NewGuid():N}.pgm");
        try
        {
            await Draw(document, page, dpi, drawn, patience, cancel);
            return GreyPicture.OfPgm(await File.ReadAllBytesAsync(drawn, cancel), dpi);
        }
        finally
        {
            File.Delete(drawn);
        }
    }

    /// <summary>Draws a page as a person sees it.</summary>
    /// <param name="picture">The file that is written: <c>….pgm</c> in grey, <c>….ppm</c> in colours; <see cref="Netpbm"/> reads it.</param>
    /// <exception cref="UnreadableException">The page cannot be drawn, or not in that time.</exception>
    /// <exception cref="RecognitionMissingException">The program is not on this machine.</exception>
    public static async Task Draw(string document, int page, double dpi, string picture, TimeSpan patience, CancellationToken cancel)
    {
        var (number, resolution) = (page.ToString(CultureInfo.InvariantCulture), dpi.ToString("F2", CultureInfo.InvariantCulture));
        string[] inGrey = Path.GetExtension(picture) == ".pgm" ? ["-gray"] : [];
        string[] draw = ["pdftoppm", .. inGrey, "-cropbox", "-singlefile", "-f", number, "-l", number, "-r", resolution, document, Path.ChangeExtension(picture, null)];
        // What it may take is bounded by the system, since a stranger's file tells it what to do.
        var start = new ProcessStartInfo("prlimit", [$"--as={MostMemory}", "--core=0", .. draw]) { RedirectStandardError = true, RedirectStandardOutput = true };
        using var until = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        until.CancelAfter(patience);
        Process process;
        try
        {
            process = Process.Start(start)!;
        }
        catch (Win32Exception)
        {
            throw new RecognitionMissingException("Pages cannot be drawn on this machine: that needs Debian's package util-linux.");
        }
        using (process)
        {
            try
            {
                var said = process.StandardError.ReadToEndAsync(until.Token);
                await process.WaitForExitAsync(until.Token);
                if (process.ExitCode == 0 && File.Exists(picture))
                    return;
                throw (await said).Contains("failed to execute", StringComparison.Ordinal)
                    ? new RecognitionMissingException("Pages cannot be drawn on this machine: that needs Debian's package poppler-utils.")
                    : new UnreadableException("damaged", $"Page {page} cannot be drawn; ask whoever sent it to send it again.");
            }
            catch (OperationCanceledException)
            {
                process.Kill(entireProcessTree: true);
                cancel.ThrowIfCancellationRequested();
                throw new UnreadableException("too-slow", $"Drawing page {page} took longer than {patience.TotalSeconds:F0} seconds.");
            }
        }
    }
}
