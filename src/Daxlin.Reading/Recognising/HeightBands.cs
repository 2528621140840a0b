using Daxlin.Core.Pages;

namespace Daxlin.Reading.Recognising;

/// <summary>Finds what stands near a place without looking at all of a page: things are kept by bands of its height.</summary>
internal sealed class HeightBands<T>
{
    private readonly double band;
    private readonly List<T>[] bands;

    /// <param name="height">Of the page, in dots.</param>
    /// <param name="band">Of one band, in dots.</param>
    public HeightBands(int height, double band, IEnumerable<T> things, Func<T, Box> boxOf)
    {
        this.band = Math.Max(4, band);
        bands = [.. Enumerable.Range(0, (int)(height / this.band) + 1).Select(_ => new List<T>())];
        foreach (var thing in things)
        {
            for (var at = Index(boxOf(thing).Top - this.band); at <= Index(boxOf(thing).Bottom + this.band); at++)
                bands[at].Add(thing);
        }
    }

    private int Index(double height) => Math.Clamp((int)(height / band), 0, bands.Length - 1);

    public IEnumerable<T> Around(Box box) => bands[Index(box.CenterY)];
}
