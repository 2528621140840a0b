using Daxlin.Core.Pages;

namespace Daxlin.Core.Capture.Blocks;

/// <summary>A row while its lines are being gathered.</summary>
internal sealed class RowDraft(int page, double bottom)
{
    public Dictionary<string, Printed> Cells { get; } = [];

    /// <summary>The page and the lower end of what was gathered last.</summary>
    public (int Page, double Bottom) End { get; private set; } = (page, bottom);

    public void Add(string column, Printed printed) =>
        Cells[column] = Cells.TryGetValue(column, out var before) ? before.With(printed) : printed;

    public void EndsAt(TextLine line) => End = (line.Page, line.Box.Bottom);
}
