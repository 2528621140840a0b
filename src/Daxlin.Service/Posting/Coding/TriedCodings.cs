using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.Json;
using Daxlin.Core.Posting.Coding;
using Daxlin.Core.Templates;
using Daxlin.Service.Invoices;
using Daxlin.Service.Posting.Layouts;
using Daxlin.Service.Posting.Lists;
using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;
using Daxlin.Service.NamedDocuments;

namespace Daxlin.Service.Posting.Coding;

/// <summary>Shows what coding rules make of some invoices, for who is writing them. Stores nothing.</summary>
internal sealed class TriedCodings(DaxlinDb db, ListShelf lists)
{
    private const int Usual = 20;

    public const int Most = 100;

    public async Task<TriedCoding> Try(string document, ImmutableArray<int>? invoices, CancellationToken cancel)
    {
        var known = (await lists.Now(cancel)).Lists;
        CodingRules rules;
        try
        {
            rules = CodingReader.Read(document, known);
        }
        catch (JsonFaultException error)
        {
            return new TriedCoding(DocumentFaultRecord.Of(error.Faults), [], [], 0);
        }
        var facts = await CodingFacts.Load(db, cancel) with { Rules = rules, Lists = known, Fault = null };
        var tried = ImmutableArray.CreateBuilder<TriedCodedInvoice>();
        var counts = new int[rules.Rules.Length];
        foreach (var row in await Rows(invoices, cancel))
        {
            var record = InvoiceRecords.FromJson(row.Record);
            var invoice = await CodedInvoices.InvoiceOf(row, record, db, cancel);
            var (coded, findings) = CodedInvoices.Code(invoice, record.CodedByHand, facts);
            Count(coded.Coding, counts);
            tried.Add(new TriedCodedInvoice(
                row.Id, row.Vendor, row.InvoiceNumber, row.Currency,
                [.. coded.Coding.Select(line => new TriedCodedLine(line.Line, TextOf(record, line.Line), CodingRecords.Of(line).Parts))], [.. findings.Select(finding => InvoiceRecords.Of(finding, InvoiceRecords.FromStore))]));
        }
        return new TriedCoding(
            [], tried.ToImmutable(), [.. rules.Rules.Select((rule, at) => new TriedRule(at + 1, rule.Of, counts[at]))], tried.Sum(invoice => invoice.Lines.Length));
    }

    private Task<List<Invoice>> Rows(ImmutableArray<int>? wanted, CancellationToken cancel)
    {
        var captured = db.Invoices.AsNoTracking().Include(row => row.Intake).Where(row => row.State != InvoiceState.Unplaced);
        if (wanted is { } some)
        {
            var ids = some.Take(Most).ToList();
            return captured.Where(row => ids.Contains(row.Id)).OrderBy(row => row.Id).ToListAsync(cancel);
        }
        return captured.OrderBy(row => row.State == InvoiceState.Held || row.State == InvoiceState.Clear ? 0 : 1).ThenByDescending(row => row.Id).Take(Usual).ToListAsync(cancel);
    }

    private static void Count(ImmutableArray<CodedLine> coding, int[] counts)
    {
        foreach (var line in coding)
        {
            foreach (var rule in line.Parts.SelectMany(part => part.Codes.Values).Select(code => code.Rule).Distinct())
            {
                if (rule > 0)
                    counts[rule - 1]++;
            }
        }
    }

    private static string TextOf(InvoiceRecord record, int line) =>
        record.Lines.FirstOrDefault(one => one.Number == line) is { } row
            ? (row.Cells.GetValueOrDefault(TradeNames.Description) ?? row.Cells.GetValueOrDefault(TradeNames.ItemCode))?.Value ?? string.Create(CultureInfo.InvariantCulture, $"row {line}")
            : "the invoice as a whole";
}
