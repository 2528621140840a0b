using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.Posting.Expressions;
using Daxlin.Core.Posting.Layouts;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Posting.Coding;

/// <summary>The journal of an invoice: its lines, taxes and freight on one side, what is owed and a discount on the other. It balances, or there is none.</summary>
/// <remarks>
/// A credit note has the sides the other way round, however its amounts are printed, and so has a run that takes another back. Lines
/// may miss the subtotal by half a minor unit each, as vendors round; that difference alone goes to the rounding account. Where amounts
/// include the tax, it is taken off them (<see cref="NetAmounts"/>).
/// </remarks>
public static class InvoiceJournal
{
    /// <param name="header">What entries that are of no line look at.</param>
    /// <exception cref="EvaluationException">It cannot be written; the message says why, in figures.</exception>
    public static ImmutableArray<JournalEntry> Of(ApprovedInvoice invoice, PostingRecord header, JournalAccounts accounts, TranslationLists lists, bool isReversal)
    {
        var currency = Currency.Find(invoice.Currency) ?? throw new EvaluationException($"The currency “{invoice.Currency}” is unknown.");
        // Amounts of a credit note that are printed below zero count as those that are printed above it.
        var printed = invoice is { IsCreditNote: true, Total: < 0 } ? -1 : 1;
        var side = invoice.IsCreditNote == isReversal ? 1 : -1;
        var entries = ImmutableArray.CreateBuilder<JournalEntry>();

        var taxes = LayoutSource.TaxesOf(invoice, header, isReversed: false).ToList();
        var freight = Amount(Field(TradeNames.Freight)) * printed;
        var discount = -Math.Abs(Amount(Field(TradeNames.Discount)));
        var parts = PartsOf(invoice).ToList();
        var tax = taxes.Sum(row => Amount(row[TradeNames.Amount])) * printed;
        var most = currency.MinorUnit * (Math.Max(1, invoice.Lines.Length) / 2m);
        var gross = parts.Sum(part => part.Amount) * printed + freight + discount;
        var off = gross - invoice.Total * printed;
        if (Math.Abs(off) < Math.Abs(off + tax) && Math.Abs(off) <= most)
        {
            // The amounts include the tax: what is posted is what is left of them.
            var net = NetAmounts.Of(
                [.. parts.Select(part => (part.Amount * printed, RateOf(part.Of[TradeNames.TaxRate]))), (freight, null), (discount, null)],
                [.. taxes.Select(row => (RateOf(row[TradeNames.Rate]), Amount(row[TradeNames.Amount]) * printed))], currency.MinorDigits)
                ?? throw new EvaluationException($"The amounts of the lines include the tax, {currency.Show(Math.Abs(tax))}, and which of them includes how much cannot be told from their rates.");
            parts = [.. parts.Select((part, at) => (part.Text, net[at] * printed, part.Of))];
            (freight, discount) = (net[^2], net[^1]);
        }

        foreach (var (text, amount, of) in parts)
        {
            if (amount != 0 && of[CodeNames.Account].Length == 0)
                throw new EvaluationException($"{(of[PostingColumns.Line] is { Length: > 0 } line ? $"Row {line}" : "The invoice")} ({currency.Show(amount)}) has no account.");
            Add(amount * printed, text, of);
        }
        foreach (var row in taxes)
        {
            var rate = row[TradeNames.Rate];
            AddTo(Amount(row[TradeNames.Amount]) * printed, rate.Length == 0 ? "Tax" : $"Tax at {rate} %", accounts.Tax, row, "taxes");
        }
        AddTo(freight, "Freight", accounts.Freight, header, "freight");
        AddTo(discount, "Discount", accounts.Discount, header, "a discount");
        AddTo(-invoice.Total * printed, invoice.Vendor, accounts.Payable, header, "what is owed");

        var missing = entries.Sum(entry => entry.Amount) * side;
        if (missing != 0)
        {
            if (accounts.Rounding is null || Math.Abs(missing) > most)
            {
                var debits = entries.Where(entry => entry.Amount > 0).Sum(entry => entry.Amount);
                var credits = -entries.Where(entry => entry.Amount < 0).Sum(entry => entry.Amount);
                throw new EvaluationException($"The journal does not balance: debits come to {currency.Show(debits)}, credits to {currency.Show(credits)} ({currency.Show(Math.Abs(debits - credits))} {(debits > credits ? "more" : "less")} debited).");
            }
            AddTo(-missing, "Rounding", accounts.Rounding, header, "rounding");
        }
        return entries.DrainToImmutable();

        string Field(string name) => invoice.Fields.GetValueOrDefault(name, "");

        void Add(decimal amount, string text, PostingRecord of)
        {
            if (amount != 0)
                entries.Add(new JournalEntry(amount * side, text, of));
        }

        void AddTo(decimal amount, string text, Expression? account, PostingRecord of, string what)
        {
            if (amount == 0)
                return;
            var code = account is null ? "" : ExpressionTypes.Settled(account.Of(ExpressionScope.Of(of, lists))).Trim();
            if (code.Length == 0)
                throw new EvaluationException($"The coding rules name no account for {what}, {currency.Show(Math.Abs(amount))} here.");
            Add(amount, text, new PostingRecord(new Dictionary<string, string> { [CodeNames.Account] = code }, of));
        }

        static decimal? RateOf(string settled) => settled.Length == 0 ? null : Amount(settled);

        IEnumerable<(string Text, decimal Amount, PostingRecord Of)> PartsOf(ApprovedInvoice whole)
        {
            foreach (var record in PostingColumns.RowsOf(whole with { Lines = [.. whole.Lines.Select(line => line with { Under = [] })] }, header, isReversed: false))
            {
                var text = record[TradeNames.Description] is { Length: > 0 } description ? description : record[TradeNames.ItemCode];
                yield return (text, !whole.Lines.IsEmpty ? Amount(record[TradeNames.Amount])
                    : record[PostingColumns.PartAmount] is { Length: > 0 } part ? Amount(part) : whole.Total - whole.Tax, record);
            }
        }
    }

    private static decimal Amount(string settled) =>
        settled.Length == 0 ? 0 : decimal.Parse(settled, NumberStyles.AllowLeadingSign | NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture);
}
