using Daxlin.Core.Pages;

namespace Daxlin.Testing;

/// <summary>Words as they would be if they were printed elsewhere.</summary>
public static class MovedWord
{
    /// <summary>The word with its left end and its baseline at other places, in points.</summary>
    public static Word At(Word word, double left, double baseline)
    {
        var (right, down) = (left - word.Box.Left, baseline - word.Baseline);
        return word with
        {
            Box = new(word.Box.Left + right, word.Box.Top + down, word.Box.Right + right, word.Box.Bottom + down),
            Baseline = baseline,
            Stops = word.Stops.ToArray().Select(stop => stop + right).ToArray(),
        };
    }
}
