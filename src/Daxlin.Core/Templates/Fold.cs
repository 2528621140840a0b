namespace Daxlin.Core.Templates;

/// <summary>How wrapped text of a column is joined to its row.</summary>
public enum Fold
{
    /// <summary>It does not wrap; more lines in it are a finding.</summary>
    None,

    /// <summary>Lines below the row's first line belong to it.</summary>
    Down,

    /// <summary>As <see cref="Down"/>, and lines of their own as well that repeat row by row: "Size B5", "Made in March".</summary>
    AllDown,

    /// <summary>Lines above the line with the figures belong to it.</summary>
    Up,

    /// <summary>Lines above and below belong to it: the figures stand at half the height of the text.</summary>
    Around,
}
