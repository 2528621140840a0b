using Daxlin.Core.Pages;

namespace Daxlin.Reading.Recognising;

/// <summary>A word in a picture with what two recognisers make of it.</summary>
/// <param name="First">What the first sees; its letters say where each stands.</param>
/// <param name="Text">What is taken for the time being.</param>
/// <param name="Size">The size of the type, in dots.</param>
/// <param name="Baseline">In dots from the top.</param>
internal sealed record TwiceRead(RecognisedWord First, string Text, double Size, double Baseline, WordReading Reading)
{
    /// <param name="point">Points of the page a dot.</param>
    /// <returns>One word; several where blanks stand in what was taken.</returns>
    public IEnumerable<Word> ToWords(double point)
    {
        var stops = Stops(point);
        for (var start = 0; start < Text.Length;)
        {
            var end = Text.IndexOf(' ', start) is >= 0 and var blank ? blank : Text.Length;
            if (end > start)
            {
                var left = start == 0 ? First.Box.Left * point : stops[start - 1];
                var (baseline, size) = (Baseline * point, Size * point);
                yield return new Word(Text[start..end], new Box(left, baseline - (0.75 * size), stops[end - 1], baseline + (0.22 * size)), baseline, size, stops.AsMemory(start, end - start), Turn.Upright)
                {
                    Reading = Reading with { Others = [.. Reading.Others.Select(other => PartOf(other, Text.AsSpan(0, start).Count(' '))).Where(other => other != Text[start..end])] },
                };
            }
            start = end + 1;
        }
    }

    /// <summary>The part of another reading that is meant for a word of several; all of it where that has not as many.</summary>
    private string PartOf(string other, int index) =>
        other.Split(' ') is var parts && parts.Length == Text.Count(letter => letter == ' ') + 1 ? parts[index] : other;

    /// <summary>Where each letter ends, in points.</summary>
    private double[] Stops(double point)
    {
        var stops = new double[Text.Length];
        if (string.Concat(First.Letters.Select(letter => letter.Text)) == Text)
        {
            var at = 0;
            foreach (var (text, box) in First.Letters)
            {
                for (var part = 1; part <= text.Length; part++)
                    stops[at++] = (box.Left + (box.Width * part / text.Length)) * point;
            }
        }
        else
        {
            // Where the other reading was taken, nobody says where its letters stand: they share the word's width.
            for (var at = 0; at < stops.Length; at++)
                stops[at] = (First.Box.Left + (First.Box.Width * (at + 1) / stops.Length)) * point;
        }
        for (var at = 0; at < stops.Length; at++)
            stops[at] = Math.Clamp(stops[at], at == 0 ? First.Box.Left * point : stops[at - 1], First.Box.Right * point);
        stops[^1] = First.Box.Right * point;
        return stops;
    }
}
