using System.Reflection;
using System.Runtime.InteropServices;

namespace Daxlin.Reading.Pictures;

/// <summary>Under which names Debian's releases have the libraries that pictures are read by.</summary>
internal static class NativeNames
{
    private static readonly Dictionary<string, string[]> Known = new()
    {
        ["leptonica"] = ["liblept.so.5", "libleptonica.so.6"],
        ["tesseract"] = ["libtesseract.so.5"],
    };

    private static int isRegistered;

    /// <summary>Has the runtime find them, once.</summary>
    public static void Register()
    {
        if (Interlocked.Exchange(ref isRegistered, 1) == 0)
            NativeLibrary.SetDllImportResolver(typeof(NativeNames).Assembly, Find);
    }

    private static nint Find(string name, Assembly assembly, DllImportSearchPath? path)
    {
        foreach (var known in Known.GetValueOrDefault(name, []))
        {
            if (NativeLibrary.TryLoad(known, assembly, path, out var library))
                return library;
        }
        return 0;
    }
}
