using System.Collections.Immutable;
using System.Text.RegularExpressions;
using Daxlin.Core.Capture;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Drafting;

/// <summary>Tells the amounts below the rows from one another: by what adds up first, then by their captions.</summary>
internal static partial class TotalsDraft
{
    /// <summary>So many amounts are weighed against each other at most; invoices state fewer.</summary>
    private const int Most = 9;

    /// <summary>The amounts that are stated on lines below the last row.</summary>
    public static ImmutableArray<StatedAmount> StatedOn(Sample sample, PlaceOnPage? end, Habits reads)
    {
        var stated = ImmutableArray.CreateBuilder<StatedAmount>();
        foreach (var page in sample.Pages)
        {
            foreach (var line in page.Lines.Where(line => end is not { } last || page.Number > last.Page || (page.Number == last.Page && line.Box.CenterY > last.Box.Bottom)))
            {
                if (On(line, page.Number, reads) is { } amount)
                    stated.Add(amount);
            }
        }
        return stated.ToImmutable();
    }

    private static StatedAmount? On(TextLine line, int page, Habits reads)
    {
        // The last cell is the amount, or ends in it; a mark may stand in a cell of its own before it.
        var cells = line.Cells;
        var last = cells[^1];
        if (Figures.AtEnd(last.Text, reads) is not { } end || last.Text.Contains('%', StringComparison.Ordinal) && end.Before == 0)
            return null;
        var before = last.Text[..end.Before].TrimEnd();
        var box = last.Box;
        for (var index = cells.Length - 2; index >= 0; index--)
        {
            var gap = box.Left - cells[index].Box.Right;
            if (before.Any(char.IsLetter) && gap > 24)
                break;
            before = before.Length == 0 ? cells[index].Text : cells[index].Text + " " + before;
            box = box.Union(cells[index].Box);
        }
        // A code or a rate may stand first: "B = 19 % MwSt. auf", "19 % VAT".
        var caption = CaptionOf(Ahead().Replace(before, ""));
        return caption.Count(char.IsLetter) < 2 ? null : new StatedAmount(caption, before, line.Text, end.Amount, box, page);
    }

    /// <summary>The words up to the first figure or bracket: "Sales Tax" of "Sales Tax (6%)", "Moms" of "Moms 25 % av 56 002,07".</summary>
    private static string CaptionOf(string text) => Lead().Match(text).Value.TrimEnd(' ', ':', '.', '(', '@', '-', '=', '£', '€', '$', '¥');

    public static FoundTotals? Of(ImmutableArray<StatedAmount> stated, ImmutableArray<decimal> rows, Habits reads)
    {
        if (stated.IsEmpty)
            return null;
        var sum = rows.Sum();
        FoundTotals? best = null;
        var bestScore = double.MinValue;
        for (var total = 0; total < stated.Length; total++)
        {
            var rank = stated[total].Meanings.RankAs(TradeNames.Total);
            if (stated[total].HasRate || (rank is null && stated.Any(one => one.Meanings.RankAs(TradeNames.Total) is not null && one.Amount == stated[total].Amount)))
                continue;
            foreach (var (parts, included, isProved) in PartsOf(stated, total, sum, rows.Length > 0, reads))
            {
                // "Subtotal Site 82": the words after the caption are no part of a caption that other invoices have.
                var unsteady = parts.Count(part => !part.Stated.HasRate && part.Stated.Text.Any(char.IsAsciiDigit));
                var score = (isProved ? 10 : 0) - (1.5 * unsteady) + (rank is { } known ? 4 - (0.02 * known) : 0) + (total * 0.01)
                    + parts.Sum(part => part.Stated.Meanings.RankAs(part.Name) is { } own ? 1 - (0.01 * own) : part.Name == TradeNames.Subtotal && rows.Length > 0 && part.Stated.Amount == sum ? 0.5 : part.Stated.Meanings.RankAs(TradeNames.Total) is null && part.Stated.Meanings.RankAs(TradeNames.Subtotal) is null ? -0.2 : -0.8);
                if (score <= bestScore)
                    continue;
                bestScore = score;
                best = new FoundTotals([.. parts, (TradeNames.Total, stated[total])], isProved, included);
            }
        }
        return best;
    }

    /// <summary>The ways in which the amounts before a total can be its parts.</summary>
    private static IEnumerable<(List<(string Name, StatedAmount Stated)> Parts, bool Included, bool IsProved)> PartsOf(
        ImmutableArray<StatedAmount> stated, int total, decimal sum, bool hasRows, Habits reads)
    {
        var tolerance = reads.Currency.MinorUnit / 2;
        var target = stated[total].Amount;
        var others = stated.Where((one, index) => index != total && Math.Abs(one.Amount) <= Math.Abs(target) * 2).Take(Most).ToList();
        for (var subtotal = -1; subtotal < others.Count; subtotal++)
        {
            var start = subtotal < 0 ? sum : others[subtotal].Amount;
            if (subtotal >= 0 && (others[subtotal].HasRate || (hasRows && Math.Abs(start - sum) > tolerance && others[subtotal].Meanings.RankAs(TradeNames.Subtotal) is null)))
                continue;
            if (subtotal < 0 && !hasRows)
                continue;
            var addUp = !hasRows || Math.Abs(start - sum) <= tolerance;
            for (var chosen = 0; chosen < 1 << others.Count; chosen++)
            {
                if (subtotal >= 0 && (chosen & (1 << subtotal)) != 0)
                    continue;
                var parts = new List<(string, StatedAmount)>();
                if (subtotal >= 0)
                    parts.Add((TradeNames.Subtotal, others[subtotal]));
                var (value, taxes) = (start, 0m);
                for (var index = 0; index < others.Count; index++)
                {
                    if ((chosen & (1 << index)) == 0)
                        continue;
                    var name = NameOf(others[index]);
                    parts.Add((name, others[index]));
                    taxes += name == TradeNames.Tax ? others[index].Amount : 0;
                    value += name == TradeNames.Discount ? -Math.Abs(others[index].Amount) * Math.Sign(start) : name == TradeNames.Tax ? 0 : others[index].Amount;
                }
                // Two of one kind beside the taxes are no parts that a template can name.
                if (parts.GroupBy(part => part.Item1).Any(group => group.Key != TradeNames.Tax && group.Count() > 1))
                    continue;
                if (Math.Abs(value + taxes - target) <= tolerance && (taxes != 0 || parts.Count > 0))
                    yield return (parts, false, addUp);
                else if (taxes != 0 && Math.Abs(value - target) <= tolerance)
                    yield return (parts, true, addUp);
            }
        }
        // Nothing adds up: what the captions say.
        var byCaption = others.Select(one => (Name: NameOf(one), Stated: one)).Where(part => part.Stated.Meanings.RankAs(part.Name) is not null)
            .GroupBy(part => part.Name).SelectMany(group => group.Key == TradeNames.Tax ? group.AsEnumerable() : group.Take(1)).ToList();
        if (others.Find(one => one.Meanings.RankAs(TradeNames.Subtotal) is not null) is { } named && !byCaption.Exists(part => part.Name == TradeNames.Subtotal))
            byCaption.Insert(0, (TradeNames.Subtotal, named));
        yield return (byCaption, false, false);
    }

    private static string NameOf(StatedAmount stated)
    {
        if (stated.HasRate)
            return TradeNames.Tax;
        var names = new[] { TradeNames.Discount, TradeNames.Freight, TradeNames.Tax }
            .Select(name => (name, Rank: stated.Meanings.RankAs(name))).Where(one => one.Rank is not null).OrderBy(one => one.Rank).ToList();
        return names.Count > 0 ? names[0].name : stated.Amount < 0 ? TradeNames.Discount : TradeNames.Freight;
    }

    [GeneratedRegex(@"^(?:[A-Z0-9] = )?(?:\d+(?:[.,]\d+)? ?% ?)?")]
    private static partial Regex Ahead();

    [GeneratedRegex(@"^[^\d(]*")]
    private static partial Regex Lead();
}
