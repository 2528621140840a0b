namespace Daxlin.Core.Templates;

/// <summary>Where the text of a column comes from.</summary>
public abstract record ColumnSource;

/// <summary>It stands under a printed heading.</summary>
/// <param name="Pinned">Its bounds in points from the left, where the template sets them; null where they are found.</param>
public sealed record UnderHeading(Cue Heading, BetweenEdges? Pinned = null) : ColumnSource;

/// <summary>It stands between two bounds, in points from the left of the page.</summary>
public sealed record BetweenEdges(double Left, double Right) : ColumnSource;

/// <summary>It has no heading and stands between the columns that are named before and after it.</summary>
public sealed record BetweenNeighbours : ColumnSource;

/// <summary>Its tidy steps take it from the text of another column.</summary>
public sealed record PartOfColumn(string Column) : ColumnSource;

/// <summary>A named group of the row's pattern.</summary>
public sealed record PatternGroup : ColumnSource;

/// <summary>A constant: a price basis that is said nowhere on the row.</summary>
public sealed record ConstantColumn(string Value) : ColumnSource;

/// <summary>It is looked up in the rows of another block: what a tax code stands for, in a legend.</summary>
/// <param name="Block">The block that is looked up in.</param>
/// <param name="Match">The column of that block which must have this row's value of <paramref name="With"/>.</param>
/// <param name="With">The column of this row that holds the key.</param>
/// <param name="Take">The column of that block that is taken.</param>
public sealed record LookedUp(string Block, string Match, string With, string Take) : ColumnSource;
