using Daxlin.Core.Pages;

namespace Daxlin.Reading.Pictures;

/// <summary>Finds the spots of ink on a page: pieces whose dots touch, as a letter's do.</summary>
internal static class InkSpots
{
    /// <summary>A dot that is darker is ink; 0 is black, 255 white.</summary>
    public const int Dark = 150;

    /// <summary>The boxes around all spots, in dots.</summary>
    public static List<Box> Of(GreyPicture page)
    {
        var runs = new List<(int Y, int Left, int Right)>();
        var parents = new List<int>();
        var (above, aboveEnd) = (0, 0);
        for (var y = 0; y < page.Height; y++)
        {
            var row = page.Row(y);
            var (begun, first, over) = (-1, runs.Count, above);
            for (var x = 0; x <= row.Length; x++)
            {
                var isInk = x < row.Length && row[x] < Dark;
                if (isInk && begun < 0)
                    begun = x;
                if (isInk || begun < 0)
                    continue;
                var own = runs.Count;
                runs.Add((y, begun, x));
                parents.Add(own);
                // Dots that touch at a corner belong together, too.
                while (over < aboveEnd && runs[over].Right < begun)
                    over++;
                for (var other = over; other < aboveEnd && runs[other].Left <= x; other++)
                    Join(parents, own, other);
                begun = -1;
            }
            (above, aboveEnd) = (first, runs.Count);
        }
        var boxes = new Dictionary<int, Box>();
        for (var index = 0; index < runs.Count; index++)
        {
            var (y, left, right) = runs[index];
            var box = new Box(left, y, right, y + 1);
            var root = RootOf(parents, index);
            boxes[root] = boxes.TryGetValue(root, out var known) ? known.Union(box) : box;
        }
        return [.. boxes.Values];
    }

    private static int RootOf(List<int> parents, int index)
    {
        while (parents[index] != index)
            index = parents[index] = parents[parents[index]];
        return index;
    }

    private static void Join(List<int> parents, int one, int other)
    {
        var (a, b) = (RootOf(parents, one), RootOf(parents, other));
        if (a != b)
            parents[Math.Max(a, b)] = Math.Min(a, b);
    }
}
