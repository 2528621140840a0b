using Daxlin.Reading;
using Daxlin.Reading.Pictures;
using Daxlin.Reading.Recognising;

namespace Daxlin.Service.Trial;

/// <summary>Reads a file for which no service runs; pages of it that are pictures are recognised here and now.</summary>
internal static class FileRecognition
{
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(60);

    private static readonly Lock Starting = new();

    /// <summary>Started for the first picture, and kept.</summary>
    private static PageRecogniser? recogniser;

    /// <exception cref="UnreadableException">It cannot be read, or what recognises pictures is not on this machine.</exception>
    public static ReadDocument Read(string file, ReadOnlyMemory<byte> bytes)
    {
        DirectoryInfo? folder = null;
        try
        {
            while (true)
            {
                try
                {
                    return DocumentReader.Read(bytes, new RecognisedPages(folder?.FullName ?? ""));
                }
                catch (PicturesUnreadException unread)
                {
                    folder ??= Directory.CreateTempSubdirectory("daxlin-pages-");
                    foreach (var page in unread.Pages)
                        Recognise(file, bytes, page, folder.FullName);
                }
            }
        }
        catch (RecognitionMissingException error)
        {
            throw new UnreadableException(RecognitionMissingException.Code, $"It holds pictures and no text. {error.Message}");
        }
        finally
        {
            folder?.Delete(recursive: true);
        }
    }

    private static void Recognise(string file, ReadOnlyMemory<byte> bytes, PicturedPage page, string folder)
    {
        var kept = Path.Combine(folder, "page");
        var picture = page.Dpi > 0 ? PageRaster.InGrey(file, page.Number, page.Dpi, Patience, CancellationToken.None).GetAwaiter().GetResult() : PictureFile.Page(bytes.Span, page.Number);
        lock (Starting)
        {
            using var to = File.Create(kept);
            RecognisedPages.Write(to, (recogniser ??= PageRecogniser.Start()).Recognise(page.Number, picture));
        }
        new RecognisedPages(folder).Take(page.Number, kept);
    }
}
