using System.Collections.Immutable;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Capture.Blocks;

/// <summary>Says what each line of a block is as far as the line and the template tell it; the rest is left open.</summary>
/// <remarks>
/// In this order: what the template leaves out or carries by a pattern, sums of the rows above, lists under a row, rows,
/// more figures of a row, heads and feet of pages. What is left has no figures where figures stand: text, or a heading.
/// </remarks>
internal sealed class LineRoles
{
    /// <summary>Lines of one row stand no further apart than this part of the type's size, from bottom to top.</summary>
    private const double WithinRow = 1.5;

    private readonly BlockRule block;
    private readonly PageFurniture furniture;
    private readonly Habits habits;
    private readonly RunningSums sums;
    private readonly ImmutableArray<string> figures;
    private readonly List<BlockLine> lines = [];
    private List<BlockLine> cut = [];
    private int rows;

    /// <summary>The columns that the last row has filled so far.</summary>
    private readonly HashSet<ColumnRule> filled = [];

    private LineRoles(BlockRule block, InvoicePages pages, Habits habits, decimal before)
    {
        (this.block, furniture, this.habits, sums) = (block, pages.Furniture, habits, new RunningSums(block, habits, before));
        figures = [.. block.Columns.Where(column => column is { Required: true, IsPlaced: true, Kind: not ValueKind.Text }).Select(column => column.Name)];
    }

    /// <param name="before">What the items of the blocks before come to.</param>
    public static ImmutableArray<BlockLine> Of(
        BlockRule block, IEnumerable<BlockSegment> segments, InvoicePages pages, Habits habits, decimal before)
    {
        var roles = new LineRoles(block, pages, habits, before);
        roles.cut = roles.Cut([.. segments]);
        foreach (var line in roles.cut)
            roles.Add(line);
        return roles.WithBlankSums();
    }

    /// <summary>Cuts all lines, and parts what is furniture from lines that have something else beside it.</summary>
    private List<BlockLine> Cut(IReadOnlyList<BlockSegment> segments)
    {
        var cut = new List<BlockLine>();
        var group = -1;
        rowsAsTheyStand.UnionWith(segments.SelectMany(segment => LinesOf(segment).Where(line => LosesByParting(line, segment))));
        foreach (var segment in segments)
        {
            var foot = FootOf(segment);
            var groups = RowGroups.Of(block.Row, segment.Page, segment.Start, segment.End, segment.Cutter);
            foreach (var ofGroup in groups ?? [LinesOf(segment)])
            {
                group = groups is null ? -1 : group + 1;
                foreach (var printed in ofGroup)
                {
                    var (own, shared) = rowsAsTheyStand.Contains(printed) ? (printed, null) : furniture.Part(printed, mayBeHead: !segment.BelowHeadings);
                    if (shared is not null)
                        cut.Add(LineOf(shared, segment, group, LineRole.Furniture));
                    if (own is null)
                        continue;
                    foreach (var line in group < 0 ? [own] : ApartFromLists(own))
                        cut.Add(LineOf(line, segment, group, LineRole.Open) with { IsFurniture = IsFurniture(printed, segment) || foot.Contains(printed) });
                }
            }
        }
        return cut;
    }

    /// <summary>
    /// Rows that keep the words which stand alone at the foot of another page. One word of a text that goes on from the line
    /// above is such a foot if a row of the next page begins with the same word at the same height: it is the row's all the
    /// same, since without it the row would lack a value that it must have.
    /// </summary>
    private readonly HashSet<TextLine> rowsAsTheyStand = [];

    private static ImmutableArray<TextLine> LinesOf(BlockSegment segment) => segment.Page.Lines[segment.Start..Math.Max(segment.Start, segment.End)];

    private bool LosesByParting(TextLine printed, BlockSegment segment)
    {
        if (furniture.Part(printed, mayBeHead: !segment.BelowHeadings) is not ({ } own, { }))
            return false;
        var (whole, parted) = (LineOf(printed, segment, -1, LineRole.Open), LineOf(own, segment, -1, LineRole.Open));
        var must = block.Columns.Where(column => column is { Required: true, IsPlaced: true, Fold: not Fold.Up }).Select(column => column.Name).ToList();
        return must.TrueForAll(column => Fills(whole, column)) && !must.TrueForAll(column => Fills(parted, column));
    }

    private static BlockLine LineOf(TextLine line, BlockSegment segment, int group, LineRole role) =>
        new(line, segment.Cutter.Cut(line), segment.Cutter, segment, group, role);

    /// <summary>
    /// The last lines of a segment that another page has at the same place: a foot that something else parts from the
    /// page's edge, as "continued overleaf" on all pages but the last.
    /// </summary>
    private HashSet<TextLine> FootOf(BlockSegment segment)
    {
        var foot = new HashSet<TextLine>();
        for (var index = segment.End - 1; index >= segment.Start && furniture.StandsElsewhere(segment.Page.Lines[index]) && !furniture.IsPartOf(segment.Page.Lines[index], rowsAsTheyStand); index--)
            foot.Add(segment.Page.Lines[index]);
        return foot;
    }

    private bool IsFurniture(TextLine line, BlockSegment segment) =>
        (furniture.IsFoot(line) || (!segment.BelowHeadings && furniture.IsHead(line))) && !furniture.IsPartOf(line, rowsAsTheyStand);

    /// <summary>Parts a cell that belongs to a list under the row from figures that stand on the same height.</summary>
    private IEnumerable<TextLine> ApartFromLists(TextLine line)
    {
        foreach (var rule in block.RowsUnder)
        {
            if (line.Cells.Length < 2 || rule.Line.IsMatch(line.Text)
                || line.Cells.Where(cell => rule.Line.IsMatch(cell.Text)).Take(1).ToList() is not [var own])
                continue;
            ImmutableArray<Word> words = [.. own.Words];
            return [new TextLine(line.Page, [.. line.Words.Where(word => !words.Contains(word))]), new TextLine(line.Page, words)];
        }
        return [line];
    }

    /// <summary>
    /// Says that a page's foot which would begin a row fills every column that no row leaves empty. Rows of one form at one
    /// height of each page look like furniture themselves; most of them are rows.
    /// </summary>
    private bool FillsLikeARow(BlockLine line) => (filledByRows ??= FilledByRows()).TrueForAll(column => Fills(line, column));

    private List<string>? filledByRows;

    private List<string> FilledByRows()
    {
        var all = cut.Where(Begins).ToList();
        var sure = all.Where(row => !row.IsFurniture).ToList();
        // Text that folds need not stand on the line with the figures.
        return [.. block.Columns.Where(column => column is { IsPlaced: true, Fold: Fold.None } && (sure.Count > 0
            ? sure.TrueForAll(row => Fills(row, column.Name))
            : all.Count(row => Fills(row, column.Name)) * 2 > all.Count)).Select(column => column.Name)];
    }

    private void Add(BlockLine line)
    {
        var printed = line.Line;
        if (line.Role == LineRole.Furniture)
            lines.Add(line);
        else if (block.LeaveOut.Any(pattern => pattern.IsMatch(printed.Text)))
            lines.Add(line with { Role = LineRole.LeftOut });
        else if (CarriedText.RuleByPattern(block, printed, line.Cutter) is { } carry)
            lines.Add(line with { Role = LineRole.Carried, Heading = carry });
        else if (sums.SumOn(printed, line.Cut, line.Cutter) is { } sum)
            lines.Add(line with { Role = LineRole.Sum, Sum = sum });
        else if (rows > 0 && block.RowsUnder.FirstOrDefault(rule => rule.Line.IsMatch(printed.Text)) is { } under)
            lines.Add(line with { Role = LineRole.Under, Under = under });
        else if (line.Group >= 0)
            AddOfGroup(line);
        else if (SecondLineOf(line) is { } second)
            AddMore(second);
        else if (Begins(line) && !OnlyReachesIn(line) && (!line.IsFurniture || FillsLikeARow(line)))
            AddRow(line);
        else if (IsMore(line))
            AddMore(line);
        else
            AddOpen(line);
    }

    /// <summary>
    /// A line as the second of a record that has two, cut into its own columns; null if it is none. Where it could be the
    /// first of the next record as well, it is what it lacks less for.
    /// </summary>
    private BlockLine? SecondLineOf(BlockLine line)
    {
        if (line.Segment.Below is not { } cutter || rows == 0 || line.IsFurniture || lines[^1] is not { Role: LineRole.Row or LineRole.RowLeftOut } first
            || first.Segment != line.Segment)
            return null;
        var second = new BlockLine(line.Line, cutter.Cut(line.Line), cutter, line.Segment, line.Group, line.Role);
        return Lacks(second) < Lacks(line) || !Begins(line) ? second : null;
    }

    /// <summary>How many columns of its layout a line leaves empty although they must be filled, or fills with what is not of their kind.</summary>
    private int Lacks(BlockLine line)
    {
        var count = 0;
        for (var column = 0; column < line.Cut.Columns; column++)
        {
            if (line.Cutter.RuleOf(column) is not { } rule)
                continue;
            count += !line.Cut.Has(column) ? rule.Required ? 1 : 0
                : rule.Kind == ValueKind.Text || IsOfItsKind(line, column, rule) ? 0 : 1;
        }
        return count;
    }

    private bool Begins(BlockLine line) => RowBeginning.Is(block.Row, line.Line, line.Cut, line.Cutter, habits);

    /// <summary>
    /// Says that a line which fills the column that begins a row is text that only reaches into that column: it has none of
    /// the figures that other rows have, and its word there stands in the midst of a cell. "Deck 1", a heading at the left
    /// of the positions, puts its 1 among the item codes.
    /// </summary>
    private bool OnlyReachesIn(BlockLine line)
    {
        if (line.Cutter.Begins < 0 || line.Cutter.RuleOf(line.Cutter.Begins) is not { Kind: ValueKind.Text } || figures.IsEmpty || HasFigure(line))
            return false;
        var first = line.Cut[line.Cutter.Begins][0];
        foreach (var cell in line.Line.Cells)
        {
            if (ReferenceEquals(cell.Words[0], first))
                return false;
        }
        return rowsHaveFigures ??= cut.Exists(row => Begins(row) && figures.All(column => Fills(row, column)));
    }

    /// <summary>Says that some row has all figures that a row must have on the line where it begins; null until it is asked.</summary>
    private bool? rowsHaveFigures;

    /// <summary>Says that a column holds a value of its kind.</summary>
    private bool Fills(BlockLine line, string name)
    {
        for (var column = 0; column < line.Cut.Columns; column++)
        {
            if (line.Cutter.RuleOf(column) is { } rule && rule.Name == name)
                return line.Cut.Has(column) && (rule.Kind == ValueKind.Text || IsOfItsKind(line, column, rule));
        }
        return false;
    }

    private bool IsOfItsKind(BlockLine line, int column, ColumnRule rule)
    {
        var text = Printed.Of(line.Page, line.Cut[column]);
        return Printed.IsDash(text.Text) || text.Read(rule.Tidy, rule.Kind, habits).Reading.IsGood;
    }

    private void AddRow(BlockLine line)
    {
        var isLeftOut = block.OnlyRows is { } only && !only.IsMatch(line.Line.Text);
        lines.Add(line with { Role = isLeftOut ? LineRole.RowLeftOut : LineRole.Row });
        rows++;
        filled.Clear();
        TakeDown(line, counts: !isLeftOut);
    }

    private void AddMore(BlockLine line)
    {
        lines.Add(line with { Role = LineRole.More });
        TakeDown(line, counts: lines.FindLast(other => other.Role is LineRole.Row or LineRole.RowLeftOut)?.Role == LineRole.Row);
    }

    private void TakeDown(BlockLine line, bool counts)
    {
        for (var column = 0; column < line.Cut.Columns; column++)
        {
            if (line.Cut.Has(column) && line.Cutter.RuleOf(column) is { } rule)
                filled.Add(rule);
        }
        if (counts)
            sums.AddRow(line.Cut, line.Cutter, line.Page);
    }

    /// <summary>
    /// In a group that gaps or rulings part from the others the first line with figures is the row's, and all others are of
    /// that row. A group without figures is open: a heading, or what a page's end has parted from its row.
    /// </summary>
    private void AddOfGroup(BlockLine line)
    {
        var (hasRow, isFigures) = (rowOfGroup == line.Group, HasFigure(line));
        if (line.IsFurniture)
        {
            lines.Add(line with { Role = LineRole.Furniture });
        }
        else if (!hasRow && (isFigures || figures.IsEmpty))
        {
            for (var index = lines.Count - 1; index >= 0 && lines[index].Group == line.Group; index--)
            {
                if (lines[index].Role is LineRole.Open or LineRole.Unaccounted)
                    lines[index] = lines[index] with { Role = LineRole.TextOfBelow };
            }
            AddRow(line);
            rowOfGroup = line.Group;
        }
        else if (hasRow && isFigures)
        {
            AddMore(line);
        }
        else
        {
            lines.Add(line with
            {
                Role = hasRow ? LineRole.TextOfAbove : LineRole.Open,
                Text = TextOf(line),
                Heading = hasRow ? null : CarriedText.RuleByPlace(block, line.Line, line.Cutter),
            });
        }
    }

    /// <summary>The last group that has a row.</summary>
    private int rowOfGroup = -1;

    private bool HasFigure(BlockLine line)
    {
        for (var column = 0; column < line.Cut.Columns; column++)
        {
            if (line.Cut.Has(column) && line.Cutter.RuleOf(column) is { } rule && figures.Contains(rule.Name))
                return true;
        }
        return false;
    }

    /// <summary>
    /// More of a row that began above, in columns that are empty so far: figures beside the last line of its text, or text
    /// that shares its height with the figures and stands a little higher or lower.
    /// </summary>
    private bool IsMore(BlockLine line)
    {
        if (rows == 0 || line.IsFurniture)
            return false;
        var (fills, isBeside) = (false, lines[^1].Role is LineRole.Row or LineRole.RowLeftOut or LineRole.More
            && lines[^1].Page == line.Page && lines[^1].Line.Box.SharedHeight(line.Line.Box) > line.Size / 2);
        if ((!isBeside && !line.Line.Text.AsSpan().ContainsAnyInRange('0', '9')) || !FollowsRow(line))
            return false;
        for (var column = 0; column < line.Cut.Columns; column++)
        {
            if (!line.Cut.Has(column) || line.Cutter.RuleOf(column) is not { } rule || rule.Fold is Fold.Down or Fold.AllDown or Fold.Around)
                continue;
            if (filled.Contains(rule) || !IsOfItsKind(line, column, rule))
                return false;
            fills |= isBeside || rule is { Required: true, Kind: not ValueKind.Text };
        }
        return fills;
    }

    /// <summary>Says that nothing but lines of the last row stands between it and a line, each as close as lines of one row are.</summary>
    private bool FollowsRow(BlockLine line)
    {
        var below = line;
        for (var index = lines.Count - 1; index >= 0; index--)
        {
            var above = lines[index];
            if (above.Role is LineRole.LeftOut or LineRole.Furniture)
                continue;
            if (above.Page == below.Page && below.Line.Box.Top - above.Line.Box.Bottom > WithinRow * below.Size)
                return false;
            if (above.Role is LineRole.Row or LineRole.RowLeftOut)
                return true;
            if (above.Role is not (LineRole.Open or LineRole.More or LineRole.Under) || above is { Role: LineRole.Open, MayFoldUp: false } || above.MayFoldDown)
                return false;
            below = above;
        }
        return false;
    }

    private void AddOpen(BlockLine line)
    {
        // Text that goes on below the second line of a record folds into its columns.
        if (line.Segment.Below is { } below && rows > 0 && lines[^1].Cutter == below)
            line = new BlockLine(line.Line, below.Cut(line.Line), below, line.Segment, line.Group, line.Role) { IsFurniture = line.IsFurniture };
        var text = TextOf(line);
        // What stands at one place of several pages is no heading of the rows below, unless it is repeated with the column headings.
        var heading = line.IsFurniture || block.Carry.IsEmpty || (furniture.Repeats(line.Line) && !IsRightBelowHeadings(line))
            ? null : CarriedText.RuleByPlace(block, line.Line, line.Cutter);
        lines.Add(text.IsEmpty && heading is null
            ? line with { Role = line.IsFurniture ? LineRole.Furniture : LineRole.Unaccounted }
            : line with { Text = text, Heading = heading });
    }

    private bool IsRightBelowHeadings(BlockLine line) => line.Segment.BelowHeadings
        && !lines.Any(other => other.Segment == line.Segment && other.Role is LineRole.Row or LineRole.RowLeftOut);

    /// <summary>The cells of a line of nothing but text of columns that fold, with their columns; empty if it is none.</summary>
    private static ImmutableArray<(ColumnRule Column, Cell Cell)> TextOf(BlockLine line)
    {
        var parts = ImmutableArray.CreateBuilder<(ColumnRule, Cell)>(line.Line.Cells.Length);
        var last = -1;
        foreach (var cell in line.Line.Cells)
        {
            var column = line.Cutter.ColumnOfWrapped(cell.Box);
            if (line.Cutter.RuleOf(column) is not { Fold: not Fold.None } rule || (column != last && !line.Cutter.MayBegin(column, cell.Box)))
                return [];
            last = column;
            parts.Add((rule, cell));
        }
        return parts.MoveToImmutable();
    }

    /// <summary>Now that all sums with their figures are known: those without, brought forward before there is any.</summary>
    private ImmutableArray<BlockLine> WithBlankSums()
    {
        var isBeforeRows = true;
        for (var index = 0; index < lines.Count; index++)
        {
            var line = lines[index];
            isBeforeRows &= line.Role is not (LineRole.Row or LineRole.RowLeftOut);
            if (line.Role is LineRole.Unaccounted or LineRole.Open && sums.IsBlankSum(line.Line, isBeforeRows && line.Role == LineRole.Unaccounted))
                lines[index] = line with { Role = LineRole.Sum };
        }
        return [.. lines];
    }
}
