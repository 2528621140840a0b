using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.Checks;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Capture.Blocks;

/// <summary>Text that runs on with mere blanks over the bound between two columns of text, and was cut there.</summary>
/// <remarks>
/// No sum sees which words belong to which text. What tells is where the right part begins: where that column's text stands
/// in other rows, or under its heading, a wide text on its left has come close to it; anywhere else it is the same text.
/// <para>
/// In <c>For the yard, all of it at once</c> over the columns "Text" and "Note", "once" begins where no note does.
/// </para>
/// </remarks>
internal sealed class RunningText
{
    /// <summary>Texts that begin, end or are centred this close to each other, in points, are set at the same place.</summary>
    private const double SamePlace = 0.3;

    private readonly BlockRule block;
    private readonly List<Part> parts = [];
    private readonly Dictionary<(int Page, LineCutter Cutter, int Column), ImmutableArray<Place>> places = [];

    private RunningText(BlockRule block) => this.block = block;

    /// <param name="lines">All with their roles; none open.</param>
    public static IEnumerable<Finding> Doubts(BlockRule block, ImmutableArray<BlockLine> lines)
    {
        var text = new RunningText(block);
        var row = 0;
        foreach (var line in lines)
        {
            row += line.Role == LineRole.Row ? 1 : 0;
            if (line.Role is LineRole.Row or LineRole.More || (line.Text.IsEmpty && line.Role is LineRole.TextOfAbove or LineRole.TextOfBelow))
                text.TakeCut(line, line.Role == LineRole.TextOfBelow ? row + 1 : row);
            else if (line.Role is LineRole.TextOfAbove or LineRole.TextOfBelow)
                text.TakeWrapped(line, row);
        }
        if (!text.parts.Exists(part => part.Before is not null))
            return [];
        foreach (var column in text.parts.GroupBy(KeyOf))
            text.places[column.Key] = PlacesOf([.. column]);
        return text.parts.Where(text.IsCutOff).Select(text.Doubt);
    }

    /// <summary>Takes each column's words of a line, with the words that stand right before them.</summary>
    private void TakeCut(BlockLine line, int row)
    {
        for (var column = 0; column < line.Cut.Columns; column++)
        {
            if (line.Cut.Has(column) && HoldsText(line.Cutter.RuleOf(column)))
                parts.Add(new(line, row, column, Box.Around([line.Cut[column][0].Box, line.Cut[column][^1].Box]), BeforeOf(line, column)));
        }
    }

    private void TakeWrapped(BlockLine line, int row)
    {
        foreach (var (rule, cell) in line.Text)
        {
            for (var column = 0; column < line.Cut.Columns; column++)
            {
                if (line.Cutter.RuleOf(column) == rule)
                    parts.Add(new(line, row, column, cell.Box, null));
            }
        }
    }

    private static bool HoldsText(ColumnRule? rule) => rule is null or { Kind: ValueKind.Text };

    /// <summary>The column of text whose last word stands a mere blank before a column's first; null if there is none.</summary>
    private static int? BeforeOf(BlockLine line, int column)
    {
        var first = line.Cut[column][0];
        for (var other = 0; other < line.Cut.Columns; other++)
        {
            if (other == column || !line.Cut.Has(other) || !HoldsText(line.Cutter.RuleOf(other)))
                continue;
            var last = line.Cut[other][^1];
            if (last.Box.Left < first.Box.Left && !first.IsGluedTo(last) && !TextLine.IsCellGap(last, first) && !IsRuledOff(line, last, first))
                return other;
        }
        return null;
    }

    private static bool IsRuledOff(BlockLine line, Word left, Word right)
    {
        foreach (var stroke in line.Segment.Page.Strokes)
        {
            if (stroke.IsUpright && stroke.Box.CenterX > left.Box.CenterX && stroke.Box.CenterX < right.Box.CenterX && stroke.Box.SharedHeight(left.Box) > 0)
                return true;
        }
        return false;
    }

    /// <summary>Says that a text begins a blank behind another's, at a place that nothing shows to be its column's.</summary>
    private bool IsCutOff(Part part) => part.Before is not null && !places[KeyOf(part)].Any(place => IsAlike(place.Of, place.At, part.Box));

    private static (int Page, LineCutter Cutter, int Column) KeyOf(Part part) => (part.Line.Page, part.Line.Cutter, part.Column);

    /// <summary>
    /// The places where most of a column's texts on a page are set, as those that stand apart and the heading show. Where none
    /// stands apart, as behind codes that fill their column, those show it that begin alike behind texts that differ.
    /// </summary>
    /// <remarks>Texts of any lengths end at one place by chance; only where most are set alike does their place tell.</remarks>
    private static ImmutableArray<Place> PlacesOf(ImmutableArray<Part> column)
    {
        var shown = column.Where(part => part.Before is null).Select(part => part.Box).ToList();
        if (shown.Count == 0 && column.DistinctBy(part => TextLine.TextOf(part.Line.Cut[part.Before!.Value])).ToList() is { Count: > 1 } behind)
            shown = behind.ConvertAll(part => part.Box);
        if (column[0].Line.Cutter.HeadingOf(column[0].Column) is { Height: > 0 } heading)
            shown.Add(heading);
        var alike = Ends.SelectMany(end => shown.Select(box => (Place: new Place(end, box), Count: shown.Count(other => IsAlike(end, box, other))))).ToList();
        var most = alike.Max(one => (int?)one.Count);
        return [.. alike.Where(one => one.Count == most).Select(one => one.Place)];
    }

    /// <summary>Where a text stands: by its left end, its right end or its middle.</summary>
    private static readonly ImmutableArray<Func<Box, double>> Ends = [box => box.Left, box => box.Right, box => box.CenterX];

    private static bool IsAlike(Func<Box, double> end, Box box, Box other) => Math.Abs(end(box) - end(other)) <= SamePlace;

    private Finding Doubt(Part part)
    {
        var (left, right) = (TextLine.TextOf(part.Line.Cut[part.Before!.Value]), TextLine.TextOf(part.Line.Cut[part.Column]));
        return Finding.Hold(
            "text-cut",
            string.Create(CultureInfo.InvariantCulture, $"“{left} {right}” on page {part.Line.Page}, row {part.Row} of the block {block.Name}, runs from one column into the next ")
            + $"and was cut into “{left}” for the {NameOf(part.Line, part.Before.Value)} and “{right}” for the {NameOf(part.Line, part.Column)}.",
            block.Name);
    }

    private static string NameOf(BlockLine line, int column) => line.Cutter.RuleOf(column) is { } rule ? TradeNames.Spoken(rule.Name) : "text between columns";

    /// <summary>What one column has on a line.</summary>
    /// <param name="Before">The column whose words it follows with a mere blank; null where it stands apart.</param>
    private sealed record Part(BlockLine Line, int Row, int Column, Box Box, int? Before);

    /// <summary>The same end of another text.</summary>
    private readonly record struct Place(Func<Box, double> Of, Box At);
}
