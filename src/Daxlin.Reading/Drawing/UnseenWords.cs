using System.Collections.Immutable;
using Daxlin.Core.Pages;

namespace Daxlin.Reading.Drawing;

/// <summary>Gathers the letters of a page that a person does not see, and makes words of them.</summary>
internal sealed class UnseenWords(DrawnPage page)
{
    private readonly SortedDictionary<(UnseenBy Why, Direction Direction), List<Letter>> letters = [];

    public void Add(Letter letter, Direction direction, UnseenBy why)
    {
        if (!letters.TryGetValue((why, direction), out var alike))
            letters[(why, direction)] = alike = [];
        alike.Add(letter);
    }

    public ImmutableArray<UnseenWord> Words(WordStore store)
    {
        var found = ImmutableArray.CreateBuilder<UnseenWord>();
        foreach (var ((why, direction), alike) in letters)
        {
            var words = ImmutableArray.CreateBuilder<Word>();
            WordBuilder.AddWords(alike, Turn.Upright, store, words);
            found.AddRange(words.Select(word => new UnseenWord(word.Text, PdfReader.TurnedBox(word.Box, direction, page.Height), why)));
        }
        found.AddRange(page.Claims.Select(claim => new UnseenWord(claim.Claimed, BoxOf(claim.At), UnseenBy.Claimed, claim.Drawn)));
        return found.DrainToImmutable();
    }

    private Box BoxOf(DrawnLetter letter) => new(letter.Start.X, page.Height - letter.Start.Y - letter.Size, Math.Max(letter.End.X, letter.Start.X), page.Height - letter.Start.Y);
}
