using System.Diagnostics;
using System.Globalization;
using Daxlin.Core;
using Daxlin.Core.Capture;
using Daxlin.Reading;
using UglyToad.PdfPig;
using UglyToad.PdfPig.Tokens;

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

    /// <summary>A document's objects found and the pages' content unpacked, by the same library: what is under our reading.</summary>
    public static int Structure(byte[] bytes)
    {
        using var document = PdfDocument.Open(bytes);
        var scanner = document.Structure.TokenScanner;
        var unpacked = 0;
        Unpack(document.Structure.Catalog.CatalogDictionary, NameToken.Pages);
        return unpacked < 0 ? 0 : document.NumberOfPages;

        void Unpack(DictionaryToken node, NameToken key)
        {
            if (!node.TryGet<DictionaryToken>(key, scanner, out var below))
                return;
            foreach (var kid in below.TryGet<ArrayToken>(NameToken.Kids, scanner, out var kids) ? kids.Data : [])
                Unpack(new DictionaryToken(new Dictionary<NameToken, IToken> { [key] = kid }), key);
            IToken[] streams = below.TryGet<StreamToken>(NameToken.Contents, scanner, out var only) ? [only]
                : below.TryGet<ArrayToken>(NameToken.Contents, scanner, out var several) ? [.. several.Data.OfType<IndirectReferenceToken>().Select(one => scanner.Get(one.Data)?.Data).OfType<StreamToken>()] : [];
            unpacked += streams.Cast<StreamToken>().Sum(stream => stream.Decode(document.Structure.FilterProvider, scanner).Length);
        }
    }

    /// <summary>Bytes to words.</summary>
    public static int Reading(byte[] bytes) => PdfReader.Read(bytes).Length;

    /// <summary>All of it: bytes to a captured and checked invoice.</summary>
    public static int Capture(byte[] bytes, Workload workload)
    {
        var pages = PdfReader.Read(bytes);
        InvoicePath.Take(pages, workload.Templates, DocumentFacts.Unknown);
        return pages.Length;
    }

    /// <summary>The words of files by another program, started once a file.</summary>
    /// <returns>The processor's time in seconds.</returns>
    public static double PdfToText(IEnumerable<string> files)
    {
        var before = OfChildren();
        foreach (var file in files)
        {
            using var process = Process.Start(new ProcessStartInfo("pdftotext", ["-bbox", file, "-"]) { RedirectStandardOutput = true })!;
            process.StandardOutput.BaseStream.CopyTo(Stream.Null);
            process.WaitForExit();
        }
        return OfChildren() - before;
    }

    /// <summary>What this process's ended children took, in seconds; Linux counts it in hundredths.</summary>
    private static double OfChildren()
    {
        var fields = File.ReadAllText("/proc/self/stat").Split(')')[1].Split(' ');
        return (long.Parse(fields[14], CultureInfo.InvariantCulture) + long.Parse(fields[15], CultureInfo.InvariantCulture)) / 100.0;
    }
}
