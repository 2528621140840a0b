using System.Collections.Immutable;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Drafting;

/// <summary>Finds the vendor's tax number: behind its caption, or by the form that its country gives it.</summary>
internal static partial class TaxNumberDraft
{
    /// <summary>One rule for all samples, or null. The pattern keeps the number's letters and its groups of figures.</summary>
    public static JsonObject? Of(IReadOnlyList<Sample> samples) => BehindCaption(samples) ?? ByForm(samples);

    private static JsonObject? BehindCaption(IReadOnlyList<Sample> samples)
    {
        var best = (Rank: int.MaxValue, Rule: (JsonObject?)null);
        foreach (var line in samples.SelectMany(sample => sample.Lines))
        {
            foreach (var caption in Vocabulary.Fields.On(line))
            {
                if (caption.Meanings.RankAs(TradeNames.VendorTaxId) is not { } rank || rank >= best.Rank)
                    continue;
                var number = NumberIn(Behind(line, caption));
                if (number.Count(char.IsAsciiDigit) < 6 || !number.Any(c => c is >= '1' and <= '9'))
                    continue;
                best = (rank, Rule($@"{FormPattern.Literally(caption.Text)}\W*({FormPattern.WithFigures(number)})"));
            }
        }
        return best.Rule;
    }

    /// <summary>What stands behind a caption: the rest of its cell, or the next cell.</summary>
    private static string Behind(TextLine line, Caption caption)
    {
        var cell = line.Cells.FirstOrDefault(cell => cell.Box.Left <= caption.Box.Left + 0.1 && cell.Box.Right >= caption.Box.Right - 0.1);
        var next = line.Cells.FirstOrDefault(cell => cell.Box.Left > caption.Box.Right);
        return cell.Words.Length > 0 && cell.Box.Right > caption.Box.Right + 1
            ? string.Join(' ', line.Words.Skip(caption.FirstWord + caption.Words).TakeWhile(word => word.Box.Right <= cell.Box.Right + 0.1).Select(word => word.Text))
            : next.Words.Length > 0 ? next.Text : "";
    }

    /// <summary>The number that a text begins with: in its country's form if it has one ("NL000417720B01"), else its figures.</summary>
    private static string NumberIn(string text) =>
        FormsIn(text).FirstOrDefault() is { Number: { } number, At: <= 2 } ? number : AnyNumber().Match(text).Groups[1].Value;

    /// <summary>Without a caption that Daxlin knows: the same number in its country's form on each sample, not in the buyer's address, not in an account number.</summary>
    private static JsonObject? ByForm(IReadOnlyList<Sample> samples)
    {
        var shared = samples.Select(sample => sample.Pages.SelectMany(NumbersOn).ToHashSet()).Aggregate((one, other) => [.. one.Intersect(other)]);
        return shared.Count == 1 ? Rule($@"\b({FormPattern.WithFigures(shared.Single())})") : null;
    }

    private static IEnumerable<string> NumbersOn(Page page)
    {
        var buyers = Addressees.On(page);
        return from line in page.Lines
               from cell in line.Cells
               where !Addressees.AreAround(buyers, cell.Box)
               from form in FormsIn(cell.Text)
               where form.Number.Any(c => c is >= '1' and <= '9')
               select form.Number;
    }

    private static JsonObject Rule(string pattern) => new() { ["where"] = new JsonObject { ["matching"] = pattern + @"(?!\w)" } };

    /// <summary>The numbers of a text in their countries' forms, as printed: figures may stand in groups. An account number is none.</summary>
    private static IEnumerable<(string Number, int At)> FormsIn(string text)
    {
        foreach (Match match in Lettered().Matches(text))
        {
            for (var length = match.Length; length > 4; length--)
            {
                if (length < match.Length && (char.IsAsciiLetterOrDigit(match.Value[length]) || NextFigures().IsMatch(match.Value[length..])))
                    continue;
                var bare = Separators().Replace(match.Value[..length], "");
                if (char.IsAsciiLetterOrDigit(match.Value[length - 1]) && Strict.IsMatch(bare))
                {
                    yield return (match.Value[..length], match.Index);
                    break;
                }
            }
        }
    }

    private static readonly Regex Strict = new(
        $"^(?:{string.Join('|', Vocabulary.TaxNumbers.Select(country => $"{country.Key}(?:{country.Value})"))})$", RegexOptions.CultureInvariant);

    [GeneratedRegex(@"(?<![\w-])[A-Z]{2,3}[ -]?[A-Z0-9](?:[ .-]?[A-Z0-9])+(?!\w)")]
    private static partial Regex Lettered();

    [GeneratedRegex(@"^[ .-]?[A-Z]*\d")]
    private static partial Regex NextFigures();

    [GeneratedRegex("[ .-]")]
    private static partial Regex Separators();

    [GeneratedRegex(@"^[\W]*((?:[A-Z]{1,3}[ -]?)?\d[\d. -]*\d(?: ?[A-Z]{1,2}\b)?)")]
    private static partial Regex AnyNumber();
}
