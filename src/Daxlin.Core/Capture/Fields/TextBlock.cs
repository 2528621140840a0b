using Daxlin.Core.Pages;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Capture.Fields;

/// <summary>Gathers a text of several lines, such as an address, from its first line on.</summary>
internal static class TextBlock
{
    /// <summary>Lines of one block are no further apart than this part of their height.</summary>
    private const double LineGap = 1.0;

    /// <summary>Lines of one block begin no further apart than this, in points.</summary>
    private const double SameLeft = 4;

    /// <summary>The words found, and as many lines below them as the rule asks for; above them for a value above its cue.</summary>
    public static Printed From(ByCue rule, Page page, int line, ReadOnlySpan<Word> words)
    {
        var block = Printed.Of(page.Number, words);
        var step = rule.Side == Side.Above ? -1 : 1;
        var (box, taken) = (block.Places.IsEmpty ? default : block.Places[0].Box, 1);
        for (var index = line + step; taken < rule.Lines && index >= 0 && index < page.Lines.Length; index += step)
        {
            var gap = step > 0 ? page.Lines[index].Box.Top - box.Bottom : box.Top - page.Lines[index].Box.Bottom;
            if (gap > LineGap * box.Height)
                break;
            var near = page.Lines[index].Cells.Where(cell => Math.Abs(cell.Box.Left - box.Left) <= SameLeft)
                .Concat(page.Lines[index].Cells.Where(cell => Math.Abs(cell.Box.Right - box.Right) <= SameLeft))
                .Take(1).ToList();
            if (near is not [var cell])
                continue;
            var more = Printed.Of(page.Number, cell.Words);
            block = step > 0 ? block.Over(more) : more.Over(block);
            // The next line is measured from this one, not from the whole block.
            box = cell.Box with { Left = box.Left, Right = Math.Max(box.Right, cell.Box.Right) };
            taken++;
        }
        return block;
    }
}
