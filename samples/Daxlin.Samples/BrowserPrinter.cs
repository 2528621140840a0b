using System.Diagnostics;
using System.Globalization;
using System.Text;

namespace Daxlin.Samples;

/// <summary>Prints HTML to PDF with Debian's Chromium.</summary>
internal static class BrowserPrinter
{
    /// <returns>How many pages were printed.</returns>
    public static int Print(string html, string path)
    {
        var scratch = Directory.CreateTempSubdirectory("daxlin-samples-").FullName;
        try
        {
            var page = Path.Combine(scratch, "invoice.html");
            File.WriteAllText(page, html, Encoding.UTF8);
            var start = new ProcessStartInfo("chromium") { RedirectStandardError = true, RedirectStandardOutput = true };
            foreach (var argument in new[]
            {
                "--headless", "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking",
                "--disable-component-update", "--disable-sync", "--no-pdf-header-footer", $"--user-data-dir={scratch}/profile",
                $"--print-to-pdf={Path.GetFullPath(path)}", $"file://{page}",
            })
                start.ArgumentList.Add(argument);
            using var browser = Process.Start(start)!;
            var said = browser.StandardError.ReadToEnd();
            browser.WaitForExit();
            if (!File.Exists(path))
                throw new InvalidOperationException($"Chromium printed nothing: {said}");
            return CountPages(path);
        }
        finally
        {
            Directory.Delete(scratch, recursive: true);
        }
    }

    private static int CountPages(string path)
    {
        using var document = UglyToad.PdfPig.PdfDocument.Open(path);
        return document.NumberOfPages;
    }

    public static string Escape(string text) => System.Net.WebUtility.HtmlEncode(text);

    public static string Date(DateOnly date, string format) => date.ToString(format, CultureInfo.InvariantCulture);
}
