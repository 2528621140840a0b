using System.Collections.Immutable;
using Daxlin.Core.Capture;
using Daxlin.Core.Checks;
using Daxlin.Core.Corrections;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Service.Review;

/// <summary>Reads what a person asks for as a correction of an invoice, or says in a sentence what is wrong with it.</summary>
internal sealed class CorrectionReader
{
    /// <summary>Letters of a reason, in any script: dots and blanks say nothing to who reads the record later.</summary>
    private const int FewestLetters = 5;

    private const int LongestText = 2000;

    private readonly CorrectionToMake wanted;
    private readonly CorrectableInvoice invoice;
    private readonly CapturedInvoice shown;
    private Refused? refusal;

    private CorrectionReader(CorrectionToMake wanted, CorrectableInvoice invoice) =>
        (this.wanted, this.invoice, shown) = (wanted, invoice, invoice.Corrected.Checked.Captured);

    public static (Correction? Correction, Refused? Refusal) Read(CorrectionToMake wanted, CorrectableInvoice invoice)
    {
        var reader = new CorrectionReader(wanted, invoice);
        var correction = reader.Read();
        return reader.refusal is null ? (correction, null) : (null, reader.refusal);
    }

    private Correction? Read() => wanted.Act switch
    {
        "enter" => Enter(),
        "strike" => Row(wanted.Of) is { } row ? new RowStruck(row) : null,
        "add" => Add(),
        "join" => Row(wanted.Of) is { } first && Row(wanted.With) is { } second
            ? first.List == second.List && first != second ? new RowsJoined(first, second) : No("Only two rows of one list can be joined.") : null,
        "move" => Row(wanted.Of) is { } moved ? Move(moved) : null,
        "kind" => wanted.Text is "invoice" or "creditNote" ? new KindSaid(wanted.Text == "creditNote") : No("A kind is “invoice” or “creditNote”."),
        "accept" => Accept(),
        _ => No($"“{wanted.Act}” is no act; there are enter, strike, add, join, move, kind, accept, undo and redo."),
    };

    private Correction? No(string sentence)
    {
        refusal ??= Refused.Faulty(sentence);
        return null;
    }

    private RowAddress? Row(string? name)
    {
        if (RowNames.Parse(name) is ({ } list, var number, null) && invoice.Corrected.Rows.TryGetValue((list, number), out var row))
            return row;
        No($"The invoice has no row “{name}”.");
        return null;
    }

    private ValueEntered? Enter()
    {
        if (wanted.Text is null || RowNames.Parse(wanted.Of) is not (var list, var number, { } name))
        {
            No("To enter a value, say in “of” which one, total or lines[3].amount, and in “text” what it is.");
            return null;
        }
        var row = list is null ? null : Row($"{list}[{number}]");
        if (list is not null && row is null)
            return null;
        var kind = list is null ? KindOfField(name) : KindOfColumn(CorrectableInvoice.RowOf(shown, list, number)!.Block, name);
        if (kind is null)
        {
            No($"The template knows no {(list is null ? "field" : "column")} {name}.");
            return null;
        }
        if (Settled(wanted.Text, kind.Value, name, wanted.Place is not null) is not { } settled)
            return null;
        var address = new ValueAddress(row, name);
        var captured = list is null ? invoice.Captured.Find(name)
            : row!.AddedBy > 0 ? null : CorrectableInvoice.RowOf(invoice.Captured, list, number)?.Find(name);
        return new ValueEntered(
            address, settled, captured?.Value ?? "", wanted.Text.Trim(),
            wanted.Place is { } place ? new PlaceOnPage(place.Page, new Box(place.Box.Left, place.Box.Top, place.Box.Right, place.Box.Bottom)) : null);
    }

    /// <summary>The settled form of a text; null with a refusal.</summary>
    private string? Settled(string text, ValueKind kind, string name, bool isPrinted)
    {
        var trimmed = text.Trim();
        if (trimmed.Length == 0)
            return "";
        if (trimmed.Length > LongestText)
        {
            No($"A value has at most {LongestText} characters.");
            return null;
        }
        var habits = shown.Template.Reads;
        var reading = SettledForm.Read(trimmed, kind, habits, isPrinted);
        if (!reading.IsGood)
        {
            No($"“{trimmed}” {reading.Fault}, so it cannot be the {TradeNames.Spoken(name)}.");
            return null;
        }
        if (name == TradeNames.Currency && reading.Value != habits.Currency.Code)
        {
            No($"The template {shown.Template.Name} reads all amounts as {habits.Currency.Code}; an invoice in {reading.Value} needs a template that reads {reading.Value}.");
            return null;
        }
        if (reading.Mark.Length > 0 && !habits.Currency.CanBePrintedAs(reading.Mark))
        {
            No($"“{trimmed}” is not in {habits.Currency.Code}, which the template reads all amounts as.");
            return null;
        }
        return reading.Value;
    }

    private ValueKind? KindOfField(string name) =>
        shown.Template.Fields.FirstOrDefault(rule => rule.Name == name)?.Kind
        ?? (TradeNames.Fields.Contains(name) ? TradeNames.KindOf(name) : null);

    private ValueKind? KindOfColumn(string block, string name)
    {
        var rule = shown.Template.Blocks.FirstOrDefault(one => one.Name == block);
        var known = rule?.IsTaxSummary == true ? TradeNames.TaxColumns : TradeNames.Columns;
        return rule?.Columns.FirstOrDefault(column => column.Name == name)?.Kind ?? (known.Contains(name) ? TradeNames.KindOf(name) : null);
    }

    private RowAdded? Add()
    {
        var list = wanted.List ?? BlockRule.Lines;
        var after = wanted.After is null ? null : Row(wanted.After);
        if (wanted.After is not null && after is null)
            return null;
        var above = RowNames.Parse(wanted.After) is ({ } of, var number, _) ? CorrectableInvoice.RowOf(shown, of, number) : null;
        var block = wanted.Block ?? above?.Block ?? shown.Template.Blocks.FirstOrDefault(one => one.List == list)?.Name;
        if (block is null || !shown.Template.Blocks.Any(one => one.Name == block && one.List == list))
        {
            No($"The template has no block {(block is null ? "of the list " + list : $"{block} of the list {list}")}.");
            return null;
        }
        if (wanted.Cells is not { Count: > 0 } || wanted.Cells.Values.All(string.IsNullOrWhiteSpace))
        {
            No("A row that is added needs one value at least, in “cells” by its column.");
            return null;
        }
        var cells = ImmutableSortedDictionary.CreateBuilder<string, string>(StringComparer.Ordinal);
        foreach (var (column, text) in wanted.Cells)
        {
            if (KindOfColumn(block, column) is not { } kind)
            {
                No($"The template knows no column {column}.");
                return null;
            }
            if (Settled(text, kind, column, isPrinted: false) is not { } settled)
                return null;
            if (settled.Length > 0)
                cells[column] = settled;
        }
        return new RowAdded(list, block, after, cells.ToImmutable());
    }

    private RowMoved? Move(RowAddress row)
    {
        var after = wanted.After is null ? null : Row(wanted.After);
        if (refusal is not null)
            return null;
        if (after == row || (after is not null && after.List != row.List))
        {
            No("A row can be moved below another row of its own list.");
            return null;
        }
        return new RowMoved(row, after);
    }

    private FindingAccepted? Accept()
    {
        var open = invoice.Corrected.Checked.Findings.FirstOrDefault(one => one.Code == wanted.Code && one.Message == wanted.Message && one.Severity == Severity.Hold);
        if (open is null)
        {
            No(wanted.Code == Invoices.Doubles.Code
                ? "An invoice that came before cannot be let pass by itself: set this one aside, or approve it and say why."
                : "There is no such finding open on this invoice; it may have been settled, or have other figures by now.");
            return null;
        }
        var reason = wanted.Reason?.Trim() ?? "";
        if (reason.Count(char.IsLetter) < FewestLetters && invoice.Corrected.Checked.Ties.Any(tie => !tie.Holds && tie.ToFinding().Message == open.Message))
        {
            refusal = new Refused(
                StatusCodes.Status422UnprocessableEntity, "reason-missing",
                $"Figures do not add up: say why they may pass, in words of {FewestLetters} letters at least; it is kept on record. {open.Message}");
            return null;
        }
        return new FindingAccepted(open.Code, open.Message, reason);
    }
}
