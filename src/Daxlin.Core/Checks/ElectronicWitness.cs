using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.Capture;
using Daxlin.Core.Electronic;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Checks;

/// <summary>Holds what was captured from the pages against the electronic invoices that the document carries.</summary>
/// <remarks>
/// What only one of both states is no difference: many pages print no account, many electronic invoices state no lines. Credit notes
/// state their amounts without a sign where pages print a minus, so the page's sign counts. Where the page's amounts hold the tax, only
/// what is after tax can be compared.
/// </remarks>
public static class ElectronicWitness
{
    /// <summary>The code of a difference, in figures or in words.</summary>
    public const string Differs = "electronic-differs";

    /// <summary>The code of an electronic invoice with another number.</summary>
    public const string Other = "electronic-other";

    /// <summary>The code of one that cannot be read.</summary>
    public const string Unread = "electronic-unread";

    private static readonly ImmutableArray<string> Amounts =
        [TradeNames.Subtotal, TradeNames.Discount, TradeNames.Freight, TradeNames.Tax, TradeNames.Total, TradeNames.AlreadyPaid, TradeNames.AmountDue];

    /// <summary>Those that vendors print with a minus or without: they take something off in any case.</summary>
    private static readonly ImmutableArray<string> TakenOff = [TradeNames.Discount, TradeNames.AlreadyPaid];

    private static readonly ImmutableArray<string> Figures = [TradeNames.Quantity, TradeNames.UnitPrice, TradeNames.DiscountAmount, TradeNames.TaxRate, TradeNames.Amount];

    /// <summary>Those that are the same before tax and after it.</summary>
    private static readonly ImmutableArray<string> FiguresWithoutTax = [TradeNames.Quantity, TradeNames.TaxRate];

    private static readonly ImmutableArray<string> Texts =
        [TradeNames.InvoiceDate, TradeNames.DueDate, TradeNames.Currency, TradeNames.Iban, TradeNames.VendorTaxId, TradeNames.PurchaseOrder, TradeNames.CreditedInvoice];

    /// <summary>Says that an electronic invoice has the number of a captured one.</summary>
    public static bool IsOf(CapturedInvoice invoice, ElectronicInvoice electronic) =>
        invoice.Find(TradeNames.InvoiceNumber) is { } number && IsSame(TradeNames.InvoiceNumber, number.Value, electronic.TextOf(TradeNames.InvoiceNumber));

    /// <summary>Each figure that both state.</summary>
    public static IEnumerable<Tie> Ties(CapturedInvoice invoice)
    {
        foreach (var file in invoice.Electronic)
        {
            if (file.Invoice is not { } electronic || !IsOf(invoice, electronic))
                continue;
            // Lines first: where one differs, the sums below it only follow.
            var lines = electronic.Lines.Length == invoice.Lines.Length ? Paired(invoice.Lines, electronic.Lines) : [];
            foreach (var tie in lines.SelectMany(pair => LineTies(invoice, file.Name, pair.Line, pair.Stated))
                .Concat(TaxRows(invoice, file.Name, electronic)).Concat(HeaderTies(invoice, file.Name, electronic)))
            {
                yield return tie;
            }
        }
    }

    /// <summary>What differs and is no figure.</summary>
    public static IEnumerable<Finding> Findings(CapturedInvoice invoice)
    {
        foreach (var file in invoice.Electronic)
        {
            if (file.Invoice is not { } electronic)
                yield return Finding.Hold(Unread, $"The document carries {file.Name}, which looks like an electronic invoice and cannot be read: {file.Fault}");
            else if (!IsOf(invoice, electronic))
                yield return OtherNumber(invoice, file.Name, electronic);
            else
            {
                foreach (var finding in Differences(invoice, file.Name, electronic))
                    yield return finding;
            }
        }
    }

    /// <summary>What an electronic invoice has to say of an invoice, in a sentence.</summary>
    /// <example>The electronic invoice brinewood.xml (CII) states 37 of these figures, all alike.</example>
    public static string Sentence(CheckedInvoice invoice, ElectronicFile file)
    {
        if (file.Invoice is not { } electronic)
            return $"The document carries {file.Name}, which cannot be read.";
        var name = $"The electronic invoice {file.Name} ({electronic.Syntax.ToString().ToUpperInvariant()})";
        if (!IsOf(invoice.Captured, electronic))
            return $"{name} has another number.";
        var ties = invoice.Ties.OfType<AgreesWithElectronic>().Where(tie => tie.File == file.Name).ToList();
        var differing = ties.Count(tie => !tie.Holds);
        var figures = $"{ties.Count.ToString(CultureInfo.InvariantCulture)} of these figures";
        return ties.Count == 0 ? $"{name} states none of these figures."
            : differing == 0 ? $"{name} states {figures}, all alike." : $"{name} states {figures}, {differing.ToString(CultureInfo.InvariantCulture)} of them otherwise.";
    }

    private static Finding OtherNumber(CapturedInvoice invoice, string file, ElectronicInvoice electronic)
    {
        var total = electronic.Amount(TradeNames.Total) is { } amount ? $" over {Money(amount, CurrencyOf(electronic) ?? invoice.Template.Reads.Currency)}" : "";
        var here = invoice.Find(TradeNames.InvoiceNumber) is { } number ? $"the page says {number.Value}" : "no number was captured here";
        return Finding.Hold(
            Other, $"The electronic invoice {file} {(electronic.TextOf(TradeNames.InvoiceNumber) is { Length: > 0 } own ? $"is number {own}" : "has no number, and is")}{total}; {here}. One of the two is not meant for this invoice.", TradeNames.InvoiceNumber);
    }

    private static IEnumerable<Finding> Differences(CapturedInvoice invoice, string file, ElectronicInvoice electronic)
    {
        if (electronic.IsCreditNote != invoice.IsCreditNote)
        {
            yield return Finding.Hold(
                Differs, $"The electronic invoice {file} is {Kind(electronic.IsCreditNote)}; the page was taken for {Kind(invoice.IsCreditNote)}.", TradeNames.Total);
        }
        foreach (var name in Texts)
        {
            var stated = electronic.Fields.Where(value => value.Name == name).Select(value => value.Value).Distinct().ToList();
            // Amounts are posted in the template's currency, whether or not a page prints one.
            var captured = invoice.Find(name)?.Value ?? (name == TradeNames.Currency ? invoice.Template.Reads.Currency.Code : null);
            if (stated.Count > 0 && captured is not null && !stated.Exists(one => IsSame(name, captured, one)))
                yield return Finding.Hold(Differs, $"{Capital(TradeNames.Spoken(name))}: the electronic invoice {file} states {string.Join(" or ", stated)}; the page states {captured}.", name);
        }
        if (electronic.Lines.Length > 0 && electronic.Lines.Length != invoice.Lines.Length && !invoice.Template.Reads.TaxIncluded)
        {
            var currency = invoice.Template.Reads.Currency;
            yield return Finding.Hold(
                Differs,
                $"The electronic invoice {file} has {Rows(electronic.Lines.Length)} to {Money(electronic.Lines.Sum(line => line.NumberIn(TradeNames.Amount) ?? 0), currency)}; "
                + $"{Rows(invoice.Lines.Length)} to {Money(invoice.Lines.Sum(line => line.NumberIn(TradeNames.Amount) ?? 0), currency)} {(invoice.Lines.Length == 1 ? "was" : "were")} captured from the page.",
                BlockRule.Lines);
        }
        foreach (var rate in RatesWithTax(electronic).Where(_ => invoice.Taxes.Any(row => row.NumberIn(TradeNames.Rate) is not null)))
        {
            if (invoice.Taxes.All(row => row.NumberIn(TradeNames.Rate) != rate))
            {
                var tax = electronic.Taxes.Where(row => row.NumberIn(TradeNames.Rate) == rate).Sum(row => row.NumberIn(TradeNames.Amount) ?? 0);
                yield return Finding.Hold(Differs, $"The electronic invoice {file} states {Money(tax, invoice.Template.Reads.Currency)} of tax at {Text(rate)} %; the page has no such rate.", BlockRule.Taxes);
            }
        }
    }

    private static IEnumerable<decimal> RatesWithTax(ElectronicInvoice electronic) =>
        electronic.Taxes.Where(row => row.NumberIn(TradeNames.Amount) is not (null or 0)).Select(row => row.NumberIn(TradeNames.Rate)).OfType<decimal>().Distinct();

    private static IEnumerable<Tie> HeaderTies(CapturedInvoice invoice, string file, ElectronicInvoice electronic)
    {
        foreach (var name in Amounts)
        {
            // Before tax, the page's amounts are others than the standard's where they hold it.
            if (invoice.Template.Reads.TaxIncluded && name is TradeNames.Subtotal or TradeNames.Discount or TradeNames.Freight)
                continue;
            if (invoice.Amount(name) is not { } captured || electronic.Amount(name) is not { } stated)
                continue;
            // Vendors print either the sum of the lines as their subtotal, or what is left of it to be taxed.
            var other = name == TradeNames.Subtotal ? electronic.Amount(ElectronicInvoice.TaxedSum) : null;
            yield return TieOf(invoice, file, name, captured, TakenOff.Contains(name), true, other is { } sum ? [stated, sum] : [stated]);
        }
    }

    private static IEnumerable<Tie> LineTies(CapturedInvoice invoice, string file, CapturedLine line, StatedRow stated)
    {
        foreach (var column in invoice.Template.Reads.TaxIncluded ? FiguresWithoutTax : Figures)
        {
            if (line.NumberIn(column) is not { } captured || stated.NumbersIn(column).ToArray() is not { Length: > 0 } numbers)
                continue;
            if (column == TradeNames.UnitPrice)
                numbers = [.. numbers.SelectMany(price => PricesFor(price, line, stated))];
            // Pages print prices and quantities with fewer decimals: 3.33 is what 3.3333 is printed as.
            if (column is TradeNames.UnitPrice or TradeNames.Quantity)
                numbers = [.. numbers.Select(number => AsPrinted(number, captured))];
            // Where the page takes a discount off, the standard's net price is the one after it.
            if (column == TradeNames.UnitPrice && NetPrice(line, captured) is { } net)
                numbers = [.. numbers.Select(number => IsRounded(number, net) ? captured : number)];
            yield return TieOf(
                invoice, file, ValueNames.Of(BlockRule.Lines, line.Number, column), captured, column == TradeNames.DiscountAmount, column is TradeNames.Amount or TradeNames.UnitPrice or TradeNames.DiscountAmount, numbers);
        }
    }

    /// <summary>A figure with fewer decimals is not one that was rounded to be printed: a page that says 2 does not mean 2.4.</summary>
    private const int FewestDecimals = 2;

    /// <summary>A number with no more decimals than the page prints of it, where it is the printed one then.</summary>
    private static decimal AsPrinted(decimal stated, decimal captured)
    {
        var rounded = Math.Round(Math.Abs(stated), captured.Scale, MidpointRounding.AwayFromZero);
        return captured.Scale >= FewestDecimals && stated.Scale > captured.Scale && rounded == Math.Abs(captured) ? Math.Sign(stated) * rounded : stated;
    }

    /// <summary>A row's price with its discounts taken off; null for a row without.</summary>
    private static decimal? NetPrice(CapturedLine line, decimal price)
    {
        var net = price;
        foreach (var name in TradeNames.DiscountPercents)
            net *= 1 - Math.Abs(line.NumberIn(name) ?? 0) / 100;
        if (line.NumberIn(TradeNames.DiscountAmount) is { } off && line.NumberIn(TradeNames.Quantity) is { } quantity and not 0)
            net -= Math.Abs(off) * (line.NumberIn(TradeNames.PriceBasis) ?? 1) / Math.Abs(quantity);
        return net == price ? null : net;
    }

    /// <summary>Says that a number is another one rounded to as many decimals as it has: 2.66 is 2.655.</summary>
    private static bool IsRounded(decimal rounded, decimal exact) =>
        rounded.Scale >= FewestDecimals && Math.Abs(rounded - exact) <= new decimal(5, 0, 0, false, (byte)Math.Min(rounded.Scale + 1, 28));

    /// <summary>A price as stated, and as it is for so many pieces as the page's is for.</summary>
    private static IEnumerable<decimal> PricesFor(decimal price, CapturedLine line, StatedRow stated)
    {
        var (ofPage, ofFile) = (line.NumberIn(TradeNames.PriceBasis) ?? 1, stated.NumberIn(TradeNames.PriceBasis) ?? 1);
        if (ofPage == ofFile || ofFile == 0 || ofPage == 0)
            return [price];
        return [price * ofPage / ofFile];
    }

    /// <summary>The taxes of each rate, several rows at one rate together: a file parts them by category, and a page as it likes.</summary>
    private static IEnumerable<Tie> TaxRows(CapturedInvoice invoice, string file, ElectronicInvoice electronic)
    {
        foreach (var rows in invoice.Taxes.Where(row => row.NumberIn(TradeNames.Rate) is not null).GroupBy(row => row.NumberIn(TradeNames.Rate)!.Value))
        {
            var stated = electronic.Taxes.Where(one => one.NumberIn(TradeNames.Rate) == rows.Key).ToList();
            if (stated.Count == 0)
                continue;
            foreach (var column in invoice.Template.Reads.TaxIncluded ? [TradeNames.Amount] : new[] { TradeNames.Base, TradeNames.Amount })
            {
                var own = rows.Where(row => row.NumberIn(column) is not null).ToList();
                if (own.Count < rows.Count())
                    continue;
                var tie = TieOf(
                    invoice, file, ValueNames.Of(BlockRule.Taxes, own[0].Number, column), own.Sum(row => row.NumberIn(column)!.Value), false, true, [stated.Sum(one => one.NumberIn(column) ?? 0)]);
                yield return own.Count == 1 ? tie
                    : tie with { Spoken = $"tax rows at {Text(rows.Key)} %, {column}", Members = [.. own.Select(row => ValueNames.Of(BlockRule.Taxes, row.Number, column))] };
            }
        }
    }

    /// <param name="stated">What the electronic invoice may mean by it; the one that agrees counts, else the first.</param>
    private static AgreesWithElectronic TieOf(
        CapturedInvoice invoice, string file, string name, decimal captured, bool hasAnySign, bool isMoney, decimal[] stated)
    {
        if (hasAnySign || invoice.IsCreditNote)
            stated = [.. stated.Select(one => captured < 0 ? -Math.Abs(one) : Math.Abs(one))];
        var (best, found) = (stated[0], false);
        foreach (var one in stated)
        {
            if (one == captured && !found)
                (best, found) = (one, true);
        }
        return new AgreesWithElectronic(ValueNames.Spoken(name), file, best, captured, isMoney, invoice.Template.Reads.Currency, [name]);
    }

    /// <summary>Lines in their order; where the two have the same amounts in another order, by amount.</summary>
    private static IEnumerable<(CapturedLine Line, StatedRow Stated)> Paired(ImmutableArray<CapturedLine> lines, ImmutableArray<StatedRow> stated)
    {
        decimal? Size(decimal? amount) => amount is { } number ? Math.Abs(number) : null;
        var (here, there) = (lines.Select(line => Size(line.NumberIn(TradeNames.Amount))).ToList(), stated.Select(row => Size(row.NumberIn(TradeNames.Amount))).ToList());
        if (!here.SequenceEqual(there) && here.Order().SequenceEqual(there.Order()))
        {
            // Both sorts are stable, so lines of one amount keep their order.
            return lines.OrderBy(line => Size(line.NumberIn(TradeNames.Amount))).Zip(stated.OrderBy(row => Size(row.NumberIn(TradeNames.Amount))));
        }
        return lines.Zip(stated);
    }

    /// <summary>The end of a number must have so many letters and figures to tell it.</summary>
    private const int ShortestEnd = 3;

    private static bool IsSame(string name, string captured, string stated)
    {
        var (here, there) = (SeenBefore.Squash(captured), SeenBefore.Squash(stated));
        return here == there
            // "PO 4711" on the page is 4711 in the file.
            || (name is TradeNames.PurchaseOrder or TradeNames.CreditedInvoice or TradeNames.VendorTaxId && here.Length >= ShortestEnd && there.Length >= ShortestEnd
                && (here.EndsWith(there, StringComparison.Ordinal) || there.EndsWith(here, StringComparison.Ordinal)));
    }

    private static Currency? CurrencyOf(ElectronicInvoice electronic) => Currency.Find(electronic.TextOf(TradeNames.Currency));

    private static string Money(decimal amount, Currency currency) => currency.Show(amount);

    private static string Kind(bool isCreditNote) => isCreditNote ? "a credit note" : "an invoice";

    private static string Rows(int count) => count == 1 ? "1 row that comes" : $"{count.ToString(CultureInfo.InvariantCulture)} rows that come";

    private static string Text(decimal number) => number.ToString(CultureInfo.InvariantCulture);

    /// <summary>With a capital at the beginning of a sentence.</summary>
    internal static string Capital(string text) => char.ToUpperInvariant(text[0]) + text[1..];
}
