using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.Checks;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Capture.Blocks;

/// <summary>Keeps account of the lines of a block that are part of no row, and of what is in doubt about the others.</summary>
internal sealed class LineAccount(BlockRule block)
{
    private const int LongestQuote = 80;

    private readonly List<(TextLine Line, string Why)> leftOut = [];
    private readonly List<(int AfterRow, TextLine Line)> unaccounted = [];
    private readonly List<Finding> doubts = [];

    private const string Unaccounted = "not accounted for";

    public void AddLeftOut(TextLine line, string why) => leftOut.Add((line, why));

    /// <param name="afterRow">How many rows there are above the line.</param>
    public void AddUnaccounted(TextLine line, int afterRow)
    {
        unaccounted.Add((afterRow, line));
        AddLeftOut(line, Unaccounted);
    }

    /// <summary>A line that may be a heading as well as text of a row: nothing tells the two apart at a page's edge.</summary>
    public void AddHeadingOrText(TextLine line, string where, int row) => doubts.Add(Finding.Hold(
        "heading-or-text",
        $"“{Shortened(line.Text)}” {where} of page {Text(line.Page)} may be a heading or text of row {Text(row)} of the block {block.Name}.",
        block.Name));

    /// <summary>All lines that are part of no row, in the order in which they were met.</summary>
    /// <param name="isSum">
    /// Tells a sum that stands without its figure: brought forward before there is any, in the words of those that have one.
    /// </param>
    public ImmutableArray<LeftOutLine> LeftOut(Func<TextLine, bool> isSum) => [.. leftOut.Select(entry => new LeftOutLine(
        block.Name, new PlaceOnPage(entry.Line.Page, entry.Line.Box), entry.Line.Text,
        entry.Why == Unaccounted && isSum(entry.Line) ? SumOfRows : entry.Why))];

    /// <summary>Why a line is left out that states what the rows above come to.</summary>
    public const string SumOfRows = "a sum of the rows above";

    /// <param name="rows">How many rows the block has.</param>
    /// <param name="isSum">As for <see cref="LeftOut"/>.</param>
    public IEnumerable<Finding> Findings(int rows, Func<TextLine, bool> isSum)
    {
        foreach (var doubt in doubts)
            yield return doubt;
        foreach (var group in unaccounted.Where(entry => !isSum(entry.Line)).GroupBy(entry => entry.AfterRow))
        {
            var lines = group.Select(entry => entry.Line).ToList();
            var where = group.Key == 0 ? "before the first row"
                : group.Key == rows ? $"after row {Text(group.Key)}"
                : $"between rows {Text(group.Key)} and {Text(group.Key + 1)}";
            var count = lines.Count == 1 ? "1 printed line is" : $"{Text(lines.Count)} printed lines are";
            yield return Finding.Hold(
                "text-unaccounted",
                $"{count} not accounted for {where} of the block {block.Name}: “{Shortened(lines[0].Text)}”.",
                block.Name);
        }
    }

    private static string Text(int number) => number.ToString(CultureInfo.InvariantCulture);

    private static string Shortened(string text) => text.Length <= LongestQuote ? text : text[..(LongestQuote - 1)] + "…";
}
