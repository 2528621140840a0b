namespace Daxlin.Core.Posting.Layouts;

/// <summary>What layout documents and the interface call the kinds of things in a layout.</summary>
public static class LayoutWords
{
    public static string Word(this FileFormat format) => format == FileFormat.FixedWidth ? "fixed-width" : format.ToString().ToLowerInvariant();

    public static string Word(this LayoutRecords records) => records.ToString().ToLowerInvariant();

    /// <summary>Empty for a column that proves nothing.</summary>
    public static string Word(this Proved proves) => proves == Proved.Nothing ? "" : proves.ToString().ToLowerInvariant();
}
