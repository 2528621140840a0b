namespace Daxlin.Core.Capture;

/// <summary>The name of a received file, or of one within it, fit to be shown and written: no folders, no control characters.</summary>
public static class FileName
{
    private const int Longest = 200;

    /// <remarks><c>../../x.pdf</c> and <c>C:\x.pdf</c> are x.pdf. The name is never a path on this machine.</remarks>
    public static string Of(string received)
    {
        var name = received[(received.LastIndexOfAny(['/', '\\']) + 1)..];
        name = string.Concat(name.Where(c => !char.IsControl(c) && char.GetUnicodeCategory(c) != System.Globalization.UnicodeCategory.Format)).Trim();
        if (name.Length > Longest)
            name = name[..(Longest - 20)] + "…" + name[^19..];
        return name.Length == 0 || name.All(c => c == '.') ? "unnamed" : name;
    }
}
