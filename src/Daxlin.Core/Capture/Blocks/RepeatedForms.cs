using System.Collections.Immutable;
using System.Text.RegularExpressions;

namespace Daxlin.Core.Capture.Blocks;

/// <summary>Tells lines that repeat row by row with other figures, and lines of several cells: they are lists, not wrapped text.</summary>
/// <remarks>
/// "Meter 4711: 12,340 to 12,980" under each row stands in the column of the descriptions too. It does not read like the
/// text it follows: its first word would have fitted on the line above, and another row has the same with other figures.
/// </remarks>
internal sealed partial class RepeatedForms
{
    private readonly ImmutableArray<BlockLine> lines;
    private readonly TextPitch pitch;

    /// <summary>Under how many rows a form stands, and under how many of them its first word would have fitted on the line above.</summary>
    private readonly Dictionary<string, (int Rows, int WithRoom)> forms = [];

    /// <summary>Under so many rows a form repeats row by row: half of those that have text under them.</summary>
    private readonly int fewest;

    public RepeatedForms(ImmutableArray<BlockLine> lines, TextPitch pitch)
    {
        (this.lines, this.pitch) = (lines, pitch);
        var seen = new HashSet<string>();
        var (isNew, rows) = (true, 0);
        for (var index = 0; index < lines.Length; index++)
        {
            if (lines[index].Role is LineRole.Row or LineRole.RowLeftOut)
            {
                isNew = true;
                seen.Clear();
                continue;
            }
            if (lines[index].Role != LineRole.Open)
                continue;
            rows += isNew ? 1 : 0;
            isNew = false;
            if (FormOf(lines[index]) is not { } form || !seen.Add(form))
                continue;
            var (count, withRoom) = forms.GetValueOrDefault(form);
            forms[form] = (count + 1, withRoom + (HasRoomAbove(index) ? 1 : 0));
        }
        fewest = Math.Max(2, (rows + 1) / 2);
    }

    /// <summary>What it costs to take a line for wrapped text, in pitches.</summary>
    public double CostOf(int index)
    {
        var line = lines[index];
        if (line.Text.Length > 1 && line.Text.Any(part => line.Text.Count(other => other.Column == part.Column) > 1))
            return RowParting.Unlike;
        // The template may say that such lines are part of the text.
        if (line.Text.All(part => part.Column.Fold == Templates.Fold.AllDown) || FormOf(line) is not { } form)
            return 0;
        // Under the longest item of all nothing shows that there was room; that its like had it elsewhere does.
        return forms.TryGetValue(form, out var seen) && seen.Rows >= fewest && seen.WithRoom * 2 >= seen.Rows ? RowParting.Unlike : 0;
    }

    private bool HasRoomAbove(int index) =>
        pitch.NextAbove(index) is { } above && lines[above].Page == lines[index].Page && pitch.HasRoomFor(lines[index], lines[above]);

    /// <summary>The words of a line that holds figures, all figures made alike; null if it holds none or is no text.</summary>
    private static string? FormOf(BlockLine line) => line.Role != LineRole.Open || line.Text.IsEmpty || !line.Line.Text.AsSpan().ContainsAnyInRange('0', '9')
        ? null : Figures().Replace(line.Line.Text, "0");

    [GeneratedRegex(@"\d[\d.,:/]*", RegexOptions.CultureInvariant, 2000)]
    private static partial Regex Figures();
}
