using System.Collections.Immutable;
using Daxlin.Core.Posting.Coding;
using Daxlin.Core.Posting.Expressions;
using Daxlin.Core.Posting.Ubl;
using Daxlin.Core.Values;

namespace Daxlin.Core.Posting.Layouts;

/// <summary>Writes approved invoices into the records of a layout.</summary>
public static class LaidOut
{
    /// <param name="journal">The accounts of journals; null where the coding rules name none.</param>
    public static LaidOutInvoice Of(PostingLayout layout, ApprovedInvoice invoice, TranslationLists lists, RunFacts run, JournalAccounts? journal = null)
    {
        // An electronic invoice has the rows that the vendor wrote, whatever the ledger makes of them.
        if (layout.File.Format == FileFormat.Ubl)
            invoice = invoice with { Coding = [], Lines = [.. invoice.Lines.Select(line => line with { Under = [] })] };
        var sign = LayoutSource.Sign(invoice, layout.CreditNotes, run);
        var records = ImmutableArray.CreateBuilder<LaidOutRecord>();
        var faults = ImmutableArray.CreateBuilder<LayoutFault>();
        // What takes a posting back takes all of it, whatever the layout would ask for now.
        if (!run.IsReversal && !IsWanted(layout.Invoices, "invoices", "", () => LayoutSource.Of(invoice, LayoutRecords.Invoices, layout.CreditNotes, run, journal, lists).Single(), lists, invoice, faults))
            return new LaidOutInvoice(invoice, sign, IsTaken: faults.Count > 0, [], faults.DrainToImmutable());
        var journalSide = 0m;
        foreach (var table in layout.Tables)
        {
            foreach (var source in SourcesOf(table))
            {
                if (!IsWanted(table.Where, "where", table.Name, () => source, lists, invoice, faults))
                    continue;
                var scope = ExpressionScope.Of(source, lists);
                var values = new object?[table.Columns.Length];
                for (var at = 0; at < values.Length; at++)
                    values[at] = ValueOf(table, table.Columns[at], layout.File, scope, invoice, faults);
                records.Add(new LaidOutRecord(table, [.. values]));
            }
        }
        if (records.Count == 0 && faults.Count == 0)
            faults.Add(new LayoutFault(invoice.Id, "", "", $"The layout writes no record of it, so that the ledger would never see its {Shown(invoice)}."));
        var laidOut = new LaidOutInvoice(invoice, sign, true, faults.Count == 0 ? records.DrainToImmutable() : [], faults.DrainToImmutable()) { JournalSide = journalSide };
        return layout.File.Format == FileFormat.Ubl && laidOut.Faults.IsEmpty ? WithUbl(laidOut) : laidOut;

        IEnumerable<PostingRecord> SourcesOf(LayoutTable table)
        {
            try
            {
                var sources = LayoutSource.Of(invoice, table.Records, layout.CreditNotes, run, journal, lists);
                if (table.Records == LayoutRecords.Journal)
                {
                    sources = [.. sources];
                    journalSide = sources.Sum(entry => ExpressionType.Number.Read(entry[LayoutNames.Debit]) as decimal? ?? 0);
                }
                return sources;
            }
            catch (EvaluationException error)
            {
                faults.Add(new LayoutFault(invoice.Id, table.Name, "", error.Message));
                return [];
            }
        }
    }

    private static LaidOutInvoice WithUbl(LaidOutInvoice laidOut)
    {
        var (ubl, told) = UblReading.Of(laidOut);
        var faults = ubl is null ? told : [.. UblRules.FaultsOf(ubl)];
        return faults.IsEmpty ? laidOut with { Ubl = ubl }
            : laidOut with { Records = [], Faults = [.. faults.Select(fault => new LayoutFault(laidOut.Invoice.Id, "", "", fault))] };
    }

    private static string Shown(ApprovedInvoice invoice) => Currency.Find(invoice.Currency)?.Show(invoice.Total) ?? ExpressionTypes.Settled(invoice.Total);

    /// <param name="key">The condition's key in the document.</param>
    private static bool IsWanted(
        Expression? condition, string key, string table, Func<PostingRecord> record, TranslationLists lists, ApprovedInvoice invoice, ImmutableArray<LayoutFault>.Builder faults)
    {
        try
        {
            return condition is null || condition.Of(ExpressionScope.Of(record(), lists)) is true;
        }
        catch (EvaluationException error)
        {
            faults.Add(new LayoutFault(invoice.Id, table, "", $"What is asked by “{key}” cannot be told. {error.Message}"));
            return false;
        }
    }

    /// <summary>A number with so many digits behind its point; one that has more keeps them, and is refused if they must not be.</summary>
    private static object? WithDigits(object? value, int digits) => value is not decimal number ? value
        : Math.Round(number, digits) == number ? Math.Round(number, digits) + new decimal(0, 0, 0, false, (byte)digits)
        : throw new EvaluationException($"{ExpressionTypes.Settled(number)} has more than {digits} digits behind the decimal mark, which is all that its currency has. “rounded” rounds it, if that is meant.");

    private static object? ValueOf(
        LayoutTable table, LayoutColumn column, FileRule file, ExpressionScope scope, ApprovedInvoice invoice, ImmutableArray<LayoutFault>.Builder faults)
    {
        try
        {
            var value = column.HasDigitsOfCurrency ? WithDigits(column.Value.Of(scope), scope.MinorUnits) : column.Value.Of(scope);
            if (CellText.FaultOf(column, file, value) is { } fault)
                faults.Add(new LayoutFault(invoice.Id, table.Name, column.Heading, fault));
            return value;
        }
        catch (EvaluationException error)
        {
            faults.Add(new LayoutFault(invoice.Id, table.Name, column.Heading, error.Message));
            return null;
        }
    }
}
