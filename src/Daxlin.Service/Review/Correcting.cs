using Daxlin.Core.Capture;
using Daxlin.Core.Corrections;
using Daxlin.Core.History;
using Daxlin.Service.History;
using Daxlin.Service.Invoices;
using Daxlin.Service.Posting.Coding;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;

namespace Daxlin.Service.Review;

/// <summary>A person says something of an invoice's values, or takes it back; all ties are weighed anew.</summary>
/// <remarks>The turn to write is taken by who asks, before looking at the revision that was seen.</remarks>
public sealed class Correcting(DaxlinDb db, TimeProvider clock)
{
    internal async Task<Refused?> Do(Invoice row, CorrectionToMake wanted, string who, CancellationToken cancel)
    {
        if (row.State is not (InvoiceState.Held or InvoiceState.Clear))
        {
            return row.State == InvoiceState.Unplaced
                ? Refused.Conflict("unplaced", $"Invoice {row.Id} was captured by no template, so there is nothing to correct: {row.FirstFinding}")
                : Refused.Conflict("already-decided", $"Invoice {row.Id} is {row.State.ToString().ToLowerInvariant()} already; its values stand as they were decided on.");
        }
        if (PartedOtherwise.IsSo(row))
            return Refused.Conflict(PartedOtherwise.Code, $"Invoice {row.Id} cannot be corrected. {row.FirstFinding}");
        if (await CorrectedInvoices.Of(row, db, cancel) is not { } before)
            return Refused.Conflict("captured-earlier", $"Invoice {row.Id} was captured by an earlier release of Daxlin; have its batch captured again, then it can be corrected.");
        var (made, refusal) = Made(before, wanted, row);
        if (made is null)
            return refusal;
        (made.InvoiceId, made.At, made.By) = (row.Id, clock.GetUtcNow().UtcDateTime, who);
        if (before.Made.Count == 0)
            await CorrectedInvoices.Keep(row, db, cancel);
        db.Corrections.Add(made);
        await db.SaveChangesAsync(cancel);
        var after = before with { Made = [.. before.Made, made] };
        var keys = InvoiceKeys.Of(row);
        var state = row.State;
        // Codes are no part of what is captured, so who codes has not had to mend anything.
        row.IsTouched |= wanted.Act != "code";
        CorrectedInvoices.Fill(row, new CorrectableInvoice(after.Captured, after.Made, after.Record));
        await StoreFindings.Refresh(db, [row], [keys], made.At, cancel);
        await HistoryLog.Record(db, Told(wanted, before, made, state, row), cancel);
        await db.SaveChangesAsync(cancel);
        return null;
    }

    /// <summary>The row of the correction, without who and when; or why there can be none.</summary>
    private static (InvoiceCorrection? Made, Refused? Refusal) Made(CorrectableInvoice invoice, CorrectionToMake wanted, Invoice row)
    {
        switch (wanted.Act)
        {
            case "undo":
                return invoice.History.ToUndo is { } last ? (Blank(undoes: last), null)
                    : (null, Refused.Conflict("nothing-to-undo", "Nothing was corrected on this invoice that could be taken back."));
            case "redo":
                return invoice.History.ToRedo is { } back ? (Blank(undoes: back), null)
                    : (null, Refused.Conflict("nothing-to-redo", "Nothing was taken back on this invoice that could be done again."));
            default:
                var (correction, fault) = CorrectionReader.Read(wanted.ToCore(), invoice.Corrected, StoreFindings.Open(row));
                return correction is null ? (null, Refused.Faulty(fault!.Code, fault.Sentence))
                    : (Blank(CorrectedInvoices.ToJson(correction)), null);
        }
    }

    private static InvoiceCorrection Blank(string act = "", int? undoes = null) => new() { At = default, By = "", Act = act, Undoes = undoes };

    /// <summary>What the history says of it.</summary>
    private static Deed Told(CorrectionToMake wanted, CorrectableInvoice before, InvoiceCorrection made, InvoiceState from, Invoice row)
    {
        var (what, was, now) = wanted.Act switch
        {
            "enter" => ($"corrected {ValueNames.Spoken(wanted.Of!)}", before.Shown.Named(wanted.Of!)?.Value ?? "", wanted.Text ?? ""),
            "accept" => ("accepted a finding", wanted.Message!, ""),
            "strike" => ($"struck out {ValueNames.Spoken(wanted.Of!)}", TextOf(before, wanted.Of!), ""),
            "add" => ("added a row", "", string.Join(' ', wanted.Cells!.Values)),
            "join" => ($"joined {ValueNames.Spoken(wanted.Of!)} and {ValueNames.Spoken(wanted.With!)}", TextOf(before, wanted.With!), ""),
            "split" => ($"divided {ValueNames.Spoken(wanted.Of!)}", TextOf(before, wanted.Of!), string.Join(' ', wanted.Cells!.Values)),
            "move" => ($"moved {ValueNames.Spoken(wanted.Of!)}", "", wanted.After ?? "first"),
            "kind" => ("said what it is", before.Shown.IsCreditNote ? "creditNote" : "invoice", wanted.Text!),
            "code" => ($"coded {(wanted.Of == CorrectionReader.WholeInvoice ? "the invoice" : ValueNames.Spoken(wanted.Of!))}", "", CodingRecords.Told(wanted)),
            "undo" => ("took a correction back", "", ""),
            _ => ("made a correction again", "", ""),
        };
        var saysValues = was.Length > 0 || now.Length > 0;
        return new Deed(HistoryStreams.Invoice(row.Id), made.At, made.By, HistoryActs.Corrected, what)
        {
            Before = saysValues ? was : InvoiceDetails.Word(from),
            After = saysValues ? now : InvoiceDetails.Word(row.State),
            Reason = wanted.Reason?.Trim() ?? "",
            Content = HistoryChain.ContentOf(row.Record),
        };
    }

    private static string TextOf(CorrectableInvoice invoice, string name) =>
        ValueNames.Parse(name) is ({ } list, var number, _) && invoice.Shown.Row(list, number) is { } line ? string.Join(' ', line.Cells.Select(cell => cell.Value)) : "";
}
