using System.Collections.Immutable;

namespace Daxlin.Core.Readings;

/// <summary>Finds a text in another in spite of misread letters.</summary>
/// <remarks>Dynamic programming over both, where the text may begin anywhere: P. H. Sellers, "The theory and computation of evolutionary distances: pattern recognition", Journal of Algorithms 1 (1980).</remarks>
internal static class NearText
{
    /// <summary>Says that a text can be there at that cost; a quick way to say that it cannot.</summary>
    /// <remarks>Each misread letter costs a half at least, and two letters that look like one may stand in two parts; of one more than that one stands there as it is.</remarks>
    public static bool CanHold(string read, string sought, int most)
    {
        var parts = (2 * most) + 1;
        if (parts >= sought.Length)
            return read.Length > 0;
        for (var part = 0; part < parts; part++)
        {
            if (read.AsSpan().IndexOf(sought.AsSpan()[(sought.Length * part / parts)..(sought.Length * (part + 1) / parts)]) >= 0)
                return true;
        }
        return false;
    }

    /// <summary>Where a text stands at no more than a cost, for each end the cheapest.</summary>
    /// <param name="words">The words of the text, as capitals.</param>
    /// <param name="read">As capitals, without blanks.</param>
    /// <param name="allowed">What a word may cost, in half letters as <see cref="Likeness"/> counts.</param>
    /// <param name="most">What all of them may.</param>
    /// <remarks>"Our ref" is no misread "Your ref": of a word of four letters none may be lost, however long the text is that it is part of.</remarks>
    public static IEnumerable<(int Start, int End, int Cost)> Find(ImmutableArray<string> words, string read, Func<string, int> allowed, int most)
    {
        var sought = string.Concat(words);
        var steps = Steps(sought, read);
        for (var end = 1; end <= read.Length; end++)
        {
            if (steps[sought.Length, end].Cost > most)
                continue;
            var (i, j) = (sought.Length, end);
            var cheap = true;
            for (var word = words.Length - 1; word >= 0 && cheap; word--)
            {
                var from = i - words[word].Length;
                var cost = steps[i, j].Cost;
                while (i > from)
                    (i, j) = (steps[i, j].FromI, steps[i, j].FromJ);
                // Two letters of two words that were read as one are no letters of either.
                cheap = i == from && cost - steps[i, j].Cost <= allowed(words[word]);
            }
            if (cheap && j < end)
                yield return (j, end, steps[sought.Length, end].Cost);
        }
    }

    /// <param name="Cost">Of the first letters sought, ended at a letter read.</param>
    /// <param name="FromI">How many letters sought before the last step.</param>
    /// <param name="FromJ">How many letters read.</param>
    private readonly record struct Step(int Cost, int FromI, int FromJ);

    private static Step[,] Steps(string sought, string read)
    {
        var steps = new Step[sought.Length + 1, read.Length + 1];
        for (var i = 1; i <= sought.Length; i++)
        {
            for (var j = 0; j <= read.Length; j++)
            {
                var best = From(i - 1, j, Likeness.Lost(sought[i - 1]));
                if (j > 0)
                {
                    // Of two that cost the same the one that takes a letter for a letter: else "Échéance" would begin behind the E of "Echéance".
                    best = Cheaper(From(i - 1, j - 1, Likeness.Replaced(sought[i - 1], read[j - 1])), best);
                    best = Cheaper(best, From(i, j - 1, Likeness.Added(read[j - 1])));
                    if (i > 1 && Likeness.IsJoined(sought[i - 2], sought[i - 1], read[j - 1]))
                        best = Cheaper(best, From(i - 2, j - 1, Likeness.Half));
                    if (j > 1 && Likeness.IsJoined(read[j - 2], read[j - 1], sought[i - 1]))
                        best = Cheaper(best, From(i - 1, j - 2, Likeness.Half));
                }
                steps[i, j] = best;
            }
        }
        return steps;

        Step From(int i, int j, int cost) => new(steps[i, j].Cost + cost, i, j);

        static Step Cheaper(Step one, Step other) => other.Cost < one.Cost ? other : one;
    }
}
