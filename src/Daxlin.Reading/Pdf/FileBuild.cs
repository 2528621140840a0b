using System.Buffers.Text;
using System.Globalization;

namespace Daxlin.Reading.Pdf;

/// <summary>Whether a PDF's parts stand where it says (ISO 32000-2, 7.5.4 and 7.5.5).</summary>
/// <remarks>
/// Where they do not, readers look through the whole file for them, and so does Daxlin: mail that changed its line ends, a
/// transfer that ended early. That goes well mostly, and whoever answers for the figures is told. What is looked at is the
/// way that a reader goes first: the place that the file's end names, the tables of cross references there and those
/// before them, and each part that they list. Parts that compressed tables list are not looked at.
/// </remarks>
internal static class FileBuild
{
    /// <summary>Updates that are followed back; each has a table of its own.</summary>
    private const int MostTables = 64;

    /// <returns>What is not so, for a clerk, without a full stop; empty if all is.</returns>
    public static string FaultOf(ReadOnlySpan<byte> file)
    {
        // Places count from the header, whatever was sent before it; there are writers that count from the file's first byte.
        var header = Math.Max(0, file.IndexOf("%PDF-"u8));
        var named = file.LastIndexOf("startxref"u8);
        if (named < 0)
            return "its end is missing, which says where its parts stand";
        var reader = new Tokens(file, named + "startxref"u8.Length);
        if (!reader.Number(out var place))
            return "its end does not say where its parts stand";
        string? first = null;
        foreach (var origin in header > 0 ? new[] { header, 0 } : [0])
        {
            var fault = FaultOfTables(file, origin, place);
            if (fault.Length == 0)
                return "";
            first ??= fault;
        }
        return first!;
    }

    private static string FaultOfTables(ReadOnlySpan<byte> file, int origin, long place)
    {
        var (listed, wrong) = (0, 0);
        var seen = new HashSet<long>();
        while (seen.Count < MostTables && seen.Add(place))
        {
            if (place < 0 || place >= file.Length - origin)
                return "the list of its parts does not stand where its end says";
            var tokens = new Tokens(file, origin + (int)place);
            if (!tokens.Word("xref"u8))
            {
                if (!IsObject(file, origin + place, null))
                    return "the list of its parts does not stand where its end says";
                break;
            }
            while (tokens.Number(out var number) && tokens.Number(out var count))
            {
                for (var at = 0L; at < count && tokens.Number(out var offset) && tokens.Number(out _); at++)
                {
                    if (tokens.Word("f"u8))
                        continue;
                    if (!tokens.Word("n"u8))
                        break;
                    listed++;
                    // A part that is nowhere is null (7.3.10), and says so by standing at the very beginning.
                    wrong += offset == 0 || IsObject(file, origin + offset, number + at) ? 0 : 1;
                }
            }
            if (!tokens.Word("trailer"u8) || !tokens.NumberBehind("/Prev"u8, out place))
                break;
        }
        return wrong == 0 ? "" : string.Create(
            CultureInfo.InvariantCulture, $"{wrong} of the {listed} parts that it lists {(wrong == 1 ? "does" : "do")} not stand where it says");
    }

    /// <summary>Says that an object begins at a place: "12 0 obj".</summary>
    private static bool IsObject(ReadOnlySpan<byte> file, long place, long? number)
    {
        if (place < 0 || place >= file.Length)
            return false;
        var tokens = new Tokens(file, (int)place);
        return tokens.Number(out var own) && (number is null || own == number) && tokens.Number(out _) && tokens.Word("obj"u8);
    }

    /// <summary>Numbers and words with blanks between.</summary>
    private ref struct Tokens(ReadOnlySpan<byte> file, int at)
    {
        private readonly ReadOnlySpan<byte> file = file;
        private int at = at;

        public bool Number(out long value)
        {
            SkipBlanks();
            if (!Utf8Parser.TryParse(file[at..], out value, out var length) || value < 0)
                return false;
            at += length;
            return true;
        }

        public bool Word(ReadOnlySpan<byte> word)
        {
            SkipBlanks();
            if (!file[at..].StartsWith(word))
                return false;
            at += word.Length;
            return true;
        }

        /// <summary>The number behind a key of the trailer that follows.</summary>
        public bool NumberBehind(ReadOnlySpan<byte> key, out long value)
        {
            var rest = file[at..];
            var end = rest.IndexOf("startxref"u8);
            var found = (end < 0 ? rest : rest[..end]).IndexOf(key);
            value = 0;
            if (found < 0)
                return false;
            at += found + key.Length;
            return Number(out value);
        }

        /// <summary>White space (7.2.3).</summary>
        private void SkipBlanks()
        {
            while (at < file.Length && file[at] is 0 or 9 or 10 or 12 or 13 or 32)
                at++;
        }
    }
}
