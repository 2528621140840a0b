using System.Collections.Immutable;
using Daxlin.Core.Pages;

namespace Daxlin.Core.Capture.Blocks;

/// <summary>The words of a line by the column of the layout that they stand in, each column's from left to right.</summary>
internal readonly struct CutLine
{
    private readonly Word[] words;
    private readonly int[] ends;

    /// <param name="columns">Words by the index of their column.</param>
    public CutLine(List<Word>[] columns)
    {
        words = new Word[columns.Sum(column => column.Count)];
        ends = new int[columns.Length];
        var at = 0;
        for (var column = 0; column < columns.Length; column++)
        {
            columns[column].CopyTo(words, at);
            ends[column] = at += columns[column].Count;
        }
    }

    /// <summary>How many columns the layout has.</summary>
    public int Columns => ends.Length;

    public ReadOnlySpan<Word> this[int column] => words.AsSpan((column == 0 ? 0 : ends[column - 1])..ends[column]);

    public bool Has(int column) => ends[column] > (column == 0 ? 0 : ends[column - 1]);
}
