using System.Globalization;
using Daxlin.Core.Posting.Coding;
using Daxlin.Core.Posting.Expressions;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Posting.Layouts;

/// <summary>The records of an approved invoice that expressions look at, signs settled.</summary>
internal static class LayoutSource
{
    /// <param name="journal">The accounts of journals; null where the coding rules name none.</param>
    /// <exception cref="EvaluationException">A journal cannot be written.</exception>
    public static IEnumerable<PostingRecord> Of(ApprovedInvoice invoice, LayoutRecords records, CreditSigns signs, RunFacts run, JournalAccounts? journal, TranslationLists lists)
    {
        // A journal tells by its sides which way an amount goes.
        var isReversed = records != LayoutRecords.Journal && Sign(invoice, signs, run) < 0;
        var header = new PostingRecord(
            new Dictionary<string, string>
            {
                [LayoutNames.Run] = run.Number.ToString(CultureInfo.InvariantCulture),
                [LayoutNames.PostedOn] = ExpressionTypes.Settled(run.On),
                [LayoutNames.Reversal] = ExpressionTypes.Settled(run.IsReversal),
            },
            PostingColumns.HeaderOf(invoice, isReversed));
        return records switch
        {
            LayoutRecords.Lines => invoice.Lines.IsEmpty ? [] : PostingColumns.RowsOf(invoice, header, isReversed),
            LayoutRecords.Taxes => TaxesOf(invoice, header, isReversed),
            LayoutRecords.Journal => JournalOf(invoice, header, run, journal, lists),
            _ => [header],
        };
    }

    /// <summary>-1 if the amounts of an invoice get the other sign than is printed, else 1.</summary>
    public static int Sign(ApprovedInvoice invoice, CreditSigns signs, RunFacts run)
    {
        var isOther = invoice.IsCreditNote && signs switch
        {
            CreditSigns.Negative => invoice.Total > 0,
            CreditSigns.Positive => invoice.Total < 0,
            _ => false,
        };
        return isOther == run.IsReversal ? 1 : -1;
    }

    private static IEnumerable<PostingRecord> JournalOf(ApprovedInvoice invoice, PostingRecord header, RunFacts run, JournalAccounts? journal, TranslationLists lists)
    {
        if (journal is null)
            throw new EvaluationException("A journal needs its accounts, which the coding rules name under “journal”: what is owed, and taxes.");
        return InvoiceJournal.Of(invoice, header, journal, lists, run.IsReversal).Select((entry, at) => new PostingRecord(
            new Dictionary<string, string>
            {
                [LayoutNames.Entry] = (at + 1).ToString(CultureInfo.InvariantCulture),
                [LayoutNames.Debit] = entry.Amount > 0 ? ExpressionTypes.Settled(entry.Amount) : "",
                [LayoutNames.Credit] = entry.Amount < 0 ? ExpressionTypes.Settled(-entry.Amount) : "",
                [TradeNames.Amount] = ExpressionTypes.Settled(entry.Amount),
                [LayoutNames.EntryText] = entry.Text,
            },
            entry.Of));
    }

    internal static IEnumerable<PostingRecord> TaxesOf(ApprovedInvoice invoice, PostingRecord header, bool isReversed)
    {
        // The header has the other sign already where it is to have it.
        if (invoice.Taxes.IsEmpty && header[TradeNames.Tax] is { Length: > 0 } tax)
            return [new PostingRecord(new Dictionary<string, string> { [TradeNames.Amount] = tax }, header)];
        return invoice.Taxes.Select(row =>
        {
            var cells = new Dictionary<string, string> { [TradeNames.Rate] = row.Rate, [TradeNames.Base] = row.Base, [TradeNames.Amount] = ExpressionTypes.Settled(row.Amount) };
            return new PostingRecord(isReversed ? PostingRecord.Reversed(cells) : cells, header);
        });
    }
}
