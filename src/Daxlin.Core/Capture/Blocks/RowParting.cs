using System.Collections.Immutable;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Capture.Blocks;

/// <summary>Decides for all open lines of a block at once which row each is text of, and how sure that is.</summary>
/// <remarks>
/// <para>
/// Between two lines of figures the open lines part into three: first text of the row above, then headings and what is none
/// of the block's business, then text of the row below. Each way to part them has a price, in line pitches; the cheapest
/// way through the whole block is found by dynamic programming over the gaps between the rows (Viterbi, 1967). What it
/// leads the next best by, line by line, is its certainty: a line that would go elsewhere for little more is a doubt.
/// </para>
/// <para>
/// Nothing but the block itself sets the prices. Lines of one text are set with one pitch, so text further off costs what it
/// is further off by. Where figures stand around their text, they stand at the same place beside it in each row, at its
/// top, middle or end and perhaps some points higher: a row whose figures stand elsewhere costs the distance. Example: with
/// text set 10 apart and figures 3 above the middle, a row of lines at 100 and 110 has its figures at 102; were the line at
/// 110 the next row's, they would stand 5 points, half a pitch, off in this row and as much in the next: 1 pitch in all.
/// </para>
/// </remarks>
internal sealed class RowParting
{
    /// <summary>A line whose next best place costs less than this more, in pitches, is in doubt.</summary>
    private const double Certain = 0.3;

    /// <summary>What it costs to leave a line out as a heading, or unaccounted for: so far off, text is taken for that.</summary>
    private const double AsHeading = 0.4;
    private const double AsNothing = 1;

    /// <summary>What it costs that a text goes on over a page's end, where no distance can be measured.</summary>
    private const double OverPage = 0.3;

    /// <summary>What speaks against a text as much as to call it nothing at all.</summary>
    public const double Unlike = 1;

    /// <summary>A run of text that costs more than this is not looked at.</summary>
    private const double Most = 6;

    private const double Never = double.PositiveInfinity;

    private readonly ImmutableArray<BlockLine> lines;
    private readonly TextPitch pitch;
    private readonly RepeatedForms forms;
    private readonly List<int> rows = [];
    private readonly List<Gap> gaps = [];

    /// <summary>The open lines between two rows, and what each costs in each part.</summary>
    private sealed record Gap(int[] Open, double[] Up, double[] Down, double[] Else)
    {
        public int MostUp { get; } = Array.FindLastIndex(Up, cost => cost <= Most);
        public int MostDown { get; } = Array.FindLastIndex(Down, cost => cost <= Most);

        /// <summary>What it costs to give so many lines to the row above and so many to the one below.</summary>
        public double Cost(int up, int down) => Up[up] + Down[down] + Else[Open.Length - down] - Else[up];
    }

    private RowParting(ImmutableArray<BlockLine> lines, BlockRule block)
    {
        this.lines = lines;
        pitch = new TextPitch(lines, block);
        forms = new RepeatedForms(lines, pitch);
        for (var index = 0; index < lines.Length; index++)
        {
            if (IsRow(lines[index]))
                rows.Add(index);
        }
        for (var gap = 0; gap <= rows.Count; gap++)
            gaps.Add(GapOf(gap));
    }

    /// <summary>The lines with what they are, none of them open any more, and those that could be something else.</summary>
    public static (ImmutableArray<BlockLine> Lines, ImmutableArray<PartingDoubt> Doubts) Decide(ImmutableArray<BlockLine> lines, BlockRule block)
    {
        if (!lines.Any(line => line.Role == LineRole.Open))
            return (lines, []);
        var parting = new RowParting(lines, block);
        var candidates = FigurePlaces.Candidates(lines, parting.rows, parting.LinesBetween).Select(parting.Solve).ToList();
        var best = candidates.MinBy(candidate => candidate.Cost)!;
        return (parting.Decided(best), [.. parting.DoubtsOf(best, candidates), .. parting.OtherwiseFolded(best)]);
    }

    private static bool IsRow(BlockLine line) => line.Role is LineRole.Row or LineRole.RowLeftOut;

    private IReadOnlyList<int> LinesBetween(int gap) => gaps[gap].Open;

    private Gap GapOf(int number)
    {
        var (above, below) = (number == 0 ? -1 : rows[number - 1], number == rows.Count ? lines.Length : rows[number]);
        int[] open = [.. Enumerable.Range(above + 1, below - above - 1).Where(index => lines[index].Role == LineRole.Open)];
        var (up, down, other) = (new double[open.Length + 1], new double[open.Length + 1], new double[open.Length + 1]);
        for (var count = 1; count <= open.Length; count++)
        {
            up[count] = up[count - 1] + (above < 0 ? Never : CostUp(open[count - 1], above));
            down[count] = down[count - 1] + (below == lines.Length ? Never : CostDown(open[^count], below));
            other[count] = other[count - 1] + CostElse(open[count - 1]);
        }
        return new Gap(open, up, down, other);
    }

    /// <summary>What it costs that a line is text of the row above.</summary>
    private double CostUp(int index, int row)
    {
        var line = lines[index];
        if (!line.MayFoldUp || HasBarrier(row, index))
            return Never;
        if (line.Group >= 0)
            return CostInGroups(row, index, text: index);
        // Text around its figures begins where its figures' place says, if none of it stands above them.
        return (pitch.NextAbove(index) is { } above && (above >= row || !line.IsAround) ? CostOfPitch(lines[above], line, line) : 0) + forms.CostOf(index);
    }

    /// <summary>What it costs that a line is text of the row below.</summary>
    private double CostDown(int index, int row)
    {
        var line = lines[index];
        if (!line.MayFoldDown || HasBarrier(index, row))
            return Never;
        if (line.Group >= 0)
            return CostInGroups(index, row, text: index);
        return (pitch.NextBelow(index) is { } below && (below <= row || !line.IsAround) ? CostOfPitch(line, lines[below], line) : 0) + forms.CostOf(index);
    }

    private double CostElse(int index)
    {
        var line = lines[index];
        if (line.Heading is not null)
            return AsHeading;
        // A head or foot so close below a row that it looks like text is doubtful; else it is what it is.
        return line.IsFurniture && !(pitch.NextAbove(index) is { } above && lines[above].Page == line.Page && CostOfPitch(lines[above], line, line) < Certain) ? 0 : AsNothing;
    }

    /// <summary>A heading, a sum of the rows above: no row's text stands on both sides of it.</summary>
    private bool HasBarrier(int from, int to)
    {
        for (var index = from + 1; index < to; index++)
        {
            if (lines[index].Role is LineRole.Carried or LineRole.Sum)
                return true;
        }
        return false;
    }

    private double CostOfPitch(BlockLine upper, BlockLine lower, BlockLine text)
    {
        if (upper.Page != lower.Page)
            return OverPage + (pitch.HasRoomFor(lower, upper) ? Unlike : 0);
        if (pitch.BeginsBelowFigures(upper, lower))
            return 0;
        var distance = lower.Baseline - upper.Baseline;
        var usual = pitch.Of(text);
        return 2 * Math.Max(0, distance / usual - 1) + (!text.IsAround && pitch.IsAsFarAsRows(distance, usual) ? AsNothing / 2 : 0);
    }

    /// <summary>Gaps and rulings say which lines belong together; only a page's end may part a row.</summary>
    private double CostInGroups(int above, int below, int text)
    {
        var (upper, lower) = (lines[above], lines[below]);
        if (upper.Group == lower.Group)
            return 0;
        if (upper.Page == lower.Page)
            return Never;
        for (var index = above + 1; index < below; index++)
        {
            if (lines[index].Role is not (LineRole.Furniture or LineRole.LeftOut) && lines[index].Group != upper.Group && lines[index].Group != lower.Group)
                return Never;
        }
        var (before, behind) = (above, below);
        for (var index = above; index <= below; index++)
        {
            before = IsOf(lines[index], upper.Group) ? index : before;
            behind = behind == below && IsOf(lines[index], lower.Group) ? index : behind;
        }
        // The page's end is crossed once, by the line next to it.
        return text != before && text != behind ? 0 : OverPage + (pitch.HasRoomFor(lines[behind], lines[before]) ? Unlike : 0);
    }

    private static bool IsOf(BlockLine line, int group) => line.Group == group && line.Role != LineRole.Furniture;

    /// <summary>What it costs that the figures of a row stand where they do, between so many lines of text above and below them.</summary>
    private double CostOfFigures(int row, int down, int up, FigurePlace place)
    {
        var above = gaps[row].Open.AsSpan()[^down..];
        var below = gaps[row + 1].Open.AsSpan()[..up];
        var cost = place.CostOf(lines, rows[row], above, below, pitch);
        // Between the last line above the figures and the first below them, where the figures' line has no text of its own.
        if (down > 0 && up > 0 && lines[above[^1]] is { IsAround: true } upper && lines[below[0]] is { IsAround: true } lower
            && pitch.NextAbove(below[0]) < rows[row])
            cost += CostOfPitch(upper, lower, lower);
        return cost;
    }

    /// <summary>The cheapest parting if figures stand at one place beside their text, with all that the others would cost.</summary>
    private Solution Solve(FigurePlace place)
    {
        // Forwards: what all rows above cost at least if so many lines of a gap go to the row below.
        var forward = new double[gaps.Count][];
        var choice = new (int Down, int Up)[gaps.Count][];
        var toUp = new double[gaps.Count][];
        for (var number = 0; number < gaps.Count; number++)
        {
            var gap = gaps[number];
            var ups = toUp[number] = new double[gap.MostUp + 1];
            var before = new int[gap.MostUp + 1];
            for (var up = 0; up <= gap.MostUp; up++)
            {
                ups[up] = number == 0 ? 0 : Never;
                for (var down = 0; number > 0 && down <= gaps[number - 1].MostDown; down++)
                {
                    var cost = forward[number - 1][down] + CostOfFigures(number - 1, down, up, place);
                    if (cost < ups[up])
                        (ups[up], before[up]) = (cost, down);
                }
            }
            forward[number] = new double[gap.MostDown + 1];
            choice[number] = new (int, int)[gap.MostDown + 1];
            for (var down = 0; down <= gap.MostDown; down++)
            {
                forward[number][down] = Never;
                for (var up = 0; up <= Math.Min(gap.MostUp, gap.Open.Length - down); up++)
                {
                    var cost = ups[up] + gap.Cost(up, down);
                    if (cost < forward[number][down])
                        (forward[number][down], choice[number][down]) = (cost, (before[up], up));
                }
            }
        }
        var parts = new (int Up, int Down)[gaps.Count];
        for (var (number, down) = (gaps.Count - 1, 0); number >= 0; number--)
        {
            var (downBefore, up) = choice[number][down];
            parts[number] = (up, down);
            down = downBefore;
        }
        return new Solution(place, forward[^1][0], parts, toUp);
    }

    /// <summary>Backwards: what all rows below cost at least if so many lines of a gap go to the row below it.</summary>
    private double[][] Backward(FigurePlace place)
    {
        var backward = new double[gaps.Count][];
        backward[^1] = [0];
        for (var number = gaps.Count - 2; number >= 0; number--)
        {
            var (gap, next) = (gaps[number], gaps[number + 1]);
            // What lies below the next gap, by how many of its lines go up.
            var fromUp = new double[next.MostUp + 1];
            for (var up = 0; up <= next.MostUp; up++)
            {
                fromUp[up] = Never;
                for (var down = 0; down <= Math.Min(backward[number + 1].Length - 1, next.Open.Length - up); down++)
                    fromUp[up] = Math.Min(fromUp[up], next.Cost(up, down) + backward[number + 1][down]);
            }
            backward[number] = new double[gap.MostDown + 1];
            for (var down = 0; down <= gap.MostDown; down++)
            {
                backward[number][down] = Never;
                for (var up = 0; up <= next.MostUp; up++)
                    backward[number][down] = Math.Min(backward[number][down], CostOfFigures(number, down, up, place) + fromUp[up]);
            }
        }
        return backward;
    }

    private ImmutableArray<BlockLine> Decided(Solution best)
    {
        var decided = lines.ToBuilder();
        for (var number = 0; number < gaps.Count; number++)
        {
            var open = gaps[number].Open;
            for (var at = 0; at < open.Length; at++)
            {
                decided[open[at]] = lines[open[at]] with
                {
                    Role = best.PartOf(number, at, open.Length) switch
                    {
                        Part.Above => LineRole.TextOfAbove,
                        Part.Below => LineRole.TextOfBelow,
                        _ => lines[open[at]] is { Heading: not null } ? LineRole.Carried
                            : lines[open[at]].IsFurniture ? LineRole.Furniture : LineRole.Unaccounted,
                    },
                };
            }
        }
        return decided.MoveToImmutable();
    }

    /// <summary>Lines that would go elsewhere for little more, under the best or under any other place of the figures.</summary>
    private ImmutableArray<PartingDoubt> DoubtsOf(Solution best, List<Solution> candidates)
    {
        var elsewhere = new Dictionary<int, (double Cost, Part Part)>();
        foreach (var candidate in candidates.Where(candidate => candidate.Cost < best.Cost + Certain))
        {
            var backward = Backward(candidate.Place);
            for (var number = 0; number < gaps.Count; number++)
            {
                var gap = gaps[number];
                for (var up = 0; up <= gap.MostUp; up++)
                {
                    for (var down = 0; down <= Math.Min(gap.MostDown, gap.Open.Length - up); down++)
                    {
                        var cost = candidate.ToUp[number][up] + gap.Cost(up, down) + (down < backward[number].Length ? backward[number][down] : Never);
                        if (cost < best.Cost + Certain)
                            Compare(best, number, gap, up, down, cost, elsewhere);
                    }
                }
            }
        }
        return [.. elsewhere.OrderBy(entry => entry.Key).Select(entry => new PartingDoubt(
            entry.Key, PartIn(best, entry.Key), entry.Value.Part, RowsAbove(entry.Key)))];
    }

    /// <summary>
    /// Text that a template folds one way, and that stands nearer to the row on the other side: its figures are beside
    /// another of its lines than the template says, and the line is another row's.
    /// </summary>
    /// <remarks>
    /// Between two rows the gap that parts them is the widest, whichever line the figures stand beside. With "down" a line
    /// at 111 below a row at 100, and the next row's text at 121, would be the upper row's; it is the lower one's. Over a
    /// page's end no gap parts the rows, so text that goes over it must stand off the row that it is no text of.
    /// </remarks>
    private IEnumerable<PartingDoubt> OtherwiseFolded(Solution best)
    {
        for (var number = 1; number < rows.Count; number++)
        {
            var (above, below, open) = (rows[number - 1], rows[number], gaps[number].Open);
            var (up, down) = best.Parts[number];
            if (open.Length == 0 || up + down < open.Length || (up > 0 && down > 0) || lines[open[0]].Group >= 0 || lines[open[0]].IsAround)
                continue;
            var texts = new List<int>(open);
            if (pitch.HasTextOf(above, open[0]))
                texts.Insert(0, above);
            if (pitch.HasTextOf(below, open[^1]))
                texts.Add(below);
            // The pair of lines that the template's fold parts the rows between; -1 if a row has no text there to part.
            var parted = up > 0 ? texts[^1] == below ? texts.Count - 2 : -1 : texts[0] == above ? 0 : -1;
            var usual = pitch.Of(lines[open[0]]);
            var (widest, at) = (0.0, -1);
            for (var pair = 0; pair + 1 < texts.Count; pair++)
            {
                if (pair == parted || DistanceOf(pair) is not { } distance || distance <= widest)
                    continue;
                (widest, at) = (distance, pair);
            }
            var isOverPage = lines[above].Page != lines[below].Page;
            var between = parted < 0 ? usual : DistanceOf(parted) ?? double.PositiveInfinity;
            // Text beside the figures of the other row, at half its height, is that row's.
            var beside = up > 0 ? open[^1] : open[0];
            var isBeside = lines[beside].Line.Box.SharedHeight(lines[up > 0 ? below : above].Line.Box) > BesideFigures * lines[beside].Size;
            if (isBeside || widest > between + TextPitch.Same || (isOverPage && parted >= 0 && pitch.RowsStandApart(usual) && between <= usual + TextPitch.Same))
            {
                var line = isBeside ? beside : open[Math.Clamp(at, 0, open.Length - 1)];
                yield return new PartingDoubt(line, up > 0 ? Part.Above : Part.Below, up > 0 ? Part.Below : Part.Above, RowsAbove(open[0]));
            }

            double? DistanceOf(int pair) => lines[texts[pair]].Page != lines[texts[pair + 1]].Page ? null
                : lines[texts[pair + 1]].Baseline - lines[texts[pair]].Baseline;
        }
    }

    /// <summary>Lines that share more than this part of the type's size in height stand beside one another, not over.</summary>
    private const double BesideFigures = 0.2;

    private int RowsAbove(int index)
    {
        var at = ~rows.BinarySearch(index);
        return rows.Take(at).Count(row => lines[row].Role == LineRole.Row);
    }

    private static void Compare(
        Solution best, int number, Gap gap, int up, int down, double cost, Dictionary<int, (double Cost, Part Part)> elsewhere)
    {
        for (var at = 0; at < gap.Open.Length; at++)
        {
            var part = at < up ? Part.Above : at >= gap.Open.Length - down ? Part.Below : Part.Neither;
            if (part != best.PartOf(number, at, gap.Open.Length) && (!elsewhere.TryGetValue(gap.Open[at], out var known) || cost < known.Cost))
                elsewhere[gap.Open[at]] = (cost, part);
        }
    }

    private Part PartIn(Solution solution, int index)
    {
        var number = ~rows.BinarySearch(index);
        return solution.PartOf(number, Array.IndexOf(gaps[number].Open, index), gaps[number].Open.Length);
    }

    /// <summary>Where a line goes.</summary>
    internal enum Part
    {
        Neither,
        Above,
        Below,
    }

    /// <summary>The cheapest parting for one place of the figures.</summary>
    /// <param name="Parts">For each gap how many lines go to the row above and to the row below.</param>
    /// <param name="ToUp">For each gap what all before costs at least, by how many of its lines go to the row above.</param>
    private sealed record Solution(FigurePlace Place, double Cost, (int Up, int Down)[] Parts, double[][] ToUp)
    {
        public Part PartOf(int gap, int at, int count) =>
            at < Parts[gap].Up ? Part.Above : at >= count - Parts[gap].Down ? Part.Below : Part.Neither;
    }
}
