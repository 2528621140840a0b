namespace Daxlin.Core.Posting.Layouts;

/// <summary>How the files of a layout are written and named.</summary>
/// <param name="Delimiter">Between the values of a CSV record.</param>
/// <param name="DecimalMark">In text files; JSON and spreadsheets have their own numbers.</param>
/// <param name="Dates">In text files: DD, MM, YYYY and YY stand for the parts of a date, everything else for itself.</param>
/// <param name="LineEnd">What ends a record of a text file.</param>
/// <param name="HasHeadings">Says that the first record holds the columns' headings.</param>
/// <param name="QuotesAll">Says that every value stands in quotes, not only those that need them.</param>
/// <param name="Name">With <c>{run}</c>, <c>{date}</c>, <c>{vendor}</c>, <c>{invoice}</c>, <c>{number}</c> and <c>{table}</c>; the ending is the format's.</param>
/// <param name="Ending">Behind the name, without its point.</param>
public sealed record FileRule(
    FileFormat Format, string Delimiter, char DecimalMark, string Dates, TextEncoding Encoding, string LineEnd, bool HasHeadings, bool QuotesAll, FilesPer Per, string Name, string Ending)
{
    /// <summary>Says that each table has a file of its own. Else the tables' records follow each other, invoice by invoice.</summary>
    public bool PartsTables => Name.Contains("{table}", StringComparison.Ordinal);

    public bool IsText => FileKeys.IsText(Format);
}
