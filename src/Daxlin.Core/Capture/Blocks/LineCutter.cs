using Daxlin.Core.Pages;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Capture.Blocks;

/// <summary>Cuts the words of a line into the columns of a layout.</summary>
internal sealed class LineCutter(ColumnLayout layout, string? begins, Habits habits)
{
    private readonly List<Word>[] cut = [.. layout.Columns.Select(_ => new List<Word>())];

    /// <summary>Index of the column that is filled where a row begins; -1 if the page has none such.</summary>
    public int Begins { get; } = IndexOf(layout, begins);

    public int Count => layout.Columns.Length;

    /// <summary>How far to the right a column's text was seen, or its hard edge.</summary>
    public double RightOf(int column) => layout.Columns[column].Right;

    /// <summary>Where the block begins and ends from left to right.</summary>
    public (double Left, double Right) Bounds => (layout.Columns[0].Left, layout.Columns[^1].Right);

    /// <summary>The rules of the layout's columns, by index; null for strangers.</summary>
    public ColumnRule? RuleOf(int column) => layout.Columns[column].Rule;

    /// <summary>Where a column's heading is printed, or the column itself where it stands by edges; null if the page has none such.</summary>
    public Box? HeadingOf(string column) => IndexOf(layout, column) is var index and >= 0 ? HeadingOf(index) : null;

    /// <summary>The same of a column by its index; without height where none is printed.</summary>
    public Box HeadingOf(int column) => layout.Columns[column].Heading;

    private static int IndexOf(ColumnLayout layout, string? name)
    {
        for (var column = 0; column < layout.Columns.Length; column++)
        {
            if (layout.Columns[column].Rule is { } rule && rule.Name == name)
                return column;
        }
        return -1;
    }

    /// <summary>Words of an item row by the index of their column.</summary>
    public CutLine Cut(TextLine line)
    {
        foreach (var words in cut)
            words.Clear();
        if (layout.HardEdges)
            CutAtEdges(line);
        else
            CutByCells(line);
        return new CutLine(cut);
    }

    private void CutAtEdges(TextLine line)
    {
        foreach (var word in line.Words)
        {
            var column = ColumnAt(word.Box.CenterX);
            // A word across a ruling is two that touch: cut it at the letter nearest to the edge.
            if (layout.Columns[column].Right is var edge && column + 1 < cut.Length && word.Box.Right > edge + 0.35 * word.Size
                && Straddled(word, edge) is { } split)
            {
                cut[column].Add(word.Part(0, split));
                cut[column + 1].Add(word.Part(split, word.Text.Length - split));
            }
            else
            {
                cut[column].Add(word);
            }
        }
    }

    private static int? Straddled(Word word, double edge)
    {
        var at = 0;
        while (at < word.Stops.Length && word.Stops.Span[at] <= edge + 0.5)
            at++;
        return at > 0 && at < word.Text.Length ? at : null;
    }

    private int ColumnAt(double x)
    {
        var nearest = 0;
        for (var column = 1; column < layout.Columns.Length; column++)
        {
            if (layout.Columns[column].Apart(x, x) < layout.Columns[nearest].Apart(x, x))
                nearest = column;
        }
        return nearest;
    }

    /// <summary>A cell within one column's span goes there whole; one across several is shared out word by word.</summary>
    private void CutByCells(TextLine line)
    {
        var words = line.Words.AsSpan();
        List<(int Start, int End, int First, int Last)>? across = null;
        for (var (start, end) = (0, 0); start < words.Length; start = end)
        {
            end = EndOfCell(words, start);
            var (first, last) = ColumnsUnder(BoxOf(words[start..end]));
            if (IsLeftEdgeMark(words, start, start) && end == start + 1 && ColumnsUnder(BoxOf(words[end..EndOfCell(words, end)])) is var right && HoldsMoney(right.Last))
                first = last = right.Last;
            if (first == last)
                cut[first].AddRange(words[start..end]);
            else
                (across ??= []).Add((start, end, first, last));
        }
        if (across is null)
            return;
        // Cells that stand in one column come first: what they fill need not be filled by the others.
        foreach (var (start, end, first, last) in across)
            ShareOut(words[start..end], first, last);
        foreach (var column in cut)
            column.Sort((a, b) => a.Box.Left.CompareTo(b.Box.Left));
    }

    private void ShareOut(ReadOnlySpan<Word> cell, int first, int last)
    {
        var words = GluedWords.Part(cell, habits);
        var assigned = WordAssignment.Assign(
            words, layout.Columns.AsSpan()[first..(last + 1)], habits, filled: column => cut[first + column].Count > 0);
        for (var word = 0; word < words.Length; word++)
        {
            var column = cut[first + assigned[word]];
            // Parted for nothing: both parts went to one column.
            if (word > 0 && assigned[word] == assigned[word - 1] && words[word].IsGluedTo(words[word - 1]))
                column[^1] = column[^1].JoinedWith(words[word]);
            else
                column.Add(words[word]);
        }
    }

    /// <summary>
    /// Index after the last word of the cell that begins at a word. A currency's sign at the left edge of its cell, far from
    /// its figure, begins a cell also where the column on its left is near: <c>20% £      12.00</c>.
    /// </summary>
    private int EndOfCell(ReadOnlySpan<Word> words, int start)
    {
        var end = start + 1;
        while (end < words.Length && !TextLine.IsCellGap(words[end - 1], words[end]) && !IsLeftEdgeMark(words, end, start))
            end++;
        return end;
    }

    /// <summary>Says that a word is a mark of the invoice's currency that belongs to the figure a gap away on its right.</summary>
    /// <param name="start">Index of the first word that stands close before it, or its own.</param>
    private bool IsLeftEdgeMark(ReadOnlySpan<Word> words, int at, int start)
    {
        if (words[at].Text.Length > LongestMark || at + 1 >= words.Length || !TextLine.IsCellGap(words[at], words[at + 1]) || !habits.Currency.CanBePrintedAs(words[at].Text)
            || !(words[at + 1].Text.AsSpan().ContainsAnyInRange('0', '9') || Printed.IsDash(words[at + 1].Text)))
            return false;
        if (start == at)
            return true;
        // A code or a word, as kr, ends a text as well ("Voucher 50 EUR      2"), and any mark an amount ("12,00 €      24,00 €").
        return !char.IsLetter(words[at].Text[0])
            && !(char.IsAsciiDigit(words[at - 1].Text[^1]) && HoldsMoney(ColumnsUnder(BoxOf(words[start..at])).Last));
    }

    /// <summary>Marks are signs, codes of three letters, and words as short as these.</summary>
    private const int LongestMark = 3;

    private bool HoldsMoney(int column) => layout.Columns[column].HoldsMoney;

    private static Box BoxOf(ReadOnlySpan<Word> words) => words[0].Box.Union(words[^1].Box);

    private (int First, int Last) ColumnsUnder(Box box)
    {
        var (first, last) = (-1, -1);
        for (var column = 0; column < layout.Columns.Length; column++)
        {
            if (layout.Columns[column].Shared(box.Left, box.Right) <= 0)
                continue;
            first = first < 0 ? column : first;
            last = column;
        }
        return first < 0 ? (Nearest(box), Nearest(box)) : (first, last);
    }

    private int Nearest(Box box)
    {
        var nearest = 0;
        for (var column = 1; column < layout.Columns.Length; column++)
        {
            if (layout.Columns[column].Apart(box.Left, box.Right) < layout.Columns[nearest].Apart(box.Left, box.Right))
                nearest = column;
        }
        return nearest;
    }

    /// <summary>How far left of its column's text a wrapped line may begin, in points.</summary>
    private const double Outdent = 3;

    /// <summary>How far right of its column's text a wrapped line may begin, in points: an indent, no more.</summary>
    private const double Indent = 30;

    /// <summary>Says that a wrapped line of a column may begin where a cell does; further in, it is something else.</summary>
    public bool MayBegin(int column, Box cell) => layout.HardEdges || cell.Left <= layout.Columns[column].Left + Indent;

    /// <summary>The column that a cell of a wrapped line belongs to: the last one that begins at or before the cell.</summary>
    public int ColumnOfWrapped(Box cell)
    {
        if (layout.HardEdges)
            return ColumnAt(Math.Min(cell.CenterX, cell.Left + 6));
        var column = 0;
        for (var next = 1; next < layout.Columns.Length; next++)
        {
            if (layout.Columns[next].Left - Outdent <= cell.Left)
                column = next;
        }
        return column;
    }
}
