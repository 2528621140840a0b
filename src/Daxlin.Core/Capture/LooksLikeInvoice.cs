using Daxlin.Core.Capture.Blocks;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Capture;

/// <summary>Tells a page with items from a cover letter or an annex, which may well bear the vendor's name and the total.</summary>
internal static class LooksLikeInvoice
{
    public static bool Says(Page page, Template template)
    {
        var items = template.Blocks.Where(block => block.HoldsItems).ToList();
        var headed = items.Where(block => block.Columns.Any(column => column.Heading is not null)).ToList();
        if (headed.Count > 0)
            return headed.Any(block => HeadingFinder.Find(page, 0, block.Columns) is { IsWhole: true });
        var opened = items.Where(block => block.Opens is not null).ToList();
        return opened.Count > 0 && opened.Any(block => block.Opens!.IsOn(page));
    }
}
