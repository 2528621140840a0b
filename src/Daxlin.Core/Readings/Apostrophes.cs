using Daxlin.Core.Pages;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Readings;

/// <summary>Writes the apostrophes between figures as a template's patterns do.</summary>
/// <remarks>
/// A recogniser sees a small stroke above the line and says ' or ’ as it likes; a pattern that was written from a text layer says which of the two the vendor prints. A template whose
/// patterns say both, or neither, leaves them as they are.
/// </remarks>
/// <example>"1'272.29" is written "1’272.29" where the template says <c>[\d.’]+</c>.</example>
internal static class Apostrophes
{
    private const char Plain = '\'';
    private const char Curled = '\u2019';

    public static Page AsIn(Template template, Page page)
    {
        if (!page.IsRecognised || Wanted(template) is not { } wanted)
            return page;
        var other = wanted == Plain ? Curled : Plain;
        foreach (var word in page.Words.Where(word => word.Text.Contains(other, StringComparison.Ordinal) && word.Text.Any(char.IsAsciiDigit)))
            page = page.WithSpelling(word, word.Text.Replace(other, wanted));
        return page;
    }

    private static char? Wanted(Template template)
    {
        var patterns = PatternsOf(template).ToList();
        return (patterns.Exists(pattern => pattern.Contains(Plain, StringComparison.Ordinal)), patterns.Exists(pattern => pattern.Contains(Curled, StringComparison.Ordinal))) switch
        {
            (true, false) => Plain,
            (false, true) => Curled,
            _ => null,
        };
    }

    private static IEnumerable<string> PatternsOf(Template template) =>
        template.Fields.SelectMany(rule => rule.Where).OfType<Matching>().Select(where => where.Pattern.ToString())
            .Concat(template.Blocks.Select(block => block.Row).Select(row => row switch
            {
                BeginsMatching begins => begins.Line.ToString(),
                IsMatch match => match.Line.ToString(),
                _ => "",
            }));
}
