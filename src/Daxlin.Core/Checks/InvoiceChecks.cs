using System.Collections.Frozen;
using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.Capture;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Checks;

/// <summary>Recalculates a captured invoice and says what does not add up.</summary>
public static class InvoiceChecks
{
    public static CheckedInvoice Check(CapturedInvoice invoice)
    {
        var ties = TiesOf(invoice).ToImmutableArray();
        var tied = ties.Where(tie => tie.Holds).SelectMany(tie => tie.Members).ToImmutableHashSet();
        var findings = invoice.Findings
            .AddRange(Missing(invoice))
            .AddRange(ties.Where(tie => !tie.Holds).Select(tie => tie.ToFinding()))
            .AddRange(Untied(invoice, ties));
        return new CheckedInvoice(invoice, ties, findings, tied);
    }

    private static IEnumerable<Tie> TiesOf(CapturedInvoice invoice)
    {
        var (rule, currency) = (invoice.Template.Checks, invoice.Template.Reads.Currency);
        var counted = invoice.Template.Blocks.Where(block => block.Columns.Any(column => column.Name == TradeNames.Quantity))
            .Select(block => block.Name).ToHashSet();
        foreach (var line in invoice.Lines)
        {
            if (LineTie(line, invoice, counted) is { } tie)
                yield return tie;
        }

        var amounts = invoice.Lines.Select(line => line.NumberIn(TradeNames.Amount)).OfType<decimal>().ToImmutableArray();
        var amountNames = invoice.Lines.Where(line => line.NumberIn(TradeNames.Amount) is not null)
            .Select(line => Name(line, TradeNames.Amount));
        var stated = invoice.Amount(TradeNames.Subtotal);
        if (stated is { } subtotal && amounts.Length > 0)
            yield return new LinesAddUp(amounts, subtotal, rule, currency, [.. amountNames, TradeNames.Subtotal]);

        foreach (var tie in TaxTies(invoice, stated ?? (amounts.Length > 0 ? amounts.Sum() : null)))
            yield return tie;
        if (TotalTie(invoice, stated, amounts, amountNames) is { } total)
            yield return total;
    }

    private static LineMultipliesOut? LineTie(CapturedLine line, CapturedInvoice invoice, HashSet<string> counted)
    {
        if (line.NumberIn(TradeNames.Amount) is not { } amount || line.NumberIn(TradeNames.UnitPrice) is not { } price)
            return null;
        // A block without a quantity column counts every line as one; a quantity that is missing in one row is a finding.
        var quantity = line.NumberIn(TradeNames.Quantity);
        if (quantity is null && counted.Contains(line.Block))
            return null;
        var members = ImmutableArray.CreateBuilder<string>();
        foreach (var cell in line.Cells)
        {
            if (InLineTie.Contains(cell.Name))
                members.Add(Name(line, cell.Name));
        }
        var basis = line.NumberIn(TradeNames.PriceBasis) ?? 1;
        return new LineMultipliesOut(
            line.Number, quantity ?? 1, price, basis == 0 ? 1 : basis,
            DiscountsOf(line), line.NumberIn(TradeNames.DiscountAmount) ?? 0, amount, invoice.Template.Checks,
            invoice.Template.Reads.Currency, members.DrainToImmutable());
    }

    /// <summary>The columns that take part in a line's equation.</summary>
    private static readonly FrozenSet<string> InLineTie = TradeNames.DiscountPercents
        .Concat([TradeNames.Quantity, TradeNames.UnitPrice, TradeNames.PriceBasis, TradeNames.DiscountAmount, TradeNames.Amount])
        .ToFrozenSet();

    private static ImmutableArray<decimal> DiscountsOf(CapturedLine line)
    {
        ImmutableArray<decimal> discounts = [];
        foreach (var column in TradeNames.DiscountPercents)
        {
            if (line.NumberIn(column) is { } percent)
                discounts = discounts.Add(Math.Abs(percent));
        }
        return discounts;
    }

    private static IEnumerable<Tie> TaxTies(CapturedInvoice invoice, decimal? subtotal)
    {
        var (rule, currency) = (invoice.Template.Checks, invoice.Template.Reads.Currency);
        var rows = invoice.Taxes.Where(row => row.NumberIn(TradeNames.Amount) is not null).ToList();
        var basesHoldTax = BasesHoldTax(invoice, rows);
        foreach (var row in rows)
        {
            if (row.NumberIn(TradeNames.Rate) is { } rate && row.NumberIn(TradeNames.Base) is { } of)
            {
                yield return new TaxFollowsBase(
                    rate, of, row.NumberIn(TradeNames.Amount)!.Value, invoice.Template.Reads.TaxIncluded, basesHoldTax, rule, currency,
                    [TaxName(row, TradeNames.Rate), TaxName(row, TradeNames.Base), TaxName(row, TradeNames.Amount)]);
            }
        }
        var addsTax = invoice.Template.Reads.TaxIncluded && !basesHoldTax;
        var bases = rows.Select(row => row.NumberIn(TradeNames.Base) + (addsTax ? row.NumberIn(TradeNames.Amount) : 0))
            .OfType<decimal>().ToImmutableArray();
        if (bases.Length > 0 && bases.Length == rows.Count && subtotal is { } sum)
        {
            yield return new TaxBasesAddUp(
                bases, sum - Discount(invoice, sum) + (invoice.Amount(TradeNames.Freight) ?? 0), rule, currency,
                [.. rows.Select(row => TaxName(row, TradeNames.Base)), .. Present(invoice, TradeNames.Subtotal, TradeNames.Discount, TradeNames.Freight)]);
        }
        if (invoice.Amount(TradeNames.Tax) is not { } tax)
            yield break;
        if (rows.Count > 0)
        {
            yield return new TaxesAddUp(
                [.. rows.Select(row => row.NumberIn(TradeNames.Amount)!.Value)], tax, rule, currency,
                [.. rows.Select(row => TaxName(row, TradeNames.Amount)), TradeNames.Tax]);
        }
        else if (ByLineRates(invoice, tax, subtotal) is { } byLines)
        {
            yield return byLines;
        }
    }

    /// <summary>
    /// Says that the bases of the tax summary hold their tax. Where prices do, vendors print either; the rows tell which,
    /// since the two differ on any base that is worth taxing.
    /// </summary>
    private static bool BasesHoldTax(CapturedInvoice invoice, List<CapturedLine> rows) => invoice.Template.Reads.TaxIncluded && rows.Any(
        row => row.NumberIn(TradeNames.Rate) is { } rate && row.NumberIn(TradeNames.Base) is { } of
            && new TaxFollowsBase(
                rate, of, row.NumberIn(TradeNames.Amount)!.Value, TaxIncluded: true, BaseHoldsTax: true, invoice.Template.Checks, invoice.Template.Reads.Currency, [])
                is { Holds: true, Amount: not 0 });

    /// <summary>Null where the lines have no rates of their own, or freight could be taxed at any of several rates.</summary>
    private static TaxFollowsLines? ByLineRates(CapturedInvoice invoice, decimal tax, decimal? subtotal)
    {
        if (invoice.Lines.IsEmpty || subtotal is not { } sum || sum == 0
            || invoice.Lines.Any(line => line.NumberIn(TradeNames.TaxRate) is null || line.NumberIn(TradeNames.Amount) is null))
            return null;
        var bases = invoice.Lines
            .GroupBy(line => line.NumberIn(TradeNames.TaxRate)!.Value)
            .Select(group => (Rate: group.Key, Base: group.Sum(line => line.NumberIn(TradeNames.Amount)!.Value)))
            .ToImmutableArray();
        var freight = invoice.Amount(TradeNames.Freight) ?? 0;
        if (freight != 0 && bases.Length > 1)
            return null;
        // With one rate the freight is taxed with the rest.
        var share = (sum - Discount(invoice, sum) + freight) / sum;
        return new TaxFollowsLines(
            bases, invoice.Template.Reads.TaxIncluded, share, tax, invoice.Template.Checks, invoice.Template.Reads.Currency,
            [.. invoice.Lines.Select(line => Name(line, TradeNames.TaxRate)), TradeNames.Tax]);
    }

    private static TotalAddsUp? TotalTie(
        CapturedInvoice invoice, decimal? stated, ImmutableArray<decimal> amounts, IEnumerable<string> amountNames)
    {
        if (invoice.Amount(TradeNames.Total) is not { } total)
            return null;
        if (stated is null && amounts.IsEmpty)
            return null;
        var subtotal = stated ?? amounts.Sum();
        var taxes = invoice.Taxes.Select(row => row.NumberIn(TradeNames.Amount)).OfType<decimal>().ToList();
        var included = invoice.Template.Reads.TaxIncluded;
        var tax = included ? 0 : invoice.Amount(TradeNames.Tax) ?? taxes.Sum();
        var members = Present(invoice, TradeNames.Subtotal, TradeNames.Discount, TradeNames.Freight, TradeNames.Total);
        if (stated is null)
            members = [.. members, .. amountNames];
        if (!included && invoice.Amount(TradeNames.Tax) is not null)
            members = members.Add(TradeNames.Tax);
        else if (!included)
        {
            members = [.. members, .. invoice.Taxes.Where(row => row.NumberIn(TradeNames.Amount) is not null)
                .Select(row => TaxName(row, TradeNames.Amount))];
        }
        return new TotalAddsUp(
            subtotal, stated is not null, Discount(invoice, subtotal), invoice.Amount(TradeNames.Freight) ?? 0, tax, total,
            invoice.Template.Checks, invoice.Template.Reads.Currency, members);
    }

    /// <summary>
    /// The order discount as what is taken off: vendors print it as -5.00 or as 5.00, and on a credit note with the
    /// other sign, yet it always makes the subtotal smaller.
    /// </summary>
    private static decimal Discount(CapturedInvoice invoice, decimal subtotal) =>
        Math.Abs(invoice.Amount(TradeNames.Discount) ?? 0) * (subtotal < 0 ? -1 : 1);

    private static IEnumerable<Finding> Missing(CapturedInvoice invoice)
    {
        foreach (var name in new[] { TradeNames.InvoiceNumber, TradeNames.InvoiceDate, TradeNames.Currency, TradeNames.Total })
        {
            // A currency that the template reads by is known without being printed.
            if (name == TradeNames.Currency || invoice.Find(name) is not null
                || invoice.Findings.Any(finding => finding.About.Contains(name)))
                continue;
            yield return Finding.Hold("value-missing", $"The {TradeNames.Spoken(name)} is missing; no invoice is clear without it.", name);
        }
    }

    private static IEnumerable<Finding> Untied(CapturedInvoice invoice, ImmutableArray<Tie> ties)
    {
        var inTies = ties.SelectMany(tie => tie.Members).ToHashSet();
        var amounts = invoice.Fields.Where(field => TradeNames.StatedAmounts.Contains(field.Name)).Select(field => (Name: field.Name, field))
            .Concat(invoice.Lines.Where(line => line.Find(TradeNames.Amount) is not null)
                .Select(line => (Name: Name(line, TradeNames.Amount), line.Find(TradeNames.Amount)!)))
            .Concat(invoice.Taxes.Where(row => row.Find(TradeNames.Amount) is not null)
                .Select(row => (Name: TaxName(row, TradeNames.Amount), row.Find(TradeNames.Amount)!)));
        foreach (var (name, value) in amounts.Where(amount => !inTies.Contains(amount.Name)))
        {
            yield return Finding.Hold(
                "amount-untied",
                $"{invoice.Template.Reads.Currency.Show(value.Number ?? 0)} ({name}) could not be checked: no sum of this invoice contains it.",
                name);
        }
    }

    private static ImmutableArray<string> Present(CapturedInvoice invoice, params ReadOnlySpan<string> fields)
    {
        var present = ImmutableArray.CreateBuilder<string>();
        foreach (var field in fields)
        {
            if (invoice.Find(field) is not null)
                present.Add(field);
        }
        return present.ToImmutable();
    }

    private static string Name(CapturedLine line, string column) =>
        string.Create(CultureInfo.InvariantCulture, $"lines[{line.Number}].{column}");

    private static string TaxName(CapturedLine row, string column) =>
        string.Create(CultureInfo.InvariantCulture, $"taxes[{row.Number}].{column}");
}
