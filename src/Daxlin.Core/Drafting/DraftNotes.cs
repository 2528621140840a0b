using System.Collections.Immutable;
using System.Text.Json.Nodes;
using Daxlin.Core.Checks;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Drafting;

/// <summary>Says of each part of a draft how sure it is and why.</summary>
internal static class DraftNotes
{
    public static ImmutableArray<DraftNote> Of(
        DraftPlan plan, ImmutableArray<DraftNote> reads, FoundItems? items, ImmutableArray<CheckedInvoice> invoices, bool hasName)
    {
        var notes = ImmutableArray.CreateBuilder<DraftNote>();
        notes.Add(new DraftNote("vendor", hasName ? Certainty.Guess : Certainty.NotFound, hasName ? $"“{plan.Vendor}”" : "no name stands out on the page; say it"));
        notes.AddRange(reads);
        foreach (var name in TradeNames.Fields.Where(name => name is not (TradeNames.VendorName or TradeNames.Currency or TradeNames.CreditedInvoice or TradeNames.AlreadyPaid or TradeNames.AmountDue)))
            notes.Add(FieldNote(name, plan, invoices));
        notes.AddRange(ColumnNotes(plan, items, invoices));
        return notes.ToImmutable();
    }

    private static DraftNote FieldNote(string name, DraftPlan plan, ImmutableArray<CheckedInvoice> invoices)
    {
        var key = $"fields.{name}";
        if (plan.Fields.GetValueOrDefault(name) is null)
            return new DraftNote(key, Certainty.NotFound, name == TradeNames.Tax && plan.Taxes is not null ? "the tax summary says it" : "nothing on the samples looks like it");
        var values = invoices.Select(invoice => invoice.Captured.Find(name)).ToList();
        var found = values.OfType<Capture.CapturedValue>().ToList();
        if (found.Count == 0)
            return new DraftNote(key, Certainty.Guess, "not on the samples; other invoices may have it by its usual captions");
        var tied = invoices.Count(invoice => invoice.Tied.Contains(name));
        var isCertain = tied == found.Count || name == TradeNames.Iban;
        var why = tied == found.Count ? "; it adds up" : name == TradeNames.Iban ? "; its check digits are right" : "";
        return new DraftNote(
            key, isCertain ? Certainty.Certain : Certainty.Guess,
            $"“{found[0].Trace.Raw}” {found[0].Trace.Whereabouts}{(found.Count < invoices.Length ? $", on {found.Count} of {invoices.Length} samples" : "")}{why}");
    }

    private static IEnumerable<DraftNote> ColumnNotes(DraftPlan plan, FoundItems? items, ImmutableArray<CheckedInvoice> invoices)
    {
        if (plan.Items is null || items is null)
        {
            yield return new DraftNote("blocks", Certainty.NotFound, "no headings of item rows stand on the samples");
            yield break;
        }
        var rows = invoices.Sum(invoice => invoice.Captured.Lines.Length);
        foreach (var column in plan.Items.Columns)
        {
            var proved = invoices.Sum(invoice => invoice.Captured.Lines.Count(line => invoice.Tied.Contains($"lines[{line.Number}].{column.Name}")));
            var heading = (string?)column.Rule["heading"] is { } text ? $"under “{text}”" : "a part of the column before it";
            yield return proved == rows && rows > 0
                ? new DraftNote($"columns.{column.Name}", Certainty.Certain, $"{heading}; it multiplies out or adds up on all {rows} rows")
                : new DraftNote($"columns.{column.Name}", Certainty.Guess, (bool?)column.Rule["kept"] == false && column.Name != "article" ? $"{heading}; left out of the rows" : heading);
        }
        yield return plan.Taxes is null
            ? new DraftNote("blocks.taxes", Certainty.NotFound, "no tax by rate was found")
            : new DraftNote("blocks.taxes", invoices.All(invoice => invoice.Findings.All(finding => !finding.Code.StartsWith("tax", StringComparison.Ordinal))) ? Certainty.Certain : Certainty.Guess, "the rates and amounts of the tax summary");
    }
}
