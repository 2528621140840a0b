using System.Runtime.InteropServices;

namespace Daxlin.Reading.Pictures;

/// <summary>The calls of Leptonica (BSD-2-Clause, Debian's liblept5) that files with pictures are unpacked by. It comes with Tesseract.</summary>
internal static partial class LeptonicaLibrary
{
    private const string Name = "leptonica";

    static LeptonicaLibrary() => NativeNames.Register();

    [LibraryImport(Name, EntryPoint = "setMsgSeverity")]
    public static partial int SetMessages(int severity);

    /// <summary>Says what a picture is without unpacking it.</summary>
    [LibraryImport(Name, EntryPoint = "pixReadHeaderMem")]
    public static partial int ReadHeader(ReadOnlySpan<byte> bytes, nuint size, out int format, out int width, out int height, out int bits, out int samples, out int hasColours);

    /// <summary>The same of a part of a TIFF, counted from 0.</summary>
    [LibraryImport(Name, EntryPoint = "readHeaderMemTiff")]
    public static partial int ReadTiffHeader(ReadOnlySpan<byte> bytes, nuint size, int part, out int width, out int height, out int bits, out int samples, out int resolution, out int hasColours, out int format);

    [LibraryImport(Name, EntryPoint = "pixReadMem")]
    public static partial nint Read(ReadOnlySpan<byte> bytes, nuint size);

    [LibraryImport(Name, EntryPoint = "pixReadMemTiff")]
    public static partial nint ReadTiff(ReadOnlySpan<byte> bytes, nuint size, int part);

    [LibraryImport(Name, EntryPoint = "pixRemoveAlpha")]
    public static partial nint OnWhite(nint picture);

    [LibraryImport(Name, EntryPoint = "pixConvertTo8")]
    public static partial nint ToGrey(nint picture, int withColours);

    [LibraryImport(Name, EntryPoint = "pixEndianByteSwap")]
    public static partial int SwapBytes(nint picture);

    [LibraryImport(Name, EntryPoint = "pixGetData")]
    public static partial nint DataOf(nint picture);

    [LibraryImport(Name, EntryPoint = "pixGetWpl")]
    public static partial int WordsALine(nint picture);

    [LibraryImport(Name, EntryPoint = "pixGetWidth")]
    public static partial int WidthOf(nint picture);

    [LibraryImport(Name, EntryPoint = "pixGetHeight")]
    public static partial int HeightOf(nint picture);

    [LibraryImport(Name, EntryPoint = "pixGetXRes")]
    public static partial int ResolutionOf(nint picture);

    [LibraryImport(Name, EntryPoint = "pixDestroy")]
    public static partial void Destroy(ref nint picture);
}
