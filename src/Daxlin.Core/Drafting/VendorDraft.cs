using System.Collections.Immutable;
using System.Text.RegularExpressions;
using Daxlin.Core.Pages;

namespace Daxlin.Core.Drafting;

/// <summary>Finds the vendor's name as it is printed.</summary>
/// <remarks>
/// A company's name stands high on the page, in large type or at the head of a line with the address, often ends in a legal
/// form and often stands once more in the foot. The buyer's name stands near words such as "Accounts Payable".
/// </remarks>
internal static partial class VendorDraft
{
    /// <summary>The most likely name on all samples, or null.</summary>
    public static string? Of(IReadOnlyList<Sample> samples) => AllOf(samples).FirstOrDefault();

    /// <summary>What can be the name, the most likely first.</summary>
    public static IEnumerable<string> AllOf(IReadOnlyList<Sample> samples)
    {
        var scores = new Dictionary<string, (double Score, string Text)>(StringComparer.Ordinal);
        foreach (var sample in samples)
        {
            foreach (var (text, score) in CandidatesOn(sample).GroupBy(one => Vocabulary.Key(one.Text)).Select(same => (same.First().Text, Score: same.Max(one => one.Score) + Math.Min(2, same.Count() - 1))))
                scores[Vocabulary.Key(text)] = scores.TryGetValue(Vocabulary.Key(text), out var before) ? (before.Score + score, before.Text) : (score, text);
        }
        return scores.Values.OrderByDescending(one => one.Score).Select(one => one.Text);
    }

    private static IEnumerable<(string Text, double Score)> CandidatesOn(Sample sample)
    {
        var usual = Median(sample.Lines.SelectMany(line => line.Words).Select(word => word.Size));
        var hasSmall = sample.Lines.Sum(line => line.Text.Count(char.IsLower)) > sample.Lines.Sum(line => line.Text.Count(char.IsUpper));
        var tables = sample.Pages.Select(page => (page.Number, Table: Headings.Find([page], Vocabulary.Columns, headings => headings.Count(heading => !heading.Meanings.IsEmpty) >= 3)))
            .Where(one => one.Table is not null).ToDictionary(one => one.Number, one => one.Table);
        foreach (var page in sample.Pages)
        {
            var buyers = Addressees.On(page);
            var table = tables.GetValueOrDefault(page.Number);
            foreach (var line in page.Lines)
            {
                // Names stand above the item rows, or in the page's foot.
                var isFoot = line.Box.Top > 0.85 * page.Height;
                if (!isFoot && line.Box.Bottom > (table?.Box.Top ?? page.Height / 2))
                    continue;
                foreach (var (cell, box) in CellsOf(line, usual))
                {
                    if (NameIn(cell) is not { } name)
                        continue;
                    var words = name.Split(' ');
                    var hasForm = Vocabulary.LegalForms.Contains(words[^1].Trim('.', ',')) || Vocabulary.LegalForms.Contains(words[^1]);
                    var isBuyer = Addressees.AreAround(buyers, box);
                    yield return (hasSmall ? InSmallLetters(name) : name,
                        (hasForm ? 4 : 0)
                        + Math.Min(3, ((line.Words[0].Size / usual) - 1) * 3)
                        + (isFoot ? 0 : 3 * (1 - (box.Top / page.Height)))
                        + (words.Length is >= 2 and <= 6 ? 0.5 : 0)
                        - (isBuyer ? 6 : 0) - (page.Number > 1 && table is null ? 0.5 : 0)
                        // A cover letter is no invoice.
                        - (table is null && tables.Count > 0 ? 5 : 0));
                }
            }
        }
    }

    /// <summary>The line's cells; words in large type set wide apart are one.</summary>
    private static IEnumerable<(string Text, Box Box)> CellsOf(TextLine line, double usual)
    {
        var (text, box) = ("", default(Box));
        foreach (var cell in line.Cells)
        {
            if (text.Length > 0 && (cell.Words[0].Size < 1.3 * usual || cell.Box.Left - box.Right > 1.5 * cell.Words[0].Size))
            {
                yield return (text, box);
                text = "";
            }
            (text, box) = text.Length == 0 ? (cell.Text, cell.Box) : (text + " " + cell.Text, box.Union(cell.Box));
        }
        yield return (text, box);
    }

    /// <summary>A name set in capitals for its looks, as it is posted: "SKERROW SAIL LOFT" is Skerrow Sail Loft.</summary>
    private static string InSmallLetters(string name) => name.Any(char.IsLower) || name.Count(char.IsLetter) < 5 ? name
        : string.Join(' ', name.Split(' ').Select(word => word.Contains('.', StringComparison.Ordinal) && word.Length <= 6 && word.TrimEnd('.').Contains('.', StringComparison.Ordinal) ? word
            : word.Length <= 1 ? word : char.ToUpperInvariant(word[0]) + word[1..].ToLowerInvariant()));

    /// <summary>The part of a cell that can be a company's name: what stands before the address; null if it is no name.</summary>
    private static string? NameIn(string cell)
    {
        var name = Divider().Split(cell)[0].Trim(' ', ',', ':');
        // "Inc." and "GmbH" behind a comma belong to the name.
        if (cell.Length > name.Length + 2 && LegalFormBehind().Match(cell[name.Length..]) is { Success: true } form)
            name += form.Value;
        return name.Length is < 4 or > 60 || name.Any(char.IsAsciiDigit) || name.Contains('@', StringComparison.Ordinal)
            || !Vocabulary.Fields.MeaningsOf(name).IsEmpty || !Vocabulary.Columns.MeaningsOf(name).IsEmpty
            || Vocabulary.CreditNotes.Any(pair => pair.CreditNotes.Append(pair.Invoice).Any(word => Vocabulary.Key(word) == Vocabulary.Key(name) || Vocabulary.Key("Tax " + word) == Vocabulary.Key(name)))
            || cell.Contains(": ", StringComparison.Ordinal) ? null : name;
    }

    private static double Median(IEnumerable<double> sizes) => sizes.Order().ToList() is { Count: > 0 } sorted ? sorted[sorted.Count / 2] : 10;

    [GeneratedRegex(@", | [–—·|•] | - ")]
    private static partial Regex Divider();

    [GeneratedRegex(@"^, (?:Inc|INC|LLC|Ltd|LTD|S\.A|Co)\b\.?")]
    private static partial Regex LegalFormBehind();
}
