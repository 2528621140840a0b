using System.Collections.Immutable;
using Daxlin.Core.Posting.Coding;
using Daxlin.Core.Posting.Layouts;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;
using static Daxlin.Core.Posting.Ubl.UblFigures;

namespace Daxlin.Core.Posting.Ubl;

/// <summary>Makes of what a layout writes of an invoice the terms of EN 16931.</summary>
/// <remarks>
/// Where a page leaves things to its reader, they are said: a row without a price is one piece of its amount, or its quantity has the
/// amount for a price; a row without a rate has the only rate that the invoice has; several tax rows of a rate are one.
/// </remarks>
internal sealed class UblReading
{
    private const string Piece = "C62";

    private readonly LaidOutInvoice laidOut;
    private readonly Currency currency;
    private readonly LaidOutRecord header;
    private readonly List<LaidOutRecord> lines;
    private readonly List<LaidOutRecord> taxes;

    /// <summary>-1 for a document by which the seller owes the amounts.</summary>
    private readonly int sign;

    private readonly ImmutableArray<string>.Builder faults = ImmutableArray.CreateBuilder<string>();

    private UblReading(LaidOutInvoice laidOut, LaidOutRecord header)
    {
        (this.laidOut, this.header) = (laidOut, header);
        lines = [.. laidOut.Records.Where(record => record.Table.Records == LayoutRecords.Lines)];
        taxes = [.. laidOut.Records.Where(record => record.Table.Records == LayoutRecords.Taxes)];
        currency = Currency.Find(Text(header, UblColumns.Currency)) ?? new Currency(laidOut.Invoice.Currency, 2);
        var total = Number(header, UblColumns.Total) ?? 0;
        sign = total < 0 || (total == 0 && laidOut.Invoice.IsCreditNote) ? -1 : 1;
    }

    /// <returns>No invoice where something must be said first; what that is, then stands in the faults.</returns>
    public static (UblInvoice? Invoice, ImmutableArray<string> Faults) Of(LaidOutInvoice laidOut)
    {
        if (laidOut.Records.FirstOrDefault(record => record.Table.Records == LayoutRecords.Invoices) is not { } header)
            return (null, ["The layout writes no record of the invoice itself."]);
        var reading = new UblReading(laidOut, header);
        var invoice = reading.Read();
        return reading.faults.Count > 0 ? (null, reading.faults.ToImmutable()) : (invoice, []);
    }

    private UblInvoice Read()
    {
        var discount = Math.Abs(Number(header, UblColumns.Discount) ?? 0);
        var charge = sign * (Number(header, UblColumns.Freight) ?? 0);
        // A charge of less than nothing is taken off.
        if (charge < 0)
            (discount, charge) = (discount - charge, 0);
        var stated = taxes.ConvertAll(row => (Rate: Number(row, UblColumns.Rate), Base: sign * Number(row, UblColumns.Base), Amount: sign * (Number(row, UblColumns.Tax) ?? 0)));
        var known = stated.Select(row => row.Rate).Concat(lines.Select(line => Number(line, UblColumns.TaxRate))).OfType<decimal>().Distinct().ToList();
        // A tax of nothing needs no rate to be told.
        var only = known is [var one] ? one : known.Count == 0 && stated.TrueForAll(row => row.Amount == 0) ? 0 : (decimal?)null;
        if (lines.Count == 0)
            faults.Add("It has no row (BR-16).");
        var items = lines.Select((line, at) => Line(line, at + 1, only)).ToImmutableArray();
        if (faults.Count == 0)
            (items, discount, charge) = WithoutTax(items, discount, charge, [.. stated.Select(row => (row.Rate ?? only, row.Amount))]);
        if (only is null && discount == 0 && charge == 0 && stated is [(null, _, var whole)] && PartedByRate(items, whole) is { } parted)
            stated = parted;
        if (stated.Exists(row => row.Rate is null) && only is null)
            faults.Add($"The tax of {currency.Show(stated.First(row => row.Rate is null).Amount)} has no rate, and the rows have {(known.Count == 0 ? "none" : "several")}.");
        if (faults.Count > 0)
            return Invoice(items, [], []);
        var rates = items.Select(line => line.Rate).Concat(stated.Select(row => row.Rate ?? only!.Value)).Distinct().OrderDescending().Select(rate =>
        {
            var rows = stated.FindAll(row => (row.Rate ?? only) == rate);
            var sum = items.Where(line => line.Rate == rate).Sum(line => line.Amount);
            return (Rate: rate, Lines: sum, Base: BaseOf(rows.ConvertAll(row => row.Base), sum, discount, charge, only is not null), Amount: rows.Sum(row => row.Amount));
        }).ToList();
        var allowances = UblSharing.Of(rates.ConvertAll(one => (one.Rate, one.Lines, one.Base)), discount, charge);
        if (allowances is null)
        {
            faults.Add(
                $"At which rate {Spoken(discount, charge)} taxed cannot be told: "
                + string.Join("; ", rates.Select(one => $"at {Plain(one.Rate)} % the rows come to {currency.Show(one.Lines)} and the base is {currency.Show(one.Base)}")) + ".");
        }
        return Invoice(items, allowances ?? [], [.. rates.Select(one => new UblTax(one.Rate, one.Base, one.Amount))]);
    }

    /// <summary>The invoice that is credited; what takes an invoice back credits that one, under the vendor's number.</summary>
    private string Credited => Text(header, UblColumns.Credited) is { Length: > 0 } credited ? credited
        : sign < 0 && !laidOut.Invoice.IsCreditNote ? laidOut.Invoice.Fields.GetValueOrDefault(TradeNames.InvoiceNumber, "") : "";

    private string Spoken(decimal discount, decimal charge) =>
        charge == 0 ? $"the discount of {currency.Show(discount)} is"
        : discount == 0 ? $"the charge of {currency.Show(charge)} is" : $"the discount of {currency.Show(discount)} and the charge of {currency.Show(charge)} are";

    /// <summary>Rows that hold the tax, as those of a shop's till do, without it: an electronic invoice has no others.</summary>
    /// <remarks>1 × 120.00 of which 20.00 are the tax at 20 % is 1 × 100.00.</remarks>
    private (ImmutableArray<UblLine> Items, decimal Discount, decimal Charge) WithoutTax(
        ImmutableArray<UblLine> items, decimal discount, decimal charge, ImmutableArray<(decimal? Rate, decimal Tax)> stated)
    {
        var (tax, total) = (stated.Sum(row => row.Tax), sign * (Number(header, UblColumns.Total) ?? 0));
        if (tax == 0 || items.Sum(line => line.Amount) - discount + charge != total)
            return (items, discount, charge);
        if (NetAmounts.Of([.. items.Select(line => (line.Amount, (decimal?)line.Rate)), (charge, null), (-discount, null)], stated, currency.MinorDigits) is not { } net)
        {
            faults.Add(
                $"The rows hold the tax of {currency.Show(tax)}: they come to the total of {currency.Show(total)}. An electronic invoice has amounts without it, "
                + "and which of them holds how much cannot be told from their rates (BR-CO-15).");
            return (items, discount, charge);
        }
        return ([.. items.Select((line, at) => WithAmount(line, net[at]))], -net[^1], net[^2]);
    }

    /// <summary>Digits that a price without its tax has behind those of the currency.</summary>
    private const int PriceDigits = 6;

    private UblLine WithAmount(UblLine line, decimal amount)
    {
        var exact = line.Discount == 0 && line.Quantity != 0 ? amount * line.PriceBasis / line.Quantity : line.UnitPrice * 100 / (100 + line.Rate);
        var price = Math.Round(exact, currency.MinorDigits + PriceDigits, MidpointRounding.AwayFromZero);
        return line with { UnitPrice = price, Discount = Rounded(line.Quantity * price / line.PriceBasis, currency) - amount, Amount = amount };
    }

    /// <summary>The tax of each rate, where only the sum of them is stated and the rows come to it rate by rate.</summary>
    private List<(decimal? Rate, decimal? Base, decimal Amount)>? PartedByRate(ImmutableArray<UblLine> items, decimal whole)
    {
        var rows = items.GroupBy(line => line.Rate).Select(group => (Rate: group.Key, Sum: group.Sum(line => line.Amount)))
            .Select(one => ((decimal?)one.Rate, (decimal?)one.Sum, TaxOf(one.Sum, one.Rate, currency))).ToList();
        return rows.Sum(row => row.Item3) == whole ? rows : null;
    }

    /// <summary>What is taxed at a rate: as stated, or what it must be.</summary>
    private static decimal BaseOf(List<decimal?> stated, decimal lines, decimal discount, decimal charge, bool isOnly) =>
        stated.Count > 0 && stated.TrueForAll(one => one is not null) ? stated.Sum(one => one!.Value)
        : isOnly ? lines - discount + charge
        : lines;

    private UblInvoice Invoice(ImmutableArray<UblLine> items, ImmutableArray<UblAllowance> onWhole, ImmutableArray<UblTax> rates) => new(
        sign < 0, Text(header, UblColumns.Number), Value(header, UblColumns.Issued) as DateOnly?, Value(header, UblColumns.Due) as DateOnly?, currency,
        Text(header, UblColumns.Order), Credited,
        Text(header, UblColumns.Note), Text(header, UblColumns.Terms),
        Party(UblColumns.Seller, UblColumns.SellerTaxId, UblColumns.SellerCountry), Party(UblColumns.Buyer, UblColumns.BuyerTaxId, UblColumns.BuyerCountry),
        Iban.Bare(Text(header, UblColumns.Iban)), Text(header, UblColumns.Untaxed), Text(header, UblColumns.Exemption),
        items, onWhole, rates, sign * (Number(header, UblColumns.Total) ?? 0), Math.Abs(Number(header, UblColumns.Paid) ?? 0), sign * Number(header, UblColumns.AmountDue));

    /// <summary>A number for VAT has no blanks and begins with its country (BR-CO-09), whether or not the page prints it: 0005521 T of IE is IE0005521T.</summary>
    private UblParty Party(string name, string taxId, string country)
    {
        var (bare, of) = (string.Concat(Text(header, taxId).Where(char.IsAsciiLetterOrDigit)).ToUpperInvariant(), Text(header, country));
        var hasCountry = bare.Length >= 2 && char.IsAsciiLetter(bare[0]) && char.IsAsciiLetter(bare[1]);
        return new UblParty(Text(header, name), bare.Length == 0 || hasCountry ? bare : of + bare, of);
    }

    private UblLine Line(LaidOutRecord record, int number, decimal? only)
    {
        var amount = sign * (Number(record, UblColumns.Amount) ?? 0);
        var (quantity, price, basis) = (sign * Number(record, UblColumns.Quantity), Number(record, UblColumns.UnitPrice), Number(record, UblColumns.PriceBasis) ?? 1);
        if (price is null)
            (quantity, price, basis) = quantity is null or 0 ? (1, amount, 1) : (quantity, amount * Math.Sign(quantity.Value), Math.Abs(quantity.Value));
        quantity ??= 1;
        // What is taken off has its minus on the quantity: no price is below nothing.
        if (price < 0)
            (quantity, price) = (-quantity, -price);
        if (basis <= 0)
            faults.Add($"Row {number}: a price is for one piece at least, or for a part of it, and not for {Plain(basis)}.");
        var rate = Number(record, UblColumns.TaxRate) ?? only;
        if (rate is null)
            faults.Add($"Row {number} has no rate of tax, and the invoice has {(taxes.Count == 0 ? "none" : "several")}.");
        var gross = basis <= 0 ? amount : Rounded(quantity.Value * price.Value / basis, currency);
        return new UblLine(
            number, Text(record, UblColumns.ItemCode), Text(record, UblColumns.Description), quantity.Value,
            Text(record, UblColumns.Unit) is { Length: > 0 } unit ? unit : Piece, price.Value, basis, gross - amount, rate ?? 0, amount);
    }

    private static object? Value(LaidOutRecord record, string heading)
    {
        for (var at = 0; at < record.Values.Length; at++)
        {
            if (record.Table.Columns[at].Heading == heading)
                return record.Values[at];
        }
        return null;
    }

    private static decimal? Number(LaidOutRecord record, string heading) => Value(record, heading) as decimal?;

    private static string Text(LaidOutRecord record, string heading) => (Value(record, heading) as string ?? "").Trim();
}
