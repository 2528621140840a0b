using System.Collections.Immutable;
using Daxlin.Core.Pages;

namespace Daxlin.Core.Capture;

/// <summary>Turns the places of captured values back to where a person sees them, on pages whose text is drawn turned or lies aslant.</summary>
internal static class SeenPlaces
{
    public static CapturedInvoice Of(CapturedInvoice invoice, ImmutableArray<Page> pages)
    {
        var turned = pages.Where(page => page.Drawn != Drawn.Upright || page.Straightened is not null).ToDictionary(page => page.Number);
        return turned.Count == 0 ? invoice : invoice with
        {
            Fields = [.. invoice.Fields.Select(OfValue)],
            Lines = OfLines(invoice.Lines),
            Taxes = OfLines(invoice.Taxes),
            Others = OfLines(invoice.Others),
            LeftOut = [.. invoice.LeftOut.Select(line => line with { Place = OfPlace(line.Place) })],
            Sums = [.. invoice.Sums.Select(sum => sum with { Place = OfPlace(sum.Place) })],
        };

        ImmutableArray<CapturedLine> OfLines(ImmutableArray<CapturedLine> lines) => [.. lines.Select(line => line with
        {
            Cells = [.. line.Cells.Select(OfValue)],
            Under = [.. line.Under.Select(list => list with { Rows = OfLines(list.Rows) })],
        })];

        CapturedValue OfValue(CapturedValue value) =>
            value with { Trace = value.Trace with { Places = [.. value.Trace.Places.Select(OfPlace)] } };

        PlaceOnPage OfPlace(PlaceOnPage place) =>
            turned.TryGetValue(place.Page, out var page) ? place with { Box = page.AsSeen(place.Box) } : place;
    }
}
