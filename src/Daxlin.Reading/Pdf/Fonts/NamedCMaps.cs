using System.Collections.Concurrent;
using UglyToad.PdfPig;

namespace Daxlin.Reading.Pdf.Fonts;

/// <summary>The character maps that PDF knows by name (ISO 32000-2, 9.7.5.2), which the PDF library carries as data.</summary>
internal static class NamedCMaps
{
    private const string Resources = "UglyToad.PdfPig.Resources.CMap.";

    private static readonly ConcurrentDictionary<string, CMap?> read = new(StringComparer.Ordinal);

    /// <returns>Null for a name that is none of them.</returns>
    public static CMap? Find(string name) => Find(name, 0);

    public static CMap? Find(string name, int depth) => name switch
    {
        "Identity-H" => read.GetOrAdd(name, _ => CMap.Identity(isVertical: false)),
        "Identity-V" => read.GetOrAdd(name, _ => CMap.Identity(isVertical: true)),
        _ when name.Any(letter => !char.IsAsciiLetterOrDigit(letter) && letter != '-') => null,
        // Names that are not known are as many as a file likes.
        _ => read.TryGetValue(name, out var known) ? known : Load(name, depth) is { } loaded ? read.GetOrAdd(name, loaded) : null,
    };

    /// <summary>The Unicode text of a character collection's numbers.</summary>
    /// <param name="ordering">Such as Japan1.</param>
    public static CMap? TextsOf(string registry, string ordering) => registry == "Adobe" && ordering is "GB1" or "CNS1" or "Japan1" or "Korea1" ? Find($"Adobe-{ordering}-UCS2") : null;

    private static CMap? Load(string name, int depth)
    {
        using var stream = typeof(PdfDocument).Assembly.GetManifestResourceStream(Resources + name);
        if (stream is null)
            return null;
        using var bytes = new MemoryStream();
        stream.CopyTo(bytes);
        return CMapReader.Read(bytes.GetBuffer().AsSpan(0, (int)bytes.Length), Find, depth);
    }
}
