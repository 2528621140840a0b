using System.Runtime.InteropServices;
using Daxlin.Core.Pages;
using Daxlin.Core.Values;

namespace Daxlin.Core.Capture.Blocks;

/// <summary>Parts words that are two printed without a gap: a description that runs into its price.</summary>
internal static class GluedWords
{
    /// <summary>
    /// Cuts words before a currency mark that follows a letter or figure: "onlyGBP" and "hand€12.00"; and before an amount
    /// that follows a word: "overnight1,204.50".
    /// </summary>
    /// <remarks>A code is cut off only in capitals and after a small letter, figure or sign, so "STAFFEUR" stays whole.</remarks>
    public static ReadOnlySpan<Word> Part(ReadOnlySpan<Word> words, Habits habits)
    {
        List<Word>? parted = null;
        for (var index = 0; index < words.Length; index++)
        {
            var cut = CutOf(words[index].Text, index + 1 < words.Length, habits.Currency) is > 0 and var at
                ? at : BeforeAmount(words[index].Text, habits);
            if (cut > 0 && parted is null)
            {
                parted = new List<Word>(words.Length + 1);
                parted.AddRange(words[..index]);
            }
            if (cut > 0)
            {
                parted!.Add(words[index].Part(0, cut));
                parted.Add(words[index].Part(cut, words[index].Text.Length - cut));
            }
            else
            {
                parted?.Add(words[index]);
            }
        }
        return parted is null ? words : CollectionsMarshal.AsSpan(parted);
    }

    /// <summary>Where an amount with its decimals begins behind at least two letters; 0 if there is none.</summary>
    private static int BeforeAmount(string text, Habits habits)
    {
        var decimals = habits.Currency.MinorDigits;
        if (decimals == 0 || text.Length < decimals + 4 || text[^(decimals + 1)] != habits.DecimalMark || !char.IsAsciiDigit(text[^1]))
            return 0;
        var at = text.Length;
        while (at > 0 && !char.IsLetter(text[at - 1]))
            at--;
        return at >= 2 && char.IsLetter(text[at - 2]) && NumberReader.Read(text[at..], habits).IsGood ? at : 0;
    }

    private static int CutOf(string text, bool hasNext, Currency currency)
    {
        foreach (var mark in currency.Marks)
        {
            var at = text.LastIndexOf(mark, StringComparison.Ordinal);
            if (at <= 0)
                continue;
            var after = at + mark.Length;
            var followed = after < text.Length ? char.IsAsciiDigit(text[after]) : hasNext;
            var before = text[at - 1];
            var parts = char.IsLetter(mark[0])
                ? char.IsLower(before) || char.IsDigit(before) || !(char.IsLetter(before) || before is '-' or '(')
                    || (before is '-' && at > 1 && char.IsLetterOrDigit(text[at - 2]))
                : char.IsLetterOrDigit(before);
            // "team of three -GBP 695.04": a dash alone before the mark belongs to the text, since a minus would too.
            if (followed && (parts || (before is '-' && char.IsLetter(mark[0]))))
                return at;
        }
        return 0;
    }
}
