using System.Runtime.InteropServices;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Capture.Fields;

/// <summary>Finds the texts that stand by a cue.</summary>
/// <remarks>
/// A cue that is a caption of its own counts before one that is part of a longer caption: "Total" stands for itself in
/// <c>Total | 120.00</c>, not in <c>Total discount | 4.00</c> nor in <c>Goods total | 100.00</c>. The longer captions are
/// looked at only if nothing else has a value.
/// </remarks>
internal static class CueCandidates
{
    /// <summary>What may stand between a cue and its value, or after a caption.</summary>
    private static readonly char[] Punctuation = [':', '.', '-', '–', '#', '=', '>', ';', '°'];

    private readonly record struct CueSpot(Page Page, CuePlace Place, int Rank)
    {
        public int Line => Place.Line;
    }

    /// <summary>For each place of the cue, in reading order within the best rank, the texts in its reach.</summary>
    public static IEnumerable<IEnumerable<Printed>> Find(ByCue rule, InvoicePages pages)
    {
        var spots = new List<CueSpot>();
        foreach (var page in pages.PagesIn(rule.OnPages))
        {
            foreach (var place in rule.Cue.PlacesOn(page))
                spots.Add(new CueSpot(page, place, RankOf(rule, page.Lines[place.Line], place)));
        }
        if (spots.Count == 0)
            spots.AddRange(pages.PagesIn(rule.OnPages).SelectMany(page => Stacked(rule, page)));
        if (spots.Count == 0)
            return [];
        // A lower rank is looked at only if no better one exists, or the template counts occurrences itself.
        var best = spots.Min(spot => spot.Rank);
        return spots.Where(spot => rule.Occurrence != 0 || spot.Rank == best)
            .OrderBy(spot => spot.Page.Number).ThenBy(spot => spot.Line).ThenBy(spot => spot.Place.FirstWord)
            .Select(spot => Within(rule, Near(rule, spot)));
    }

    /// <summary>A caption over several lines: its value may stand beside any of them, or under the last.</summary>
    private static IEnumerable<CueSpot> Stacked(ByCue rule, Page page) => rule.Cue.StackedOn(page)
        .Select(stacked => new CueSpot(page, (rule.Side == Side.Under ? stacked.Last : stacked.First) with { Box = stacked.Box }, 0));

    private static IEnumerable<Printed> Within(ByCue rule, IEnumerable<Printed> found) => rule.Within is not { } box ? found
        : found.Where(printed => printed.Places.All(place => box.HoldsCenterOf(place.Box)));

    private static int RankOf(ByCue rule, TextLine line, CuePlace place)
    {
        var startsCell = place.FirstChar == 0 && (place.FirstWord == 0 || IsCellGap(line, place.FirstWord));
        var rest = RestOfCell(line, place);
        var caption = rest.Count == 0 || (rule.Side is Side.Beside && !char.IsLetter(rest[0].Text[0]))
            || (rule.Side is Side.Beside && EndsInColon(line, place));
        return (startsCell ? 0 : 1) + (caption ? 0 : 2);
    }

    private static bool EndsInColon(TextLine line, CuePlace place)
    {
        var word = line.Words[place.LastWord].Text;
        return place.EndChar < word.Length ? word[place.EndChar] is ':' or '#' : word[place.EndChar - 1] is ':' or '#' or '.';
    }

    private static bool IsCellGap(TextLine line, int word) => TextLine.IsCellGap(line.Words[word - 1], line.Words[word]);

    /// <summary>The words after the cue in its own cell, without the punctuation between.</summary>
    private static List<Word> RestOfCell(TextLine line, CuePlace place)
    {
        var rest = new List<Word>();
        var last = line.Words[place.LastWord];
        if (place.EndChar < last.Text.Length)
            rest.Add(last.Part(place.EndChar, last.Text.Length - place.EndChar));
        for (var word = place.LastWord + 1; word < line.Words.Length && !IsCellGap(line, word); word++)
            rest.Add(line.Words[word]);
        while (rest.Count > 0 && rest[0].Text.Trim(Punctuation).Length == 0 && !(rest.Count > 1 && rest[0].Text == "-"))
            rest.RemoveAt(0);
        if (rest.Count > 0)
        {
            var skip = rest[0].Text.Length - rest[0].Text.TrimStart(':', '#', '=', '>', ';').Length;
            if (skip > 0)
                rest[0] = rest[0].Part(skip, rest[0].Text.Length - skip);
        }
        return rest;
    }

    private static IEnumerable<Printed> Near(ByCue rule, CueSpot spot) => rule.Side switch
    {
        Side.Beside => Beside(rule, spot),
        Side.Before => Before(rule, spot),
        Side.Under => InColumn(rule, spot, down: true),
        _ => InColumn(rule, spot, down: false),
    };

    /// <summary>The rest of the cue's cell, then the cells to the right; on lines that share the cue's height.</summary>
    private static IEnumerable<Printed> Beside(ByCue rule, CueSpot spot)
    {
        var line = spot.Page.Lines[spot.Line];
        var rest = RestOfCell(line, spot.Place);
        if (rest.Count > 0)
            yield return TextBlock.From(rule, spot.Page, spot.Line, CollectionsMarshal.AsSpan(rest));
        var right = CellsBy(spot)
            .Where(cell => cell.Cell.Box.Left >= spot.Place.Box.Right && cell.Cell.Box.Left - spot.Place.Box.Right <= rule.Reach)
            .OrderBy(cell => cell.Cell.Box.Left);
        foreach (var (cell, of) in right)
            yield return TextBlock.From(rule, spot.Page, of, cell.Words);
    }

    private static IEnumerable<Printed> Before(ByCue rule, CueSpot spot)
    {
        var line = spot.Page.Lines[spot.Line];
        var own = line.Words[..spot.Place.FirstWord];
        if (!own.IsEmpty && !IsCellGap(line, spot.Place.FirstWord))
            yield return Printed.Of(line.Page, TextLine.PartIntoCells(own)[^1].Words);
        var left = CellsBy(spot)
            .Where(cell => cell.Cell.Box.Right <= spot.Place.Box.Left && spot.Place.Box.Left - cell.Cell.Box.Right <= rule.Reach)
            .OrderByDescending(cell => cell.Cell.Box.Right);
        foreach (var (cell, _) in left)
            yield return Printed.Of(line.Page, cell.Words);
    }

    /// <summary>
    /// Cells whose height overlaps the cue's by half, on its own line or one printed a little higher or lower, each with
    /// the index of its line.
    /// </summary>
    private static IEnumerable<(Cell Cell, int Line)> CellsBy(CueSpot spot)
    {
        var lines = spot.Page.Lines;
        for (var index = Math.Max(0, spot.Line - 2); index <= Math.Min(lines.Length - 1, spot.Line + 3); index++)
        {
            var cueHeight = Math.Min(spot.Place.Box.Height, lines[spot.Line].Words[spot.Place.FirstWord].Box.Height);
            if (index != spot.Line && lines[index].Box.SharedHeight(spot.Place.Box) < 0.5 * cueHeight)
                continue;
            foreach (var cell in lines[index].Cells)
            {
                if (index == spot.Line || cell.Box.SharedHeight(spot.Place.Box) >= 0.5 * Math.Min(cueHeight, cell.Box.Height))
                    yield return (cell, index);
            }
        }
    }

    /// <summary>The nearest cell below or above that shares some width with the cue.</summary>
    private static IEnumerable<Printed> InColumn(ByCue rule, CueSpot spot, bool down)
    {
        var lines = spot.Page.Lines;
        var step = down ? 1 : -1;
        for (var index = spot.Line + step; index >= 0 && index < lines.Length; index += step)
        {
            var gap = down ? lines[index].Box.Top - spot.Place.Box.Bottom : spot.Place.Box.Top - lines[index].Box.Bottom;
            if (gap > rule.Reach)
                yield break;
            // Lines may overlap in height where two columns of text are set independently.
            if (gap < -0.5 * spot.Place.Box.Height)
                continue;
            var best = lines[index].Cells.MaxBy(cell => cell.Box.SharedWidth(spot.Place.Box));
            if (best.Box.SharedWidth(spot.Place.Box) > 0.5)
            {
                if (down && Captions.StandsApartFromNeighbours(spot.Page, spot.Line, spot.Place.Box, index))
                    yield break;
                yield return TextBlock.From(rule, spot.Page, index, best.Words);
                yield break;
            }
        }
    }
}
