namespace Daxlin.Core.Drafting;

/// <summary>What a person can say of the item rows by pointing at a word of the page.</summary>
public enum RowMeaning
{
    /// <summary>The word stands in the line of the headings: the block begins below it.</summary>
    Headings,

    /// <summary>The words are the heading of a column.</summary>
    Column,

    /// <summary>The words stand in a column that has no heading.</summary>
    Placed,

    /// <summary>The words open the rows.</summary>
    Opens,

    /// <summary>The words are the first below the rows.</summary>
    Closes,

    /// <summary>The words are a heading between the rows.</summary>
    Section,

    /// <summary>The line is none of the rows.</summary>
    LeaveOut,

    /// <summary>Nothing is pointed at: how rows begin and how their text wraps.</summary>
    Rows,
}
