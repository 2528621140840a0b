using System.Diagnostics;
using System.Globalization;
using System.Xml.Linq;
using Daxlin.Core.Pages;
using Daxlin.Reading;
using Spectre.Console;
using UglyToad.PdfPig;
using Page = Daxlin.Core.Pages.Page;

namespace Daxlin.Bench;

/// <summary>Our words beside those of <c>pdftotext -bbox</c>, and our letters beside the PDF library's: the share that is alike, and every kind of difference.</summary>
internal static class WordComparison
{
    /// <summary>Places nearer than this are one, in points.</summary>
    private const double Near = 1;

    /// <summary>Differences of a kind that are shown.</summary>
    private const int Shown = 3;

    private readonly record struct Placed(string Text, double Left, double Right, double Middle);

    public static void Print(IEnumerable<string> folders)
    {
        var kinds = new SortedDictionary<string, (int Count, List<string> Examples)>(StringComparer.Ordinal);
        void Tell(string kind, string example)
        {
            var (count, examples) = kinds.TryGetValue(kind, out var known) ? known : (0, []);
            if (examples.Count < Shown && !examples.Contains(example))
                examples.Add(example);
            kinds[kind] = (count + 1, examples);
        }
        var (words, alikeWords, letters, alikeLetters, files) = (0, 0, 0, 0, 0);
        foreach (var file in folders.SelectMany(folder => Directory.GetFiles(folder, "*.pdf", SearchOption.AllDirectories)).Order(StringComparer.Ordinal))
        {
            Page[] pages;
            try
            {
                pages = [.. PdfReader.Read(File.ReadAllBytes(file))];
            }
            catch (UnreadableException refused)
            {
                Tell($"refused: {refused.Code}", Path.GetFileName(file));
                continue;
            }
            files++;
            var theirs = TheirWords(file);
            using var document = PdfDocument.Open(file);
            for (var number = 0; number < pages.Length; number++)
            {
                // Words that run down the page have no place in a box along it.
                if (pages[number].Drawn != Drawn.Upright)
                    continue;
                List<Placed> ours = [.. pages[number].Words.Where(word => word.Turn == Turn.Upright).Select(word => new Placed(word.Text, word.Box.Left, word.Box.Right, (word.Box.Top + word.Box.Bottom) / 2))];
                foreach (var word in theirs.ElementAtOrDefault(number) ?? [])
                {
                    words++;
                    var here = ours.Where(one => Math.Abs(one.Middle - word.Middle) < 6 && one.Left < word.Right - Near && one.Right > word.Left + Near).OrderBy(one => one.Left).ToList();
                    var together = string.Concat(here.Select(one => one.Text));
                    if (here.Exists(one => Plain(one.Text) == Plain(word.Text)))
                        alikeWords++;
                    else if (here.Count == 0)
                        Tell(pages[number].Unseen.IsEmpty ? "words: theirs only" : "words: theirs only, on a page with unseen text", $"{word.Text} ({Path.GetFileName(Path.GetDirectoryName(file))}/{Path.GetFileName(file)})");
                    else if (Plain(together).Contains(Plain(word.Text), StringComparison.Ordinal) || Plain(word.Text).Contains(Plain(together), StringComparison.Ordinal))
                        Tell(here.Count > 1 ? "words: parted by us, joined by them" : "words: joined by us, parted by them", $"{string.Join('|', here.Select(one => one.Text))} / {word.Text}");
                    else
                        Tell("words: another text", $"{string.Join('|', here.Select(one => one.Text))} / {word.Text} ({Path.GetFileName(Path.GetDirectoryName(file))})");
                }
                var page = document.GetPage(number + 1);
                foreach (var letter in page.Letters.Where(letter => !string.IsNullOrWhiteSpace(letter.Value) && letter.TextOrientation == UglyToad.PdfPig.Content.TextOrientation.Horizontal))
                {
                    letters++;
                    var at = letter.StartBaseLine;
                    if (pages[number].Words.Any(word => Math.Abs(word.Baseline - (page.Height - at.Y)) < Near && HasLetter(word, letter.Value, at.X)))
                        alikeLetters++;
                    else
                        Tell(pages[number].Unseen.IsEmpty ? "letters: theirs only" : "letters: theirs only, on a page with unseen text", $"{letter.Value} at {at.X:F0}, {page.Height - at.Y:F0} ({Path.GetFileName(Path.GetDirectoryName(file))}/{Path.GetFileName(file)})");
                }
            }
        }
        Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"{files} files. Words as pdftotext has them: {100.0 * alikeWords / Math.Max(1, words):F2} % of {words}. Letters as the library has them: {100.0 * alikeLetters / Math.Max(1, letters):F3} % of {letters}."));
        var table = new Table { Border = TableBorder.Simple };
        table.AddColumn("difference").AddColumn(new TableColumn("times").RightAligned()).AddColumn("such as");
        foreach (var (kind, (count, examples)) in kinds)
            table.AddRow(Markup.Escape(kind), $"{count}", Markup.Escape(string.Join("; ", examples)));
        AnsiConsole.Profile.Width = 160;
        AnsiConsole.Write(table);
    }

    private static bool HasLetter(Word word, string letter, double start)
    {
        var stops = word.Stops.Span;
        for (var index = 0; index < stops.Length; index++)
        {
            if (Math.Abs((index == 0 ? word.Box.Left : stops[index - 1]) - start) < Near && Plain(word.Text[index..]).StartsWith(Plain(letter), StringComparison.Ordinal))
                return true;
        }
        return false;
    }

    /// <summary>Ligatures and soft hyphens are written in several ways; small capitals are small letters to us, as their file states.</summary>
    private static string Plain(string text) => text.Replace("\uFB01", "fi", StringComparison.Ordinal).Replace("\uFB02", "fl", StringComparison.Ordinal).Replace("\uFB00", "ff", StringComparison.Ordinal)
        .Replace("\uFB03", "ffi", StringComparison.Ordinal).Replace("\uFB04", "ffl", StringComparison.Ordinal).Replace('\u00AD', '-').ToUpperInvariant();

    private static List<List<Placed>> TheirWords(string file)
    {
        using var process = Process.Start(new ProcessStartInfo("pdftotext", ["-bbox", file, "-"]) { RedirectStandardOutput = true })!;
        var said = process.StandardOutput.ReadToEnd();
        process.WaitForExit();
        XNamespace html = "http://www.w3.org/1999/xhtml";
        double Number(XElement word, string name) => double.Parse(word.Attribute(name)!.Value, CultureInfo.InvariantCulture);
        return [.. XDocument.Parse(said).Descendants(html + "page").Select(page => page.Elements(html + "word")
            .Select(word => new Placed(word.Value, Number(word, "xMin"), Number(word, "xMax"), (Number(word, "yMin") + Number(word, "yMax")) / 2)).ToList())];
    }
}
