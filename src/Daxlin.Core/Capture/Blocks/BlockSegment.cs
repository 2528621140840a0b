using Daxlin.Core.Pages;

namespace Daxlin.Core.Capture.Blocks;

/// <summary>The part of a block on one page.</summary>
/// <param name="Start">Index of its first line on the page.</param>
/// <param name="End">Index after its last line; the number of the page's lines if the block goes on on the next page.</param>
/// <param name="BelowHeadings">
/// Says that headings stand above. A row right below them is a row even where it repeats itself page by page.
/// </param>
/// <param name="Cutter">Cuts the lines that rows begin on.</param>
/// <param name="Below">Cuts the second line of records that have two; null where they have one.</param>
internal sealed record BlockSegment(Page Page, int Start, int End, bool BelowHeadings, LineCutter Cutter, LineCutter? Below)
{
    public bool GoesOn => End == Page.Lines.Length;
}
