using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.Checks;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Capture.Blocks;

/// <summary>Keeps account of the words of a block that are part of no row, and of what is in doubt about the others.</summary>
internal sealed class LineAccount(BlockRule block)
{
    private const int LongestQuote = 80;

    private readonly List<(TextLine Line, string Why)> leftOut = [];
    private readonly List<(int AfterRow, TextLine Line)> unaccounted = [];
    private readonly List<Finding> doubts = [];

    public const string Furniture = "page furniture";
    public const string ByTemplate = "left out by the template";
    public const string SumOfRows = "a sum of the rows above";
    public const string Stranger = "under a heading that the template does not speak of";
    private const string Unaccounted = LeftOutLine.NotAccountedFor;

    public void AddLeftOut(TextLine line, string why) => leftOut.Add((line, why));

    /// <param name="afterRow">How many rows there are above the line.</param>
    public void AddUnaccounted(TextLine line, int afterRow)
    {
        unaccounted.Add((afterRow, line));
        AddLeftOut(line, Unaccounted);
    }

    /// <summary>A line that may be something else than what it was taken for.</summary>
    public void AddDoubt(TextLine line, PartingDoubt doubt)
    {
        var (above, below) = (Text(doubt.RowsAbove), Text(doubt.RowsAbove + 1));
        var chosen = doubt.Chosen == RowParting.Part.Above ? above : below;
        var (code, says) = (doubt.Chosen, doubt.Instead) switch
        {
            (RowParting.Part.Neither, _) => (
                "heading-or-text",
                $"may be a heading or text of row {(doubt.Instead == RowParting.Part.Above ? above : below)}; both would stand there."),
            (_, RowParting.Part.Neither) => (
                "text-apart",
                $"stands apart from the text of row {chosen}; it may be a heading or no part of it. “carry” or “leaveOut” can speak of it."),
            _ => ("row-doubtful", $"may be text of row {above} or of row {below}: it was taken for row {chosen}, and stands about as well in the other."),
        };
        doubts.Add(Finding.Hold(
            code, $"“{Shortened(line.Text)}” on page {Text(line.Page)}, block {block.Name}, {says}", block.Name));
    }

    /// <summary>All words that are part of no row, in the order in which they were met.</summary>
    public ImmutableArray<LeftOutLine> LeftOut =>
        [.. leftOut.Select(entry => new LeftOutLine(block.Name, new PlaceOnPage(entry.Line.Page, entry.Line.Box), entry.Line.Text, entry.Why))];

    /// <param name="rows">How many rows the block has.</param>
    public IEnumerable<Finding> Findings(int rows)
    {
        foreach (var doubt in doubts)
            yield return doubt;
        foreach (var group in unaccounted.GroupBy(entry => entry.AfterRow))
        {
            var lines = group.Select(entry => entry.Line).ToList();
            var where = group.Key == 0 ? "before the first row"
                : group.Key == rows ? $"after row {Text(group.Key)}"
                : $"between rows {Text(group.Key)} and {Text(group.Key + 1)}";
            var count = lines.Count == 1 ? "1 printed line is" : $"{Text(lines.Count)} printed lines are";
            yield return Finding.Hold(
                "text-unaccounted",
                $"{count} not accounted for {where} of the block {block.Name}: “{Shortened(lines[0].Text)}”. "
                + "“leaveOut”, “carry”, “rowsUnder” or a “fold” can speak of it.",
                block.Name);
        }
    }

    private static string Text(int number) => number.ToString(CultureInfo.InvariantCulture);

    private static string Shortened(string text) => text.Length <= LongestQuote ? text : text[..(LongestQuote - 1)] + "…";
}
