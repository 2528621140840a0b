using Daxlin.Core.Pages;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Capture.Blocks;

/// <summary>A row while its lines are being gathered.</summary>
internal sealed class RowDraft(int page, double bottom)
{
    private const int UsualColumns = 10;

    /// <summary>What is printed in each column, by its name.</summary>
    public Dictionary<string, Printed> Cells { get; } = new(UsualColumns, StringComparer.Ordinal);

    /// <summary>The lines of the lists under the row.</summary>
    public List<(RowsUnderRule Rule, TextLine Line)> Under => under ??= [];

    private List<(RowsUnderRule Rule, TextLine Line)>? under;

    /// <summary>The page and the lower end of what was gathered last.</summary>
    public (int Page, double Bottom) End { get; private set; } = (page, bottom);

    /// <summary>How many lines of its text stand above its figures.</summary>
    public int LinesAbove { get; set; }

    public void Add(string column, Printed printed, bool joinsHyphens = false) =>
        Cells[column] = Cells.TryGetValue(column, out var before) ? before.With(printed, joinsHyphens) : printed;

    public void EndsAt(TextLine line) => End = (line.Page, line.Box.Bottom);
}
