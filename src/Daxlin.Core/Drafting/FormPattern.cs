using System.Text.RegularExpressions;

namespace Daxlin.Core.Drafting;

/// <summary>Patterns for texts like one that is printed: its words stay, its figures are open.</summary>
internal static partial class FormPattern
{
    /// <summary>The text as it is; blanks stay readable.</summary>
    public static string Literally(string text) => Regex.Escape(text).Replace(@"\ ", " ", StringComparison.Ordinal);

    /// <summary>With as many figures as are printed, but any: "HB 47" is <c>HB \d{2}</c>.</summary>
    public static string WithFigures(string text) => Figures().Replace(Literally(text), run => $@"\d{{{run.Length}}}");

    /// <summary>With any number of figures: "Page 7 of 9" is <c>Page \d+ of \d+</c>.</summary>
    public static string WithAnyFigures(string text) => Figures().Replace(Literally(text), @"\d+");

    [GeneratedRegex(@"\d+")]
    private static partial Regex Figures();
}
