using System.Collections.Immutable;
using System.Globalization;

namespace Daxlin.Samples;

/// <summary>Makes invoices up by lot: the same seed makes the same invoices.</summary>
public static class InvoiceMaker
{
    public static MadeInvoice Make(Assortment from, Random lot, int rows, Fault fault, string number, bool hasOrder)
    {
        var lines = Lines(from, lot, rows);
        var faultText = "";
        if (fault == Fault.LineAmount)
            (lines, faultText) = WithWrongLine(lines, lot);
        var subtotal = lines.Sum(line => line.Amount);
        if (fault == Fault.Subtotal)
        {
            var wrong = subtotal + lot.Next(1, 9) * 10m;
            faultText = $"the lines add up to {Text(subtotal)} but the subtotal is printed as {Text(wrong)}; tax and total follow the printed subtotal";
            subtotal = wrong;
        }
        var discount = from.HasOrderDiscount && lot.Next(3) == 0 ? Cents(subtotal * 0.02m) : 0;
        var freight = from.HasFreight && lot.Next(2) == 0 ? lot.Next(900, 9900) / 100m : 0;
        var taxes = Taxes(lines, subtotal, discount, freight);
        if (fault == Fault.Tax)
        {
            var wrong = taxes[0] with { Amount = taxes[0].Amount + lot.Next(1, 9) / 10m };
            faultText = $"tax at {Text(wrong.Rate)} % is printed as {Text(wrong.Amount)} but should be {Text(taxes[0].Amount)}; the total follows it";
            taxes = taxes.SetItem(0, wrong);
        }
        var total = subtotal - discount + freight + taxes.Sum(tax => tax.Amount);
        if (fault == Fault.Total)
        {
            var wrong = Transposed(total);
            faultText = $"the total is printed as {Text(wrong)} but should be {Text(total)}";
            total = wrong;
        }
        var date = new DateOnly(2026, 1, 5).AddDays(lot.Next(0, 300));
        return new MadeInvoice(
            number, date, date.AddDays(lot.Next(2) == 0 ? 14 : 30), hasOrder ? $"KSF-{lot.Next(10000, 99999)}" : null,
            lines, subtotal, discount, freight, taxes, total, fault, faultText);
    }

    /// <summary>The same invoice with another quantity in a line, counted from 0, and all that follows from it.</summary>
    public static MadeInvoice WithQuantity(MadeInvoice invoice, int line, decimal quantity)
    {
        var own = invoice.Lines[line];
        var lines = invoice.Lines.SetItem(line, own with { Quantity = quantity, Amount = Cents(quantity * own.UnitPrice * (1 - own.DiscountPercent / 100)) });
        var subtotal = lines.Sum(one => one.Amount);
        var taxes = Taxes(lines, subtotal, invoice.Discount, invoice.Freight);
        return invoice with { Lines = lines, Subtotal = subtotal, Taxes = taxes, Total = subtotal - invoice.Discount + invoice.Freight + taxes.Sum(tax => tax.Amount) };
    }

    private static ImmutableArray<MadeLine> Lines(Assortment from, Random lot, int rows)
    {
        var lines = ImmutableArray.CreateBuilder<MadeLine>(rows);
        var section = from.Sections.IsEmpty ? null : from.Sections[lot.Next(from.Sections.Length)];
        for (var row = 0; row < rows; row++)
        {
            if (section is not null && row > 0 && lot.Next(5) == 0)
                section = from.Sections[(from.Sections.IndexOf(section) + 1) % from.Sections.Length];
            var article = from.Articles[lot.Next(from.Articles.Length)];
            var remark = lot.Next(3) == 0 ? " " + from.Remarks[lot.Next(from.Remarks.Length)] : "";
            var quantity = article.InFractions ? lot.Next(15, 900) / 10m : lot.Next(1, lot.Next(2) == 0 ? 12 : 60);
            var price = Cents(article.Price * (85 + lot.Next(31)) / 100m);
            var discount = from.LineDiscounts.IsEmpty || lot.Next(4) > 0 ? 0 : from.LineDiscounts[lot.Next(from.LineDiscounts.Length)];
            lines.Add(new MadeLine(
                article.Code, article.Description + remark, section, quantity, article.Unit, price, discount, article.TaxRate,
                Cents(quantity * price * (1 - discount / 100))));
        }
        return lines.MoveToImmutable();
    }

    private static (ImmutableArray<MadeLine> Lines, string Text) WithWrongLine(ImmutableArray<MadeLine> lines, Random lot)
    {
        var at = lot.Next(lines.Length);
        var wrong = lines[at] with { Amount = Transposed(lines[at].Amount) };
        return (lines.SetItem(at, wrong),
            $"line {at + 1} amount is printed as {Text(wrong.Amount)} but should be {Text(lines[at].Amount)}; subtotal, tax and total follow it");
    }

    private static ImmutableArray<MadeTax> Taxes(ImmutableArray<MadeLine> lines, decimal subtotal, decimal discount, decimal freight)
    {
        var bases = lines.GroupBy(line => line.TaxRate).OrderByDescending(group => group.Key)
            .Select(group => (Rate: group.Key, Base: group.Sum(line => line.Amount))).ToList();
        // The highest rate takes the freight, and what the printed subtotal, the discount and the rounding leave over.
        var taxes = bases.Select(one => (one.Rate, Base: Cents(one.Base * (subtotal - discount) / subtotal))).ToList();
        var left = subtotal - discount + freight - taxes.Sum(one => one.Base);
        taxes[0] = (taxes[0].Rate, taxes[0].Base + left);
        return [.. taxes.Select(one => new MadeTax(one.Rate, one.Base, Cents(one.Base * one.Rate / 100)))];
    }

    /// <summary>The amount with the first two neighbouring figures that differ in each other's place.</summary>
    private static decimal Transposed(decimal amount)
    {
        var text = amount.ToString("F2", CultureInfo.InvariantCulture).ToCharArray();
        for (var at = 0; at + 1 < text.Length; at++)
        {
            if (text[at] != text[at + 1] && char.IsDigit(text[at]) && char.IsDigit(text[at + 1]) && !(at == 0 && text[1] == '0'))
            {
                (text[at], text[at + 1]) = (text[at + 1], text[at]);
                return decimal.Parse(text, CultureInfo.InvariantCulture);
            }
        }
        return amount + 9;
    }

    private static decimal Cents(decimal amount) => Math.Round(amount, 2, MidpointRounding.AwayFromZero);

    private static string Text(decimal amount) => amount.ToString(CultureInfo.InvariantCulture);
}
