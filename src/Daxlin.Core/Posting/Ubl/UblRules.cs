using System.Collections.Immutable;
using System.Text.RegularExpressions;
using static Daxlin.Core.Posting.Ubl.UblFigures;

namespace Daxlin.Core.Posting.Ubl;

/// <summary>The rules of EN 16931 that can be computed from an invoice, each named as the standard names it.</summary>
/// <remarks>
/// They hold the document against itself: sums, what is taxed at each rate, what a category of tax asks for. Code lists are held against their form only:
/// that ZZ is no country is for whoever gave the code to know.
/// </remarks>
public static partial class UblRules
{
    /// <summary>The published rules let less than a whole unit lie between a tax and its rate (BR-CO-17), since taxes may be rounded line by line.</summary>
    private const decimal NearlyItsRate = 1;

    private static readonly ImmutableArray<string> Exempt = ["E", "AE", "K", "G", "O"];

    /// <summary>What keeps it from being an invoice by the standard, with the figures and the rule.</summary>
    public static IEnumerable<string> FaultsOf(UblInvoice invoice) =>
        Said(invoice).Concat(Parties(invoice)).Concat(Lines(invoice)).Concat(Sums(invoice)).Concat(Rates(invoice)).Concat(Untaxed(invoice)).Concat(Digits(invoice));

    private static IEnumerable<string> Said(UblInvoice invoice)
    {
        if (invoice.Number.Length == 0)
            yield return "It has no number (BR-02).";
        if (invoice.Issued is null)
            yield return "It has no date (BR-03).";
        if (Due(invoice) > 0 && invoice.Due is null && invoice.Terms.Length == 0)
            yield return $"{invoice.Currency.Show(Due(invoice))} are due, and neither “due” nor “terms” says when (BR-CO-25).";
        if (invoice.Iban.Length > 0 && !Values.Iban.IsRight(invoice.Iban))
            yield return $"{invoice.Iban} is no IBAN: its check digits differ (BR-50).";
    }

    private static IEnumerable<string> Parties(UblInvoice invoice)
    {
        foreach (var (who, party, nameRule, countryRule) in new[] { ("seller", invoice.Seller, "BR-06", "BR-09"), ("buyer", invoice.Buyer, "BR-07", "BR-11") })
        {
            if (party.Name.Length == 0)
                yield return $"The {who} has no name ({nameRule}).";
            if (!Country().IsMatch(party.Country))
                yield return $"The {who}'s country is {Quoted(party.Country)}; two letters of ISO 3166 are wanted, as GB ({countryRule}).";
        }
        if (invoice.Seller.TaxId.Length == 0 && invoice.Taxes.Any(row => invoice.CategoryOf(row.Rate) != "O"))
            yield return "The seller has no number for VAT (BR-CO-26, BR-S-02).";
        if (invoice.Buyer.TaxId.Length == 0 && invoice.Taxes.Any(row => invoice.CategoryOf(row.Rate) is "AE" or "K"))
            yield return "The buyer has no number for VAT, which reverse charge and supplies within the Union ask for (BR-AE-02, BR-IC-02).";
    }

    private static IEnumerable<string> Lines(UblInvoice invoice)
    {
        foreach (var line in invoice.Lines)
        {
            if (line.Description.Length == 0)
                yield return $"Row {Plain(line.Number)} has no description (BR-25).";
            if (!Unit().IsMatch(line.Unit))
                yield return $"Row {Plain(line.Number)}: {Quoted(line.Unit)} is no unit of UN/ECE Recommendation 20, as KGM for a kilogram; a translation list can say what it is (BR-23).";
        }
    }

    private static IEnumerable<string> Sums(UblInvoice invoice)
    {
        string Show(decimal amount) => invoice.Currency.Show(amount);
        if (invoice.BeforeTax + invoice.Tax != invoice.Total)
        {
            yield return $"The rows come to {Show(invoice.LineTotal)}, with discounts and charges to {Show(invoice.BeforeTax)}; with the tax of {Show(invoice.Tax)} "
                + $"that is {Show(invoice.BeforeTax + invoice.Tax)}, and the total is {Show(invoice.Total)} (BR-CO-15).";
        }
        if (invoice.AmountDue is { } due && due != Due(invoice))
            yield return $"{Show(invoice.Total)} less {Show(invoice.Paid)} paid is {Show(Due(invoice))}; the amount due is {Show(due)} (BR-CO-16).";
    }

    private static IEnumerable<string> Rates(UblInvoice invoice)
    {
        string Show(decimal amount) => invoice.Currency.Show(amount);
        foreach (var row in invoice.Taxes)
        {
            var lines = invoice.Lines.Where(line => line.Rate == row.Rate).Sum(line => line.Amount);
            var onWhole = invoice.OnWhole.Where(one => one.Rate == row.Rate).Sum(one => one.IsCharge ? one.Amount : -one.Amount);
            if (lines + onWhole != row.Base)
                yield return $"At {Plain(row.Rate)} % the rows, discounts and charges come to {Show(lines + onWhole)}; the base is {Show(row.Base)} (BR-S-08).";
            var tax = TaxOf(row.Base, row.Rate, invoice.Currency);
            if (row.Rate == 0 ? row.Amount != 0 : Math.Abs(tax - row.Amount) >= NearlyItsRate)
                yield return $"{Plain(row.Rate)} % of {Show(row.Base)} is {Show(tax)}; the tax is {Show(row.Amount)} (BR-CO-17).";
        }
    }

    private static IEnumerable<string> Untaxed(UblInvoice invoice)
    {
        if (!invoice.Taxes.Any(row => row.Rate == 0))
            yield break;
        if (invoice.Untaxed != "Z" && !Exempt.Contains(invoice.Untaxed))
            yield return $"{invoice.Currency.Show(invoice.Taxes.Where(row => row.Rate == 0).Sum(row => row.Base))} are taxed at 0 %, and “untaxed” does not say why: Z (zero rate), E (exempt), AE (reverse charge), K (within the Union), G (export) or O (outside VAT) (BR-CO-04).";
        else if (Exempt.Contains(invoice.Untaxed) == (invoice.Exemption.Length == 0))
        {
            yield return invoice.Untaxed == "Z" ? "A zero rate has no reason of exemption; “exemption” must be empty (BR-Z-10)."
                : $"What is taxed as {invoice.Untaxed} needs its reason in “exemption” (BR-E-10).";
        }
        if (invoice.Untaxed == "O" && invoice.Taxes.Length > 1)
            yield return "What is outside VAT stands on no invoice beside what is taxed (BR-O-11).";
    }

    private static IEnumerable<string> Digits(UblInvoice invoice)
    {
        var amounts = invoice.Lines.SelectMany(line => new[] { line.Amount, line.Discount }).Concat(invoice.OnWhole.Select(one => one.Amount))
            .Concat(invoice.Taxes.SelectMany(row => new[] { row.Base, row.Amount })).Concat([invoice.Total, invoice.Paid]);
        foreach (var amount in amounts.Where(amount => Math.Round(amount, 2) != amount).Distinct())
            yield return $"{Plain(amount)} has more than two digits behind the decimal mark, which is all that amounts have (BR-DEC).";
    }

    private static decimal Due(UblInvoice invoice) => invoice.Total - invoice.Paid;

    private static string Quoted(string text) => text.Length == 0 ? "not said" : $"“{text}”";

    [GeneratedRegex("^[A-Z]{2}$")]
    private static partial Regex Country();

    [GeneratedRegex("^[A-Z0-9]{2,3}$")]
    private static partial Regex Unit();
}
