using System.Runtime.InteropServices;
using Daxlin.Reading.Pictures;

namespace Daxlin.Reading.Recognising;

/// <summary>The calls of Tesseract 5 (Apache-2.0, Debian's libtesseract5) that the first reading is made by; see its capi.h.</summary>
internal static partial class TesseractLibrary
{
    private const string Name = "tesseract";

    static TesseractLibrary() => NativeNames.Register();

    /// <summary>Parts of what was recognised, from the large to the small.</summary>
    public const int Line = 2;
    public const int Word = 3;
    public const int Symbol = 4;

    [LibraryImport(Name, EntryPoint = "TessBaseAPICreate")]
    public static partial nint Create();

    [LibraryImport(Name, EntryPoint = "TessBaseAPIDelete")]
    public static partial void Delete(nint engine);

    /// <returns>0 if the languages are there.</returns>
    [LibraryImport(Name, EntryPoint = "TessBaseAPIInit3", StringMarshalling = StringMarshalling.Utf8)]
    public static partial int Begin(nint engine, string? folder, string languages);

    [LibraryImport(Name, EntryPoint = "TessBaseAPISetVariable", StringMarshalling = StringMarshalling.Utf8)]
    public static partial int Set(nint engine, string name, string value);

    [LibraryImport(Name, EntryPoint = "TessBaseAPISetPageSegMode")]
    public static partial void SetLayout(nint engine, int mode);

    [LibraryImport(Name, EntryPoint = "TessBaseAPISetImage")]
    public static partial void SetPicture(nint engine, ReadOnlySpan<byte> dots, int width, int height, int bytesADot, int bytesALine);

    [LibraryImport(Name, EntryPoint = "TessBaseAPISetSourceResolution")]
    public static partial void SetResolution(nint engine, int dpi);

    [LibraryImport(Name, EntryPoint = "TessBaseAPIRecognize")]
    public static partial int Recognise(nint engine, nint monitor);

    [LibraryImport(Name, EntryPoint = "TessBaseAPIClear")]
    public static partial void Clear(nint engine);

    [LibraryImport(Name, EntryPoint = "TessBaseAPIGetIterator")]
    public static partial nint Results(nint engine);

    [LibraryImport(Name, EntryPoint = "TessResultIteratorDelete")]
    public static partial void DeleteResults(nint results);

    /// <summary>The same place as a place of the layout; it goes on with the results.</summary>
    [LibraryImport(Name, EntryPoint = "TessResultIteratorGetPageIterator")]
    public static partial nint PlaceOf(nint results);

    [LibraryImport(Name, EntryPoint = "TessResultIteratorNext")]
    public static partial int Next(nint results, int part);

    [LibraryImport(Name, EntryPoint = "TessPageIteratorIsAtFinalElement")]
    public static partial int Ends(nint place, int part, int element);

    [LibraryImport(Name, EntryPoint = "TessPageIteratorBoundingBox")]
    public static partial int BoxOf(nint place, int part, out int left, out int top, out int right, out int bottom);

    [LibraryImport(Name, EntryPoint = "TessPageIteratorBaseline")]
    public static partial int BaselineOf(nint place, int part, out int x1, out int y1, out int x2, out int y2);

    [LibraryImport(Name, EntryPoint = "TessResultIteratorConfidence")]
    public static partial float CertaintyOf(nint results, int part);

    /// <returns>UTF-8 that ends in a zero, for <see cref="DeleteText"/>.</returns>
    [LibraryImport(Name, EntryPoint = "TessResultIteratorGetUTF8Text")]
    public static partial nint TextOf(nint results, int part);

    [LibraryImport(Name, EntryPoint = "TessDeleteText")]
    public static partial void DeleteText(nint text);
}
