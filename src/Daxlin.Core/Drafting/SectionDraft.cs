using System.Collections.Immutable;
using Daxlin.Core.Capture;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Drafting;

/// <summary>Tells headings between the rows from wrapped text and from lists under the rows.</summary>
internal static class SectionDraft
{
    /// <summary>Headings stand before more than one row each, on the whole.</summary>
    private const double MostHeadingsARow = 0.6;

    /// <summary>Or well apart from their row, in sizes of the type from line to line; wrapped text stands at 1.1 to 1.4.</summary>
    private const double Apart = 1.5;

    /// <summary>How headings are told from text.</summary>
    public enum Kind
    {
        /// <summary>There are none.</summary>
        None,

        /// <summary>They stand well apart from the rows below them.</summary>
        Apart,

        /// <summary>They stand before several rows each.</summary>
        Few,
    }

    /// <summary>Says that what a plan carries onto the rows are headings of a kind, on all samples that have some.</summary>
    public static bool Are(Kind kind, DraftPlan plan, ImmutableArray<Sample> samples)
    {
        foreach (var invoice in DraftTrial.Take(plan, samples))
        {
            var lines = invoice.Captured.Lines;
            if (lines.IsEmpty)
                return false;
            var places = lines.Select(line => line.Find(TradeNames.Section)?.Trace.Places is [var place, ..] ? place : (PlaceOnPage?)null).ToList();
            var headings = places.OfType<PlaceOnPage>().Distinct().ToList();
            if (headings.Count > 0 && !(kind == Kind.Few ? headings.Count <= MostHeadingsARow * lines.Length : headings.TrueForAll(heading => StandsApart(heading, lines[places.IndexOf(heading)]))))
                return false;
        }
        return true;
    }

    private static bool StandsApart(PlaceOnPage heading, CapturedLine row)
    {
        var first = row.Cells.Where(cell => cell.Name != TradeNames.Section).SelectMany(cell => cell.Trace.Places)
            .Where(place => place.Page == heading.Page).Select(place => place.Box.Bottom).DefaultIfEmpty(double.MaxValue).Min();
        return first - heading.Box.Bottom >= Apart * heading.Box.Height;
    }
}
