using System.Collections.Immutable;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Drafting;

/// <summary>Tells headings between the rows from wrapped text and from lists under the rows.</summary>
internal static class SectionDraft
{
    /// <summary>Headings stand before more than one row each, on the whole.</summary>
    private const double MostHeadingsARow = 0.6;

    /// <summary>Or well apart from their row, in sizes of the type from line to line; wrapped text stands at 1.1 to 1.4.</summary>
    private const double Apart = 1.5;

    /// <summary>Says that what a plan carries onto the rows reads like headings on all samples that have some.</summary>
    public static bool AreHeadings(DraftPlan plan, ImmutableArray<Sample> samples)
    {
        var invoices = DraftTrial.Take(plan, samples);
        for (var index = 0; index < invoices.Length; index++)
        {
            var lines = invoices[index].Captured.Lines;
            if (lines.IsEmpty)
                return false;
            var places = lines.Select(line => line.Find(TradeNames.Section)?.Trace.Places is [var place, ..] ? place : (Capture.PlaceOnPage?)null).ToList();
            var headings = places.OfType<Capture.PlaceOnPage>().Distinct().ToList();
            if (headings.Count <= MostHeadingsARow * lines.Length)
                continue;
            var distances = new List<double>();
            foreach (var heading in headings)
            {
                var row = lines[places.IndexOf(heading)];
                var first = row.Cells.Where(cell => cell.Name != TradeNames.Section).SelectMany(cell => cell.Trace.Places).Where(place => place.Page == heading.Page).Select(place => place.Box.Bottom).DefaultIfEmpty(heading.Box.Bottom + 100).Min();
                distances.Add((first - heading.Box.Bottom) / Math.Max(1, heading.Box.Height));
            }
            if (distances.Count > 0 && distances.Min() < Apart)
                return false;
        }
        return true;
    }
}
