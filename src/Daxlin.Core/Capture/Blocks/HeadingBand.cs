using System.Collections.Immutable;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Capture.Blocks;

/// <summary>The printed headings of a block on a page: one to three lines.</summary>
/// <param name="Headings">The template's columns that were found, from left to right.</param>
/// <param name="Strangers">Headings in the band that the template does not speak of.</param>
/// <param name="Missing">Columns whose heading is not in the band.</param>
/// <param name="EndLine">Index of the first line below the band.</param>
internal sealed record HeadingBand(
    ImmutableArray<(ColumnRule Rule, Box Box)> Headings,
    ImmutableArray<Box> Strangers,
    ImmutableArray<ColumnRule> Missing,
    Box Box,
    int EndLine)
{
    /// <summary>Says that no heading is missing that an invoice must have.</summary>
    public bool IsWhole => Missing.All(column => column.Optional) && !Headings.IsEmpty;

    /// <summary>
    /// The band for each printed line of a record: one, or two where headings of different columns stand one over the other.
    /// </summary>
    /// <remarks>
    /// "Amount" over "VAT %" are two columns in one place, so each record has two lines, the upper headings' and the lower
    /// ones'. Headings that merely stand on different heights are those of one line.
    /// </remarks>
    public ImmutableArray<HeadingBand> Layers
    {
        get
        {
            var over = Headings.SelectMany(upper => Headings.Where(lower => lower.Box.Top >= upper.Box.Bottom - Touch && lower.Box.SharedWidth(upper.Box) > 0)
                .Select(lower => (upper, lower))).ToList();
            if (over.Count == 0)
                return [this];
            var middle = (over.Max(pair => pair.upper.Box.CenterY) + over.Min(pair => pair.lower.Box.CenterY)) / 2;
            return [Part(box => box.CenterY < middle), Part(box => box.CenterY >= middle)];
        }
    }

    /// <summary>Boxes as high as the type may touch a little where lines are set closely, in points.</summary>
    private const double Touch = 1;

    private HeadingBand Part(Func<Box, bool> holds) =>
        this with { Headings = [.. Headings.Where(heading => holds(heading.Box))], Strangers = [.. Strangers.Where(holds)] };

    /// <summary>Two neighbours that the template has the other way round, or null if all are in its order.</summary>
    public (ColumnRule Left, ColumnRule Right)? OutOfOrder(ImmutableArray<ColumnRule> columns)
    {
        if (Layers is [var upper, var lower])
            return upper.OutOfOrder(columns) ?? lower.OutOfOrder(columns);
        for (var heading = 1; heading < Headings.Length; heading++)
        {
            var (left, right) = (Headings[heading - 1], Headings[heading]);
            // Headings one over the other are in no order from left to right.
            if (left.Box.SharedWidth(right.Box) == 0 && columns.IndexOf(left.Rule) > columns.IndexOf(right.Rule))
                return (left.Rule, right.Rule);
        }
        return null;
    }
}
