using System.Collections.Immutable;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Capture.Blocks;

/// <summary>A row while its lines are being gathered.</summary>
internal sealed class RowDraft
{
    private const int UsualColumns = 10;

    private List<(RowsUnderRule Rule, TextLine Line)>? under;

    /// <summary>What is printed in each column, by its name.</summary>
    public Dictionary<string, Printed> Cells { get; } = new(UsualColumns, StringComparer.Ordinal);

    /// <summary>The lines of the lists under the row.</summary>
    public List<(RowsUnderRule Rule, TextLine Line)> Under => under ??= [];

    public void Add(string column, Printed printed, bool joinsHyphens = false) =>
        Cells[column] = Cells.TryGetValue(column, out var before) ? before.With(printed, joinsHyphens) : printed;

    /// <summary>Adds the words of a line by the columns that they were cut into.</summary>
    /// <param name="lists">The lists under the rows: one may begin beside the figures, where these stand below their text.</param>
    public void Add(BlockLine line, ImmutableArray<RowsUnderRule> lists = default)
    {
        for (var column = 0; column < line.Cut.Columns; column++)
        {
            if (!line.Cut.Has(column) || line.Cutter.RuleOf(column) is not { } rule)
                continue;
            if (!lists.IsDefaultOrEmpty && rule.Fold is Templates.Fold.Around or Templates.Fold.Up && Cells.ContainsKey(rule.Name)
                && new TextLine(line.Page, [.. line.Cut[column]]) is var text && lists.FirstOrDefault(list => list.Line.IsMatch(text.Text)) is { } own)
                Under.Add((own, text));
            else
                Add(rule.Name, Printed.Of(line.Page, line.Cut[column]), rule.JoinsHyphens);
        }
    }

    /// <summary>Adds wrapped text, or, where rows are parted by gaps or rulings, whatever else stands within one.</summary>
    public void Fold(BlockLine line)
    {
        if (line.Text.IsEmpty)
            Add(line);
        foreach (var (column, cell) in line.Text)
            Add(column.Name, Printed.Of(line.Page, cell.Words), column.JoinsHyphens);
    }
}
