using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.Capture;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Checks;

/// <summary>The ties of an invoice's taxes: each rate to its base, bases and lines to what is taxed, taxes to the stated tax.</summary>
internal sealed class TaxTies
{
    private readonly CapturedInvoice invoice;
    private readonly decimal? subtotal;
    private readonly decimal discount;
    private readonly CheckRule rule;
    private readonly Currency currency;
    private readonly bool isIncluded;
    private readonly List<CapturedLine> rows;
    private readonly bool basesHoldTax;
    private readonly TaxedAmounts? taxed;

    /// <summary>Asked for under each way of sharing discount and freight out, and the same under all of them.</summary>
    private readonly Dictionary<decimal, ImmutableArray<string>> linesAt = [];
    private readonly Dictionary<decimal, (decimal Sum, decimal Tax)> byLine = [];
    private readonly Dictionary<(int Row, string Of, bool ProvesRate), ImmutableArray<string>> members = [];

    private TaxTies(CapturedInvoice invoice, decimal? subtotal, decimal discount)
    {
        (this.invoice, this.subtotal, this.discount) = (invoice, subtotal, discount);
        (rule, currency, isIncluded) = (invoice.Template.Checks, invoice.Template.Reads.Currency, invoice.Template.Reads.TaxIncluded);
        rows = [.. invoice.Taxes.Where(row => row.NumberIn(TradeNames.Amount) is not null)];
        basesHoldTax = BasesHoldTax();
        taxed = subtotal is { } sum ? TaxedAmounts.Of(invoice, sum, discount) : null;
    }

    /// <param name="subtotal">Stated, or the sum of the lines; null if there is neither.</param>
    /// <param name="discount">What is taken off it, with its sign.</param>
    public static IEnumerable<Tie> Of(CapturedInvoice invoice, decimal? subtotal, decimal discount)
    {
        var ties = new TaxTies(invoice, subtotal, discount);
        return [.. ties.OfBases(), .. ties.OfLines(), .. ties.OfRates(), .. ties.OfTax()];
    }

    /// <summary>Rates that lines have and no tax is stated for, where taxes are stated by rate.</summary>
    public static IEnumerable<Finding> Untaxed(CapturedInvoice invoice)
    {
        var stated = invoice.Taxes.Select(row => row.NumberIn(TradeNames.Rate)).ToHashSet();
        if (stated.Count == 0 || stated.Contains(null))
            yield break;
        foreach (var group in invoice.Lines.Where(line => line.NumberIn(TradeNames.TaxRate) is { } rate && rate != 0 && !stated.Contains(rate))
            .GroupBy(line => line.NumberIn(TradeNames.TaxRate)!.Value))
        {
            yield return Finding.Hold(
                "rate-untaxed",
                $"{(group.Count() == 1 ? $"Line {Text(group.First().Number)} is" : $"{Text(group.Count())} lines are")} said to be taxed at {Text(group.Key)} %, "
                + $"{invoice.Template.Reads.Currency.Show(group.Sum(line => line.NumberIn(TradeNames.Amount) ?? 0))} in all; the invoice states no tax at that rate.",
                [.. group.Select(line => LineName(line, TradeNames.TaxRate))]);
        }
    }

    /// <summary>Lines without a rate among lines that have one, where what is taxed at the rates does not come out.</summary>
    public static IEnumerable<Finding> Unrated(CapturedInvoice invoice, ImmutableArray<Tie> ties)
    {
        var without = invoice.Lines.Where(line => line.NumberIn(TradeNames.TaxRate) is null && line.NumberIn(TradeNames.Amount) is not (null or 0)).ToList();
        if (without.Count == 0 || without.Count == invoice.Lines.Length || ties.All(tie => tie.Holds || tie is not (LinesFollowBase or TaxFollowsRate or TaxFollowsLines)))
            yield break;
        yield return Finding.Hold(
            "rate-missing",
            $"{(without.Count == 1 ? $"Line {Text(without[0].Number)} has" : $"{Text(without.Count)} lines have")} no tax rate, "
            + $"{invoice.Template.Reads.Currency.Show(without.Sum(line => line.NumberIn(TradeNames.Amount)!.Value))} in all, where other lines have one; "
            + "counted as not taxed, what is taxed does not come out.",
            [.. without.Select(line => LineName(line, TradeNames.TaxRate))]);
    }

    /// <summary>Base × rate = tax, and all bases together.</summary>
    private IEnumerable<Tie> OfBases()
    {
        foreach (var row in rows)
        {
            if (row.NumberIn(TradeNames.Rate) is { } rate && row.NumberIn(TradeNames.Base) is { } of)
            {
                yield return new TaxFollowsBase(
                    rate, of, AmountOf(row), isIncluded, basesHoldTax, TaxByLine(rate, StatedBase(row)!.Value), rule, currency,
                    // Nothing taxed at any rate is nothing: that it comes out proves no rate.
                    of == 0 ? [RowName(row, TradeNames.Base), RowName(row, TradeNames.Amount)]
                        : [RowName(row, TradeNames.Rate), RowName(row, TradeNames.Base), RowName(row, TradeNames.Amount)]);
            }
        }
        var bases = rows.Select(StatedBase).OfType<decimal>().ToImmutableArray();
        if (bases.Length > 0 && bases.Length == rows.Count && subtotal is { } sum)
        {
            yield return new TaxBasesAddUp(
                bases, sum - discount + Freight, rule, currency,
                [.. rows.Select(row => RowName(row, TradeNames.Base)), .. OfTotals()]);
        }
    }

    /// <summary>What the lines come to at each rate whose base is printed.</summary>
    private List<Tie> OfLines()
    {
        var headed = rows.Where(row => row.NumberIn(TradeNames.Rate) is not null && row.NumberIn(TradeNames.Base) is not null).ToList();
        if (headed.Count == 0 || taxed is not { AreOfLines: true })
            return [];
        return Best(sharing => headed.Select(row => new LinesFollowBase(
            RateOf(row), taxed.BaseAt(RateOf(row), sharing), StatedBase(row)!.Value, rule, currency,
            MembersOf(row, TradeNames.Base, StatedBase(row) != 0))));
    }

    /// <summary>Rate and tax where no base is printed.</summary>
    private IEnumerable<Tie> OfRates()
    {
        var open = rows.Where(row => row.NumberIn(TradeNames.Rate) is not null && row.NumberIn(TradeNames.Base) is null).ToList();
        if (open.Count == 0 || subtotal is not { } sum)
            return [];
        if (taxed is null)
            return Implied(open, sum);
        return Best(sharing => open.Select(row => new TaxFollowsRate(
            RateOf(row), taxed.BaseAt(RateOf(row), sharing), AmountOf(row), isIncluded, taxed.AreOfLines,
            TaxByLine(RateOf(row), taxed.BaseAt(RateOf(row), sharing)), rule, currency,
            MembersOf(row, TradeNames.Amount, taxed.BaseAt(RateOf(row), sharing) != 0))));
    }

    /// <summary>
    /// Neither bases nor the lines' rates are printed. The taxes imply bases that make up what is taxed; where they come to
    /// less, something is not taxed at all, and the rates cannot be known to be right.
    /// </summary>
    private IEnumerable<Tie> Implied(List<CapturedLine> open, decimal sum)
    {
        var dutiable = open.Where(row => RateOf(row) != 0).ToList();
        foreach (var free in open.Where(row => RateOf(row) == 0))
            yield return new TaxFollowsRate(0, 0, AmountOf(free), isIncluded, IsOfLines: false, TaxByLine: null, rule, currency, [RowName(free, TradeNames.Rate), RowName(free, TradeNames.Amount)]);
        if (dutiable.Count == 0 || dutiable.Count != rows.Count(row => row.NumberIn(TradeNames.Rate) != 0))
            yield break;
        var bases = dutiable.Sum(row => AmountOf(row) * (isIncluded ? 100 + RateOf(row) : 100) / RateOf(row));
        var slack = dutiable.Sum(row => currency.MinorUnit / 2 * (isIncluded ? 100 + RateOf(row) : 100) / RateOf(row));
        var candidates = new[] { sum - discount + Freight, sum - discount, sum + Freight, sum }
            .Select(of => new ImpliedBasesAddUp(
                bases, slack, of, rule, currency,
                [.. open.SelectMany(row => new[] { RowName(row, TradeNames.Rate), RowName(row, TradeNames.Amount) }), .. OfTotals()]))
            .ToList();
        if (candidates.Find(tie => tie.Holds) is { } holds)
            yield return holds;
        else if (candidates.TrueForAll(tie => Math.Abs(bases) > Math.Abs(tie.Taxed) + tie.Tolerance) || dutiable.Count == open.Count)
            yield return candidates[0];
    }

    /// <summary>All taxes together, or what the lines' rates come to where no tax is stated by rate.</summary>
    private List<Tie> OfTax()
    {
        if (invoice.Amount(TradeNames.Tax) is not { } tax)
            return [];
        if (rows.Count > 0)
            return [new TaxesAddUp([.. rows.Select(AmountOf)], tax, rule, currency, [.. rows.Select(row => RowName(row, TradeNames.Amount)), TradeNames.Tax])];
        if (taxed is not { AreOfLines: true })
            return [];
        ImmutableArray<string> members = [.. invoice.Lines.Where(line => line.NumberIn(TradeNames.TaxRate) is not null).Select(line => LineName(line, TradeNames.TaxRate)), TradeNames.Tax];
        return Best(sharing =>
        [
            new TaxFollowsLines(
                [.. taxed.Rates.Select(rate => (rate, taxed.BaseAt(rate, sharing)))], isIncluded, tax,
                taxed.Rates.Select(rate => TaxByLine(rate, taxed.BaseAt(rate, sharing))).Aggregate((decimal?)0, (sum, part) => sum + part), rule, currency,
                members),
        ]);
    }

    /// <summary>What the tax at a rate comes to, rounded on each line; null where the lines do not tell.</summary>
    /// <param name="of">What is taxed.</param>
    private decimal? TaxByLine(decimal rate, decimal of)
    {
        if (taxed is null)
            return null;
        if (!byLine.TryGetValue(rate, out var own))
        {
            foreach (var line in invoice.Lines)
            {
                if (line.NumberIn(TradeNames.Amount) is { } amount && (!taxed.AreOfLines || (line.NumberIn(TradeNames.TaxRate) ?? 0) == rate))
                    own = (own.Sum + amount, own.Tax + TaxOf(amount, rate));
            }
            byLine[rate] = own;
        }
        // Freight and discount are lines of their own where they are not shared out among the rates.
        ImmutableArray<decimal>? besides = (of - own.Sum) switch
        {
            0 => [],
            var rest when rest == Freight => [Freight],
            var rest when rest == -discount => [-discount],
            var rest when rest == Freight - discount => [Freight, -discount],
            _ => null,
        };
        return besides is { } parts ? own.Tax + parts.Sum(part => TaxOf(part, rate)) : null;
    }

    private decimal TaxOf(decimal amount, decimal rate) => Tie.Round(amount * rate / (isIncluded ? 100 + rate : 100), currency, rule.Rounding);

    /// <summary>The ties under the way of sharing discount and freight out that most of them hold under; the usual way if none is better.</summary>
    private List<Tie> Best(Func<TaxSharing, IEnumerable<Tie>> tiesFor) =>
        taxed!.Sharings.Select(sharing => tiesFor(sharing).ToList()).MaxBy(ties => ties.Count(tie => tie.Holds))!;

    /// <summary>
    /// Says that the bases of the tax summary hold their tax. Where prices do, vendors print either; the rows tell which,
    /// since the two differ on any base that is worth taxing.
    /// </summary>
    private bool BasesHoldTax() => isIncluded && rows.Exists(
        row => row.NumberIn(TradeNames.Rate) is { } rate && row.NumberIn(TradeNames.Base) is { } of
            && new TaxFollowsBase(rate, of, AmountOf(row), TaxIncluded: true, BaseHoldsTax: true, TaxByLine: null, rule, currency, []) is { Holds: true, Amount: not 0 });

    /// <summary>The printed base, with its tax where the lines hold theirs.</summary>
    private decimal? StatedBase(CapturedLine row) =>
        row.NumberIn(TradeNames.Base) + (isIncluded && !basesHoldTax ? row.NumberIn(TradeNames.Amount) : 0);

    private decimal Freight => invoice.Amount(TradeNames.Freight) ?? 0;

    private ImmutableArray<string> OfTotals() =>
        [.. new[] { TradeNames.Subtotal, TradeNames.Discount, TradeNames.Freight }.Where(name => invoice.Find(name) is not null)];

    /// <summary>What stands in the tie of a tax row: the lines at its rate, or the totals that are taxed, and its own values.</summary>
    /// <param name="of">The column whose value it holds.</param>
    /// <param name="provesRate">Nothing taxed at any rate is nothing: that it comes out proves no rate.</param>
    private ImmutableArray<string> MembersOf(CapturedLine row, string of, bool provesRate)
    {
        if (!members.TryGetValue((row.Number, of, provesRate), out var names))
        {
            members[(row.Number, of, provesRate)] = names =
            [
                .. taxed!.AreOfLines ? LinesAt(RateOf(row)) : OfTotals(), .. provesRate ? [RowName(row, TradeNames.Rate)] : Array.Empty<string>(), RowName(row, of),
            ];
        }
        return names;
    }

    private ImmutableArray<string> LinesAt(decimal rate)
    {
        if (!linesAt.TryGetValue(rate, out var names))
            linesAt[rate] = names = [.. invoice.Lines.Where(line => line.NumberIn(TradeNames.TaxRate) == rate).Select(line => LineName(line, TradeNames.TaxRate))];
        return names;
    }

    private static decimal RateOf(CapturedLine row) => row.NumberIn(TradeNames.Rate)!.Value;

    private static decimal AmountOf(CapturedLine row) => row.NumberIn(TradeNames.Amount)!.Value;

    private static string LineName(CapturedLine line, string column) => ValueNames.Of(BlockRule.Lines, line.Number, column);

    private static string RowName(CapturedLine row, string column) => ValueNames.Of(BlockRule.Taxes, row.Number, column);

    private static string Text(decimal number) => number.ToString(CultureInfo.InvariantCulture);
}
