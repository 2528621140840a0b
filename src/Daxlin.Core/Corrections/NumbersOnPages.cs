using Daxlin.Core.Capture;
using Daxlin.Core.Pages;
using Daxlin.Core.Values;

namespace Daxlin.Core.Corrections;

/// <summary>All numbers that are printed on an invoice, by what they come to.</summary>
internal sealed class NumbersOnPages
{
    private readonly Dictionary<decimal, List<PlaceOnPage>> places = [];

    /// <summary>So many words may make one number: a mark, the figures before a blank that groups them, those behind it.</summary>
    private const int MostWords = 3;

    /// <param name="taken">Places of captured values, which say already what they are.</param>
    public NumbersOnPages(IEnumerable<PrintedLine> lines, Habits habits, IEnumerable<PlaceOnPage> taken)
    {
        var boxes = taken.ToLookup(place => place.Page, place => place.Box);
        foreach (var (page, words) in lines)
        {
            for (var first = 0; first < words.Length; first++)
            {
                var (text, box) = (words[first].Text, words[first].Box);
                Add(text, new PlaceOnPage(page, box), habits, boxes);
                for (var last = first + 1; last < Math.Min(words.Length, first + MostWords) && words[last].Box.Left - box.Right < box.Height; last++)
                {
                    (text, box) = (text + " " + words[last].Text, box.Union(words[last].Box));
                    Add(text, new PlaceOnPage(page, box), habits, boxes);
                }
            }
        }
    }

    /// <summary>Where a number is printed that nothing was captured from: in the row's own line if it is one of a row.</summary>
    /// <param name="beside">The row that it must stand beside; null for anywhere.</param>
    public PlaceOnPage? Find(decimal number, PlaceOnPage? beside)
    {
        foreach (var place in places.GetValueOrDefault(number) ?? [])
        {
            if (beside is not { } row || (row.Page == place.Page && place.Box.Top < row.Box.Bottom && place.Box.Bottom > row.Box.Top))
                return place;
        }
        return null;
    }

    private void Add(string text, PlaceOnPage place, Habits habits, ILookup<int, Box> taken)
    {
        if (!text.AsSpan().ContainsAnyInRange('0', '9') || NumberReader.Read(text.TrimEnd('%', ' '), habits) is not { Number: { } number })
            return;
        if (taken[place.Page].Any(other => other.Left < place.Box.Right && other.Right > place.Box.Left && other.Top < place.Box.Bottom && other.Bottom > place.Box.Top))
            return;
        if (!places.TryGetValue(number, out var known))
            places[number] = known = [];
        known.Add(place);
    }
}
