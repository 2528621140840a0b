using System.Collections.Immutable;

namespace Daxlin.Core.Posting.Layouts;

/// <summary>The keys of a layout's file, and of which formats they say something.</summary>
public static class FileKeys
{
    public static ImmutableArray<string> All { get; } = ["format", "delimiter", "decimal", "dates", "encoding", "lineEnds", "headings", "quotes", "per", "name", "ending"];

    /// <summary>Keys of CSV files.</summary>
    internal static readonly ImmutableArray<string> OfCsv = ["delimiter", "quotes"];

    /// <summary>Keys of text files; spreadsheets, JSON and electronic invoices have their own form for what they say.</summary>
    internal static readonly ImmutableArray<string> OfText = ["decimal", "dates", "encoding", "lineEnds", "headings"];

    /// <summary>The keys that leave a choice in files of a format; each electronic invoice is a file of its own.</summary>
    public static IEnumerable<string> Of(FileFormat format) => All.Where(key =>
        !(OfCsv.Contains(key) && format != FileFormat.Csv) && !(OfText.Contains(key) && !IsText(format)) && !(key == "per" && format == FileFormat.Ubl));

    internal static bool IsText(FileFormat format) => format is FileFormat.Csv or FileFormat.FixedWidth;

    /// <summary>Says that files of a format begin with the columns' headings unless the layout says otherwise.</summary>
    public static bool BeginsWithHeadings(FileFormat format) => format == FileFormat.Csv;
}
