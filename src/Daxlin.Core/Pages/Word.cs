namespace Daxlin.Core.Pages;

/// <summary>Letters that a person reads as one word.</summary>
/// <param name="Text">The letters, ligatures written out (one "ﬁ" drawn is "fi" here).</param>
/// <param name="Box">From the first letter's start to the last one's end; as high as the type is large.</param>
/// <param name="Baseline">The height on which the letters stand, in points from the top of the page.</param>
/// <param name="Size">The size of the type, in points.</param>
/// <param name="Stops">
/// The right edge of each character of <paramref name="Text"/>, in points. A part of one array for many words, since there
/// are half a million words in a long batch and each object costs the collector time.
/// </param>
/// <param name="Turn">Which way the word runs.</param>
public sealed record Word(string Text, Box Box, double Baseline, double Size, ReadOnlyMemory<double> Stops, Turn Turn)
{
    /// <summary>Says that letters of it lie over each other, so that nobody can tell what it says.</summary>
    public bool IsOverprinted { get; init; }

    /// <summary>How it was read in a picture; null for a word of a text layer.</summary>
    public WordReading? Reading { get; init; }

    /// <summary>The box of a run of this word's characters.</summary>
    public Box BoxOf(int start, int length) => Box with
    {
        Left = start == 0 ? Box.Left : Stops.Span[start - 1],
        Right = Stops.Span[start + length - 1],
    };

    /// <summary>Says that the word stands where another ends, as the second part of one that was cut.</summary>
    public bool IsGluedTo(Word left) => Box.Left == left.Box.Right && Baseline == left.Baseline;

    /// <summary>This word and the part after it as one.</summary>
    public Word JoinedWith(Word next) => this with { Text = Text + next.Text, Box = Box.Union(next.Box), Stops = (double[])[.. Stops.Span, .. next.Stops.Span] };

    /// <summary>A run of this word's characters as a word of its own.</summary>
    /// <example>"onlyGBP" is cut into "only" and "GBP" where a description runs into the price.</example>
    public Word Part(int start, int length) => this with
    {
        Text = Text.Substring(start, length),
        Box = BoxOf(start, length),
        Stops = Stops.Slice(start, length),
    };
}
