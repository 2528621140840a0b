using System.Buffers;
using System.Text.RegularExpressions;
using Daxlin.Core.Json;

namespace Daxlin.Core.Posting.Layouts;

/// <summary>Reads how the files of a layout are written and named.</summary>
internal static partial class LayoutFileReader
{
    private static readonly string[] Parts = ["run", "date", "vendor", "invoice", "number", "table"];

    private static readonly SearchValues<char> NotInNames = SearchValues.Create("/\\:*?\"<>|{}");

    public static FileRule Usual { get; } = new(FileFormat.Csv, ",", '.', "YYYY-MM-DD", TextEncoding.Utf8, "\r\n", true, false, FilesPer.Run, "posting-run-{run}", "csv");

    public static FileRule Read(JsonPlace? place, string layout, FaultList faults)
    {
        if (place is null)
            return Usual with { Name = layout + "-{run}" };
        if (!faults.IsObjectOf(place, [.. FileKeys.All]))
            return Usual;
        var format = faults.OneOf(
            place.Find("format"), FileFormat.Csv, ("csv", FileFormat.Csv), ("fixed-width", FileFormat.FixedWidth), ("xlsx", FileFormat.Xlsx), ("json", FileFormat.Json), ("ndjson", FileFormat.Ndjson), ("ubl", FileFormat.Ubl));
        foreach (var key in FileKeys.OfCsv)
        {
            if (format != FileFormat.Csv && place.Find(key) is { } own)
                faults.Add(own, $"“{key}” is of csv files; this one is {format.Word()}.");
        }
        foreach (var key in FileKeys.OfText)
        {
            if (!FileKeys.IsText(format) && place.Find(key) is { } own)
                faults.Add(own, $"“{key}” is of csv and fixed-width files; this one is {format.Word()}, which has its own form for it.");
        }
        var delimiter = faults.OneOf(place.Find("delimiter"), ",", (",", ","), (";", ";"), ("|", "|"), ("tab", "\t"));
        var mark = faults.OneOf(place.Find("decimal"), '.', (".", '.'), (",", ','));
        if (format == FileFormat.Csv && delimiter == "," && mark == ',')
            faults.Add(place.Find("decimal")!, "The decimal mark is the delimiter, too; “delimiter”: \";\" parts them.");
        var dates = faults.Text(place.Find("dates"), "YYYY-MM-DD");
        if (!DateForm().IsMatch(dates) || !dates.Contains("YY", StringComparison.Ordinal) || !dates.Contains("MM", StringComparison.Ordinal) || !dates.Contains("DD", StringComparison.Ordinal))
            faults.Add(place.Find("dates")!, "A form of dates is wanted here, from DD, MM and YYYY (or YY) with marks between them, as DD.MM.YYYY.");
        var per = faults.OneOf(place.Find("per"), format == FileFormat.Ubl ? FilesPer.Invoice : FilesPer.Run, ("run", FilesPer.Run), ("vendor", FilesPer.Vendor), ("invoice", FilesPer.Invoice));
        if (format == FileFormat.Ubl && per != FilesPer.Invoice)
            faults.Add(place.Find("per")!, "An electronic invoice is one invoice: “per” is “invoice”.");
        var ending = faults.Text(place.Find("ending"), format switch
        {
            FileFormat.Csv when delimiter == "\t" => "tsv",
            FileFormat.FixedWidth => "txt",
            FileFormat.Ubl => "xml",
            _ => format.Word(),
        });
        if (!Ending().IsMatch(ending))
            faults.Add(place.Find("ending")!, "An ending of letters and digits is wanted here, without its point.");
        return new FileRule(
            format, delimiter, mark, dates,
            faults.OneOf(
                place.Find("encoding"), TextEncoding.Utf8, ("utf-8", TextEncoding.Utf8), ("utf-8-mark", TextEncoding.Utf8Mark), ("utf-16", TextEncoding.Utf16),
                ("windows-1252", TextEncoding.Windows1252), ("iso-8859-1", TextEncoding.Iso88591), ("us-ascii", TextEncoding.Ascii)),
            faults.OneOf(place.Find("lineEnds"), "\r\n", ("crlf", "\r\n"), ("lf", "\n")),
            faults.Flag(place.Find("headings"), FileKeys.BeginsWithHeadings(format)), faults.OneOf(place.Find("quotes"), false, ("needed", false), ("all", true)),
            per, ReadName(place, layout, per, faults), ending);
    }

    private static string ReadName(JsonPlace place, string layout, FilesPer per, FaultList faults)
    {
        var name = faults.Text(place.Find("name"), layout + "-{run}" + per switch
        {
            FilesPer.Vendor => "-{vendor}",
            FilesPer.Invoice => "-{invoice}",
            _ => "",
        });
        foreach (var part in NamesInBraces.Of(name).Where(part => !Parts.Contains(part)))
            faults.Add(place.Find("name")!, $"“{{{part}}}” is unknown in a file's name; there are {NamesInBraces.Listed(Parts)}.");
        if (name.Length is 0 or > 100 || NamesInBraces.Fill(name, _ => "").AsSpan().ContainsAny(NotInNames) || name.StartsWith('.'))
            faults.Add(place.Find("name")!, "A file's name has 1 to 100 letters and none of / \\ : * ? \" < > |.");
        if (per == FilesPer.Vendor && !name.Contains("{vendor}", StringComparison.Ordinal))
            faults.Add(place.Find("name")!, "Each vendor has a file of its own, so the name needs {vendor}.");
        if (per == FilesPer.Invoice && !name.Contains("{invoice}", StringComparison.Ordinal))
            faults.Add(place.Find("name")!, "Each invoice has a file of its own, so the name needs {invoice}, its number in Daxlin; {number}, the vendor's, may be there twice.");
        if (per != FilesPer.Invoice && (name.Contains("{invoice}", StringComparison.Ordinal) || name.Contains("{number}", StringComparison.Ordinal)))
            faults.Add(place.Find("name")!, "A file of several invoices cannot be called after one; “per”: \"invoice\" gives each its own.");
        if (per == FilesPer.Run && name.Contains("{vendor}", StringComparison.Ordinal))
            faults.Add(place.Find("name")!, "A file of several vendors cannot be called after one; “per”: \"vendor\" gives each its own.");
        return name;
    }

    [GeneratedRegex(@"^[DMY./ -]{6,20}$", RegexOptions.CultureInvariant)]
    private static partial Regex DateForm();

    [GeneratedRegex(@"^[A-Za-z0-9]{1,10}$", RegexOptions.CultureInvariant)]
    private static partial Regex Ending();
}
