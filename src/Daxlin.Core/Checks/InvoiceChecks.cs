using System.Collections.Frozen;
using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.Capture;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Checks;

/// <summary>Recalculates a captured invoice and says what does not add up.</summary>
public static class InvoiceChecks
{
    public static CheckedInvoice Check(CapturedInvoice invoice)
    {
        var ties = TiesOf(invoice).ToImmutableArray();
        var unproved = Unproved.Of(invoice, ties).ToList();
        var tied = ties.Where(tie => tie.Holds).SelectMany(tie => tie.Members).ToImmutableHashSet();
        var findings = invoice.Findings
            .AddRange(Missing(invoice))
            .AddRange(ties.Where(tie => !tie.Holds).Select(tie => tie.ToFinding()))
            .AddRange(DatesOutOfOrder(invoice))
            .AddRange(PricesForNothing(invoice))
            .AddRange(TaxTies.Untaxed(invoice))
            .AddRange(TaxTies.Unrated(invoice, ties))
            .AddRange(ElectronicWitness.Findings(invoice))
            .AddRange(Untied(invoice, unproved));
        return new CheckedInvoice(invoice, ties, findings, tied, [.. unproved.Select(value => value.Name)]);
    }

    /// <summary>The ties of one item row alone: its own equation, and those of lists under it.</summary>
    public static ImmutableArray<Tie> OfLine(CapturedLine line, CapturedInvoice invoice) =>
        LineTie(line, invoice) is { } tie ? [tie, .. UnderTies(line, invoice)] : [.. UnderTies(line, invoice)];

    public static IEnumerable<Tie> TiesOf(CapturedInvoice invoice) => TiesOf(invoice, line => OfLine(line, invoice));

    /// <param name="ofLine">The ties of a row; whoever weighs an invoice many times, with one row changed each time, keeps those of the others.</param>
    public static IEnumerable<Tie> TiesOf(CapturedInvoice invoice, Func<CapturedLine, ImmutableArray<Tie>> ofLine)
    {
        var (rule, currency) = (invoice.Template.Checks, invoice.Template.Reads.Currency);
        foreach (var line in invoice.Lines)
        {
            foreach (var tie in ofLine(line))
                yield return tie;
        }

        var amounts = invoice.Lines.Select(line => line.NumberIn(TradeNames.Amount)).OfType<decimal>().ToImmutableArray();
        var amountNames = invoice.Lines.Where(line => line.NumberIn(TradeNames.Amount) is not null)
            .Select(line => Name(line, TradeNames.Amount));
        var stated = invoice.Amount(TradeNames.Subtotal);
        if (stated is { } subtotal && amounts.Length > 0)
            yield return new LinesAddUp(amounts, subtotal, rule, currency, [.. amountNames, TradeNames.Subtotal]);

        foreach (var sum in invoice.Sums)
            yield return new RowsAboveAddUp(sum.Text, sum.Counted, sum.Stated, rule, currency);
        var taxedSum = stated ?? (amounts.Length > 0 ? amounts.Sum() : (decimal?)null);
        foreach (var tie in TaxTies.Of(invoice, taxedSum, Discount(invoice, taxedSum ?? 0)))
            yield return tie;
        if (TotalTie(invoice, stated, amounts, amountNames) is { } total)
            yield return total;
        if (AmountDueTie(invoice) is { } due)
            yield return due;
        foreach (var own in OwnTie.Of(invoice))
            yield return own;
        foreach (var agrees in ElectronicWitness.Ties(invoice))
            yield return agrees;
    }

    private static LineMultipliesOut? LineTie(CapturedLine line, CapturedInvoice invoice)
    {
        if (line.NumberIn(TradeNames.Amount) is not { } amount || line.NumberIn(TradeNames.UnitPrice) is not { } price)
            return null;
        // A block without a quantity column counts every line as one; a quantity that is missing in one row is a finding.
        var quantity = line.NumberIn(TradeNames.Quantity);
        if (quantity is null && invoice.Template.Blocks.Any(block => block.Name == line.Block && block.Columns.Any(column => column.Name == TradeNames.Quantity)))
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

    /// <summary>Where the template says that numbers of a list under a row add up to the row's own.</summary>
    private static IEnumerable<RowsUnderAddUp> UnderTies(CapturedLine line, CapturedInvoice invoice)
    {
        var rules = invoice.Template.Blocks.FirstOrDefault(block => block.Name == line.Block)?.RowsUnder ?? [];
        foreach (var (rule, column) in rules.SelectMany(rule => rule.AddUp.Select(column => (rule, column))))
        {
            if (line.NumberIn(column) is not { } whole || line.Under.FirstOrDefault(list => list.Name == rule.Name) is not { } list)
                continue;
            var parts = list.Rows.Where(row => row.NumberIn(column) is not null).ToList();
            yield return new RowsUnderAddUp(
                line.Number, rule.Name, column, [.. parts.Select(row => row.NumberIn(column)!.Value)], whole, invoice.Template.Checks,
                invoice.Template.Reads.Currency,
                [Name(line, column), .. parts.Select(row => ValueNames.Under(BlockRule.Lines, line.Number, rule.Name, row.Number, column))]);
        }
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

    /// <remarks>
    /// An amount due without anything paid before may be less for a reason that the template does not speak of: then it is no sum
    /// that does not come out, but an amount that no sum contains.
    /// </remarks>
    private static AmountDueAddsUp? AmountDueTie(CapturedInvoice invoice)
    {
        if (invoice.Amount(TradeNames.Total) is not { } total || invoice.Amount(TradeNames.AmountDue) is not { } due)
            return null;
        var paid = invoice.Amount(TradeNames.AlreadyPaid);
        var tie = new AmountDueAddsUp(
            total, Math.Abs(paid ?? 0) * (total < 0 ? -1 : 1), due, invoice.Template.Checks, invoice.Template.Reads.Currency,
            Present(invoice, TradeNames.Total, TradeNames.AlreadyPaid, TradeNames.AmountDue));
        return paid is null && !tie.Holds ? null : tie;
    }

    /// <summary>
    /// The order discount as what is taken off: vendors print it as -5.00 or as 5.00, and on a credit note with the
    /// other sign, yet it always makes the subtotal smaller.
    /// </summary>
    private static decimal Discount(CapturedInvoice invoice, decimal subtotal) =>
        Math.Abs(invoice.Amount(TradeNames.Discount) ?? 0) * (subtotal < 0 ? -1 : 1);

    private static IEnumerable<Finding> Missing(CapturedInvoice invoice)
    {
        if (invoice.Lines.IsEmpty && invoice.Template.Blocks.Any(block => block.HoldsItems) && !invoice.Findings.Any(finding => finding.Code == "no-rows"))
            yield return Finding.Hold("no-rows", "No item row was found on this invoice.", "lines");
        foreach (var name in new[] { TradeNames.InvoiceNumber, TradeNames.InvoiceDate, TradeNames.Currency, TradeNames.Total })
        {
            // A currency that the template reads by is known without being printed.
            if (name == TradeNames.Currency || invoice.Find(name) is not null
                || invoice.Findings.Any(finding => finding.About.Contains(name)))
                continue;
            yield return Finding.Hold("value-missing", $"The {TradeNames.Spoken(name)} is missing; no invoice is clear without it.", name);
        }
    }

    /// <summary>A due date before the invoice's own: one of the two is another date, or was read in another order of day and month.</summary>
    private static IEnumerable<Finding> DatesOutOfOrder(CapturedInvoice invoice)
    {
        if (invoice.Find(TradeNames.InvoiceDate) is { Kind: ValueKind.Date } date && invoice.Find(TradeNames.DueDate) is { Kind: ValueKind.Date } due
            && string.CompareOrdinal(due.Value, date.Value) < 0)
        {
            yield return Finding.Hold(
                "due-before-date", $"The invoice is dated {date.Value} and due on {due.Value}, which is before.", TradeNames.InvoiceDate, TradeNames.DueDate);
        }
    }

    /// <summary>A price for 0 pieces is none: the line is worked out as if it were for one, and the printed 0 is another figure.</summary>
    private static IEnumerable<Finding> PricesForNothing(CapturedInvoice invoice) =>
        from line in invoice.Lines
        where line.NumberIn(TradeNames.PriceBasis) <= 0
        select Finding.Hold(
            "basis-zero", $"Row {line.Number.ToString(CultureInfo.InvariantCulture)}: the price basis is {line.Find(TradeNames.PriceBasis)!.Value}; a price is for one piece at least, or for a part of it.",
            Name(line, TradeNames.PriceBasis));

    private static IEnumerable<Finding> Untied(
        CapturedInvoice invoice, IEnumerable<(string Name, CapturedValue Value, bool MayPass)> unproved)
    {
        foreach (var (name, value, mayPass) in unproved)
        {
            if (Unproved.Holds(value, mayPass))
            {
                yield return Finding.Hold(
                    "amount-untied",
                    $"{invoice.Template.Reads.Currency.Show(value.Number ?? 0)} ({name}) could not be checked: no sum of this invoice contains it. "
                    + "If it may pass unchecked, the template can say “untied”: “allowed” for it.",
                    name);
            }
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

    private static string Name(CapturedLine line, string column) => ValueNames.Of(BlockRule.Lines, line.Number, column);

    private static string TaxName(CapturedLine row, string column) => ValueNames.Of(BlockRule.Taxes, row.Number, column);
}
