using Daxlin.Core.Pages;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Capture.Fields;

/// <summary>Tells captions from values where a field's own caption has nothing under it.</summary>
/// <remarks>
/// Under an empty "PURCHASE ORDER NO" the next printed text is the next caption, "SHIP TO". Two things tell it: the template
/// uses the words as a caption itself; and the captions beside the empty one have their values on another height.
/// </remarks>
public sealed class Captions
{
    /// <summary>Lines of one value are no further apart than this part of their height.</summary>
    private const double WithinValue = 1.0;

    private readonly List<(string Field, Cue Cue)> cues = [];

    private Captions(Template template)
    {
        foreach (var rule in template.Fields)
            cues.AddRange(rule.Where.OfType<ByCue>().Select(where => (rule.Name, where.Cue)));
        foreach (var block in template.Blocks)
        {
            cues.AddRange(block.Columns.Select(column => column.Heading).OfType<Cue>().Select(heading => ("", heading)));
            cues.AddRange(block.Closes.Select(cue => ("", cue)));
        }
    }

    public static Captions Of(Template template) => new(template);

    /// <summary>Says that a whole text is what another rule of the template uses as a caption.</summary>
    public bool IsCaptionOfAnother(string text, FieldRule rule)
    {
        if (rule.Kind != ValueKind.Text)
            return false;
        var squashed = SquashedText.Squash(text).TrimEnd(':', '.', '#');
        return cues.Exists(entry => entry.Field != rule.Name && !IsOwn(entry.Cue, rule) && entry.Cue.Spellings.Any(
            spelling => string.Equals(SquashedText.Squash(spelling).TrimEnd(':', '.', '#'), squashed, StringComparison.OrdinalIgnoreCase)));
    }

    private static bool IsOwn(Cue cue, FieldRule rule) => rule.Where.OfType<ByCue>().Any(where => where.Cue.Spellings.Intersect(cue.Spellings).Any());

    /// <summary>
    /// Says that what stands at a height below a caption is none of its values: the captions beside it have theirs
    /// elsewhere, and nothing on that height.
    /// </summary>
    /// <param name="caption">Index of the line of the caption.</param>
    /// <param name="candidate">Index of the line that a value is looked for on.</param>
    public static bool StandsApartFromNeighbours(Page page, int caption, Box own, int candidate)
    {
        var neighbours = page.Lines[caption].Cells.Where(cell => cell.Box.SharedWidth(own) <= 0).ToList();
        var hasValues = false;
        foreach (var neighbour in neighbours)
        {
            var bottom = neighbour.Box.Bottom;
            for (var index = caption + 1; index < page.Lines.Length; index++)
            {
                var under = page.Lines[index].Cells.Where(cell => cell.Box.SharedWidth(neighbour.Box) > 0.5).Take(1).ToList();
                if (under is not [var cell] || cell.Box.Top < neighbour.Box.Top)
                    continue;
                if (cell.Box.Top - bottom > WithinValue * cell.Box.Height)
                    break;
                hasValues = true;
                if (index == candidate || cell.Box.SharedHeight(page.Lines[candidate].Box) > 0.3 * cell.Box.Height)
                    return false;
                bottom = cell.Box.Bottom;
            }
        }
        return hasValues;
    }
}
