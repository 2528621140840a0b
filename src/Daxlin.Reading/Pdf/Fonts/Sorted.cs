namespace Daxlin.Reading.Pdf.Fonts;

/// <summary>Ranges in the order in which they begin, which do not overlap.</summary>
internal static class Sorted
{
    /// <returns>The range that holds a number; null if none does.</returns>
    public static T? Find<T>(List<T> ranges, uint number, Func<T, uint> first, Func<T, uint> last)
        where T : struct
    {
        var (low, high) = (0, ranges.Count - 1);
        while (low <= high)
        {
            var middle = (low + high) / 2;
            if (number < first(ranges[middle]))
                high = middle - 1;
            else if (number > last(ranges[middle]))
                low = middle + 1;
            else
                return ranges[middle];
        }
        return null;
    }
}
