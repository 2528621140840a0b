using System.Globalization;
using Daxlin.Core.Checks;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Capture.Blocks;

/// <summary>Watches how far apart the lines of wrapped text are set, and says which of them stand too far off to be such.</summary>
/// <remarks>
/// A remark or a heading that the template does not know stands in the column of the descriptions too. Wrapped text is set
/// with one leading; a line further below its row than that, or as far as the next row would be, may be something else.
/// Where rows are set as close as wrapped lines, nothing tells them apart.
/// </remarks>
internal sealed class Leading(BlockRule block)
{
    /// <summary>Leading of one text differs by no more than this factor, small print below larger included.</summary>
    private const double SameLeading = 1.3;

    /// <summary>Text set wider than this many times its size has more than usual leading; rows often have.</summary>
    private const double WideLeading = 1.6;

    private const double SamePitch = 0.5;

    private readonly List<(int Row, TextLine Line, double Pitch)> folded = [];
    private double rowPitch = double.MaxValue;
    private (int Page, double Baseline)? last;

    /// <summary>A row begins on this line.</summary>
    public void RowBegins(TextLine line)
    {
        if (PitchTo(line) is { } pitch)
            rowPitch = Math.Min(rowPitch, pitch);
        Passes(line);
    }

    /// <summary>This line is folded to the row of a number, from 1, above it.</summary>
    public void Folds(int row, TextLine line)
    {
        if (PitchTo(line) is { } pitch)
            folded.Add((row, line, pitch));
        Passes(line);
    }

    /// <summary>This line, which waited for its row, belongs to the row of a number; it stands by this gap off its neighbour there.</summary>
    /// <param name="gap">
    /// In points, between the two. Figures at half the height of their text overlap its lines, and say nothing of its leading.
    /// </param>
    public void Joins(int row, TextLine line, double gap)
    {
        if (gap > 0)
            folded.Add((row, line, gap + line.Words[0].Box.Height));
        Passes(line);
    }

    /// <summary>A line that is neither, but stands between.</summary>
    public void Passes(TextLine line) => last = (line.Page, line.Words[0].Baseline);

    private double? PitchTo(TextLine line) => last is var (page, baseline) && page == line.Page ? line.Words[0].Baseline - baseline : null;

    public IEnumerable<Finding> Findings()
    {
        if (folded.Count == 0)
            yield break;
        var usual = folded.Min(entry => entry.Pitch);
        foreach (var (row, line, pitch) in folded)
        {
            // With one row alone nothing tells how far rows are apart, and wide leading is doubtful by itself.
            var isWide = pitch > WideLeading * line.Words[0].Size && (rowPitch == double.MaxValue || pitch >= rowPitch - SamePitch);
            if (pitch <= SameLeading * usual && !isWide)
                continue;
            yield return Finding.Hold(
                "text-apart",
                string.Create(CultureInfo.InvariantCulture, $"“{line.Text}” stands {pitch:F0} points below row {row} of the block {block.Name}, ")
                + (isWide ? "as far as a row of its own would; it may be no part of it." : string.Create(
                    CultureInfo.InvariantCulture, $"wrapped lines only {usual:F0}; it may be no part of it.")),
                block.Name);
        }
    }
}
