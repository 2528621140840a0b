using System.Collections.Immutable;

namespace Daxlin.Core.Pages;

/// <summary>One page as a person sees it: turned by its rotation entry, cut to its crop box.</summary>
/// <param name="Number">From 1 within the document.</param>
/// <param name="Width">In points.</param>
/// <param name="Height">In points.</param>
public sealed record Page(
    int Number, double Width, double Height, ImmutableArray<Word> Words, ImmutableArray<Stroke> Strokes)
{
    /// <summary>Which way its text is drawn; all places on it are those of the page turned so that its text stands upright.</summary>
    public Drawn Drawn { get; init; }

    /// <summary>What the file holds for the page and a person does not see.</summary>
    public ImmutableArray<UnseenWord> Unseen { get; init; } = [];

    /// <summary>Says that its words were recognised in a picture, and not read from a text layer.</summary>
    public bool IsRecognised { get; init; }

    /// <summary>Where ink stands on a picture that is part of no word: nobody has read it, whatever it says.</summary>
    public ImmutableArray<Box> Unread { get; init; } = [];

    /// <summary>Takes places on it to where they stand on the picture as it came, which lies aslant; null where it lies straight.</summary>
    public PlaneMap? Straightened { get; init; }

    /// <summary>Where something stands on the page as a person sees it.</summary>
    public Box AsSeen(Box box) => Turned(Straightened?.Of(box) ?? box);

    private Box Turned(Box box) => Drawn switch
    {
        Drawn.Downwards => new(Height - box.Bottom, box.Left, Height - box.Top, box.Right),
        Drawn.Upwards => new(box.Top, Width - box.Right, box.Bottom, Width - box.Left),
        Drawn.UpsideDown => new(Width - box.Right, Height - box.Bottom, Width - box.Left, Height - box.Top),
        _ => box,
    };

    /// <summary>Where something that a person sees stands on the page as it is read: the way back of <see cref="AsSeen"/>.</summary>
    public Box AsRead(Box seen) => Straightened is { } aslant ? aslant.Back.Of(Unturned(seen)) : Unturned(seen);

    private Box Unturned(Box seen) => Drawn switch
    {
        Drawn.Downwards => new(seen.Top, Height - seen.Right, seen.Bottom, Height - seen.Left),
        Drawn.Upwards => new(Width - seen.Bottom, seen.Left, Width - seen.Top, seen.Right),
        Drawn.UpsideDown => Turned(seen),
        _ => seen,
    };

    private ImmutableArray<TextLine> lines;
    private SquashedText? squashed;

    /// <summary>The upright words as lines, from top to bottom.</summary>
    public ImmutableArray<TextLine> Lines => lines.IsDefault ? lines = TextLine.Of(Number, Words) : lines;

    /// <summary>The lines' text without its blanks, to find cues in.</summary>
    public SquashedText Squashed => squashed ??= new SquashedText(Lines);

    /// <summary>The page with another reading in the place of a word's; its letters share the word's width.</summary>
    public Page WithText(Word word, string text)
    {
        var words = text.Length == 0 ? Words.Remove(word) : Words.Replace(word, word with { Text = text, Stops = Shared(word.Box, text.Length), Reading = word.Reading?.Taking(text, word.Text) });
        return With(words);
    }

    /// <summary>The page with a word spelled otherwise, letter for letter.</summary>
    public Page WithSpelling(Word word, string text) => With(Words.Replace(word, word with { Text = text }));

    /// <summary>The page with one word in the place of several that stand beside each other.</summary>
    /// <param name="before">What was read there; it stays as the word's other reading.</param>
    public Page WithWord(ImmutableArray<Word> words, string text, string before)
    {
        var box = words[0].Box.Union(words[^1].Box);
        var word = words[0] with { Text = text, Box = box, Stops = Shared(box, text.Length), Reading = new WordReading([before], IsTwice: false) };
        var kept = ImmutableArray.CreateBuilder<Word>(Words.Length);
        foreach (var one in Words)
        {
            if (ReferenceEquals(one, words[0]))
                kept.Add(word);
            else if (!words.Any(other => ReferenceEquals(one, other)))
                kept.Add(one);
        }
        return With(kept.ToImmutable());
    }

    private Page With(ImmutableArray<Word> words) =>
        new(Number, Width, Height, words, Strokes) { Drawn = Drawn, Unseen = Unseen, IsRecognised = IsRecognised, Unread = Unread, Straightened = Straightened };

    private static double[] Shared(Box box, int letters) => [.. Enumerable.Range(1, letters).Select(at => box.Left + (box.Width * at / letters))];

    /// <summary>What of the page stands between two bounds, in points from the left; words across a bound go where their centre is.</summary>
    public Page Between(double left, double right) => new(
        Number, Width, Height,
        [.. Words.Where(word => word.Box.CenterX >= left && word.Box.CenterX < right)],
        [.. Strokes.Where(stroke => stroke.Box.Right > left && stroke.Box.Left < right)])
    {
        Drawn = Drawn,
        IsRecognised = IsRecognised,
        Unread = [.. Unread.Where(ink => ink.CenterX >= left && ink.CenterX < right)],
        Straightened = Straightened,
    };

    public bool Equals(Page? other) => ReferenceEquals(this, other);

    public override int GetHashCode() => Number;
}
