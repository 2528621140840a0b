using System.Runtime.InteropServices;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Capture.Blocks;

/// <summary>A row while its lines are being gathered.</summary>
internal sealed class RowDraft(int page, double bottom)
{
    private const int UsualColumns = 10;

    /// <summary>A wrapped line follows its row within this part of the type's height.</summary>
    private const double FoldGap = 1.5;

    private List<(RowsUnderRule Rule, TextLine Line)>? under;

    /// <summary>What is printed in each column, by its name.</summary>
    public Dictionary<string, Printed> Cells { get; } = new(UsualColumns, StringComparer.Ordinal);

    /// <summary>The lines of the lists under the row.</summary>
    public List<(RowsUnderRule Rule, TextLine Line)> Under => under ??= [];

    /// <summary>The page and the lower end of what was gathered last.</summary>
    public (int Page, double Bottom) End { get; private set; } = (page, bottom);

    /// <summary>How many lines of its text stand above its figures.</summary>
    public int LinesAbove { get; set; }

    public void Add(string column, Printed printed, bool joinsHyphens = false) =>
        Cells[column] = Cells.TryGetValue(column, out var before) ? before.With(printed, joinsHyphens) : printed;

    /// <summary>Adds the words of a line by the columns that they were cut into.</summary>
    public void Add(TextLine line, List<Word>[] cut, LineCutter cutter)
    {
        for (var column = 0; column < cut.Length; column++)
        {
            if (cut[column].Count > 0 && cutter.RuleOf(column) is { } rule)
                Add(rule.Name, Printed.Of(line.Page, CollectionsMarshal.AsSpan(cut[column])), rule.JoinsHyphens);
        }
        EndsAt(line);
    }

    /// <summary>Adds wrapped text.</summary>
    public void Fold(WaitingLine wrapped)
    {
        foreach (var (column, cell) in wrapped.Parts)
            Add(column.Name, Printed.Of(wrapped.Line.Page, cell.Words), column.JoinsHyphens);
        EndsAt(wrapped.Line);
    }

    /// <summary>The line that was gathered last; null for a row that stands nowhere.</summary>
    public TextLine? LastLine { get; private set; }

    public void EndsAt(TextLine line) => (End, LastLine) = ((line.Page, line.Box.Bottom), line);

    /// <summary>Says that a line stands so close below that it may be more of the row; over a page break any may.</summary>
    public bool IsFollowedBy(TextLine line) =>
        End.Page != line.Page || line.Box.Top - End.Bottom <= FoldGap * line.Words[0].Size;
}
