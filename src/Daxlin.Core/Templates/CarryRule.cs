using System.Text.RegularExpressions;

namespace Daxlin.Core.Templates;

/// <summary>A column whose text stands on a line of its own and holds for all rows below until the next.</summary>
/// <param name="Column">The name of the column that it becomes.</param>
/// <param name="Pattern">What such a line matches (its first group is taken), or null for any line that begins in <paramref name="BeginsIn"/>.</param>
/// <param name="BeginsIn">The column under whose heading such a line begins, or null.</param>
/// <param name="InPageHead">Says that it stands above the block on its page, not between the rows.</param>
public sealed record CarryRule(string Column, Regex? Pattern, string? BeginsIn, bool InPageHead);
