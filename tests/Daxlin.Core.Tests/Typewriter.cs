using System.Collections.Immutable;
using Daxlin.Core.Pages;

namespace Daxlin.Core.Tests;

/// <summary>Sets a page of plain text as a typewriter does: each character as wide as the next, each line as high.</summary>
/// <remarks>
/// A line "═══ page 2 ═══" begins a page, a run of "─" is a ruling from left to right, "│" a piece of one from top to
/// bottom. A single blank is a blank; two are a gap between cells. A line "↕ -3" is not printed: all below stands 3 points higher.
/// </remarks>
internal static class Typewriter
{
    private const double LetterWidth = 6;
    private const double Pitch = 14;
    private const double Size = 10;
    private const double Margin = 36;

    public static ImmutableArray<Page> Set(string text)
    {
        var pages = ImmutableArray.CreateBuilder<Page>();
        var lines = new List<string>();
        foreach (var line in text.Split('\n'))
        {
            if (line.StartsWith("═══", StringComparison.Ordinal))
            {
                if (lines.Count > 0 || pages.Count > 0)
                    pages.Add(PageOf(pages.Count + 1, lines));
                lines.Clear();
            }
            else
            {
                lines.Add(line);
            }
        }
        pages.Add(PageOf(pages.Count + 1, lines));
        return pages.ToImmutable();
    }

    private static Page PageOf(int number, List<string> lines)
    {
        var printed = new List<(string Text, double Baseline)>();
        var baseline = Margin;
        foreach (var line in lines)
        {
            if (line.StartsWith('↕'))
                baseline += double.Parse(line[1..], System.Globalization.CultureInfo.InvariantCulture);
            else
                printed.Add((line, baseline += Pitch));
        }
        return new Page(number, 595, 842, [.. printed.SelectMany(line => WordsOf(line.Text, line.Baseline))], [.. printed.SelectMany(line => StrokesOf(line.Text, line.Baseline))]);
    }

    private static IEnumerable<Word> WordsOf(string line, double baseline)
    {
        for (var start = 0; start < line.Length; start++)
        {
            if (line[start] is ' ' or '─' or '│')
                continue;
            var end = start;
            while (end < line.Length && line[end] is not (' ' or '─' or '│'))
                end++;
            var left = X(start);
            yield return new Word(
                line[start..end], new Box(left, baseline - 0.75 * Size, X(end), baseline + 0.22 * Size), baseline, Size,
                Enumerable.Range(1, end - start).Select(count => left + count * LetterWidth).ToArray(), Turn.Upright);
            start = end;
        }
    }

    private static IEnumerable<Stroke> StrokesOf(string line, double baseline)
    {
        var middle = baseline - 0.3 * Size;
        for (var start = 0; start < line.Length; start++)
        {
            if (line[start] == '│')
                yield return new Stroke(new Box(X(start) + 2.8, middle - Pitch / 2, X(start) + 3.2, middle + Pitch / 2));
            if (line[start] != '─')
                continue;
            var end = start;
            while (end < line.Length && line[end] == '─')
                end++;
            yield return new Stroke(new Box(X(start), middle - 0.2, X(end), middle + 0.2));
            start = end - 1;
        }
    }

    private static double X(int column) => Margin + column * LetterWidth;
}
