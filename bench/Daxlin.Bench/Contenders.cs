using System.Diagnostics;
using Daxlin.Core;
using Daxlin.Core.Capture;
using Daxlin.Reading;
using UglyToad.PdfPig;

namespace Daxlin.Bench;

/// <summary>What is measured: each takes one file's bytes or path and says how many pages it read.</summary>
internal static class Contenders
{
    /// <summary>The yardstick: the PDF library reading the same bytes to letters, and nothing more.</summary>
    public static int Library(byte[] bytes)
    {
        using var document = PdfDocument.Open(bytes);
        var letters = 0;
        foreach (var page in document.GetPages())
            letters += page.Letters.Count;
        return letters < 0 ? 0 : document.NumberOfPages;
    }

    /// <summary>All of it: bytes to a captured and checked invoice.</summary>
    public static int Capture(byte[] bytes, Workload workload)
    {
        var pages = PdfReader.Read(bytes);
        InvoicePath.Take(pages, workload.Templates, DocumentFacts.Unknown);
        return pages.Length;
    }

    /// <summary>The words of a file by another program, started once a file.</summary>
    public static void PdfToText(string file)
    {
        using var process = Process.Start(new ProcessStartInfo("pdftotext", ["-bbox", file, "-"]) { RedirectStandardOutput = true })!;
        process.StandardOutput.ReadToEnd();
        process.WaitForExit();
    }
}
