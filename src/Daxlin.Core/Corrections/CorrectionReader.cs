using System.Collections.Immutable;
using Daxlin.Core.Capture;
using Daxlin.Core.Checks;
using Daxlin.Core.Pages;
using Daxlin.Core.Posting.Coding;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Corrections;

/// <summary>Reads what a person asks for as a correction of an invoice, or says in a sentence what is wrong with it.</summary>
public sealed class CorrectionReader
{
    private const int LongestText = 2000;

    private readonly WantedCorrection wanted;
    private readonly CorrectedInvoice invoice;
    private readonly CapturedInvoice shown;
    private CorrectionFault? fault;

    private readonly ImmutableArray<OutsideFinding> outside;

    private CorrectionReader(WantedCorrection wanted, CorrectedInvoice invoice, ImmutableArray<OutsideFinding> outside) =>
        (this.wanted, this.invoice, shown, this.outside) = (wanted, invoice, invoice.Checked.Captured, outside);

    /// <param name="invoice">As it was shown to the person.</param>
    /// <param name="outside">What else was shown to hold it.</param>
    /// <returns>The one or the other.</returns>
    public static (Correction? Correction, CorrectionFault? Fault) Read(WantedCorrection wanted, CorrectedInvoice invoice, ImmutableArray<OutsideFinding> outside)
    {
        var reader = new CorrectionReader(wanted, invoice, outside);
        var correction = reader.Read();
        return reader.fault is null ? (correction, null) : (null, reader.fault);
    }

    private Correction? Read() => wanted.Act switch
    {
        "enter" => Enter(),
        "strike" => Row(wanted.Of) is { } row ? new RowStruck(row) : null,
        "add" => Add(),
        "join" => Row(wanted.Of) is { } first && Row(wanted.With) is { } second
            ? first.List == second.List && first != second ? new RowsJoined(first, second) : No("Only two rows of one list can be joined.") : null,
        "split" => Row(wanted.Of) is { } whole ? Split(whole) : null,
        "move" => Row(wanted.Of) is { } moved ? Move(moved) : null,
        "kind" => wanted.Text is "invoice" or "creditNote" ? new KindSaid(wanted.Text == "creditNote") : No("A kind is “invoice” or “creditNote”."),
        "accept" => Accept(),
        "code" => SayCodes(),
        _ => No($"“{wanted.Act}” is no act; there are enter, strike, add, join, split, move, kind, accept, code, undo and redo."),
    };

    private Correction? No(string sentence)
    {
        fault ??= new CorrectionFault(CorrectionFault.Faulty, sentence);
        return null;
    }

    private RowAddress? Row(string? name)
    {
        if (ValueNames.Parse(name) is ({ } list, var number, null) && invoice.Rows.TryGetValue((list, number), out var row))
            return row;
        No($"The invoice has no row “{name}”.");
        return null;
    }

    private ValueEntered? Enter()
    {
        if (wanted.Text is null || ValueNames.Parse(wanted.Of) is not (var list, var number, { } name))
        {
            No("To enter a value, say in “of” which one, total or lines[3].amount, and in “text” what it is.");
            return null;
        }
        var row = list is null ? null : Row(ValueNames.Row(list, number));
        if (list is not null && row is null)
            return null;
        if (list is not null && ValueNames.ParseUnder(name) is var (under, at, _) && shown.Row(list, number)!.RowUnder(under, at) is null)
        {
            No($"The invoice has no row “{wanted.Of![..wanted.Of!.LastIndexOf('.')]}”.");
            return null;
        }
        var kind = list is null ? KindsOfValues.FindField(shown.Template, name) : KindsOfValues.FindColumn(shown.Template, shown.Row(list, number)!.Block, name);
        if (kind is null)
        {
            No($"The template knows no {(list is null ? "field" : "column")} {name}.");
            return null;
        }
        if (Settled(wanted.Text, kind.Value, ValueNames.ParseUnder(name)?.Column ?? name, wanted.Place is not null) is not { } settled)
            return null;
        var address = new ValueAddress(row, name);
        var captured = list is null ? invoice.Captured.Find(name)
            : row!.AddedBy > 0 ? null : invoice.Captured.Row(list, number)?.Find(name);
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

    private RowAdded? Add()
    {
        var list = wanted.List ?? BlockRule.Lines;
        var after = wanted.After is null ? null : Row(wanted.After);
        if (wanted.After is not null && after is null)
            return null;
        var above = ValueNames.Parse(wanted.After) is ({ } of, var number, _) ? shown.Row(of, number) : null;
        var block = wanted.Block ?? above?.Block ?? shown.Template.Blocks.FirstOrDefault(one => one.List == list)?.Name;
        if (block is null || !shown.Template.Blocks.Any(one => one.Name == block && one.List == list))
        {
            No($"The template has no block {(block is null ? "of the list " + list : $"{block} of the list {list}")}.");
            return null;
        }
        return Cells(block, "A row that is added") is { } cells ? new RowAdded(list, block, after, cells) : null;
    }

    private RowSplit? Split(RowAddress row)
    {
        var (list, number, _) = ValueNames.Parse(wanted.Of)!.Value;
        var whole = shown.Row(list!, number)!;
        if (Cells(whole.Block, "The row below") is not { } below)
            return null;
        var rests = whole.Cells.Where(cell => cell.Kind == ValueKind.Text && below.ContainsKey(cell.Name)).Select(cell => RowSplit.RestOf(cell.Value, below[cell.Name])).OfType<string>().ToList();
        if (rests.Count == 0)
        {
            No($"No text of {ValueNames.Spoken(wanted.Of!)} ends with what is said for the row below it, so nothing would be divided; a row that was not captured is added.");
            return null;
        }
        if (whole.Cells.Count(cell => cell.Name != TradeNames.Section) == rests.Count(rest => rest.Length == 0))
        {
            No("Nothing would be left of the row above: say only what belongs to the row below it.");
            return null;
        }
        return new RowSplit(row, below);
    }

    /// <summary>The values of a row that a person makes, in their settled form; null with a refusal.</summary>
    private ImmutableSortedDictionary<string, string>? Cells(string block, string what)
    {
        if (wanted.Cells is not { Count: > 0 } || wanted.Cells.Values.All(string.IsNullOrWhiteSpace))
        {
            No($"{what} needs one value at least, in “cells” by its column.");
            return null;
        }
        var cells = ImmutableSortedDictionary.CreateBuilder<string, string>(StringComparer.Ordinal);
        foreach (var (column, text) in wanted.Cells)
        {
            if (ValueNames.ParseUnder(column) is not null || KindsOfValues.FindColumn(shown.Template, block, column) is not { } kind)
            {
                No($"The template knows no column {column}.");
                return null;
            }
            if (Settled(text, kind, column, isPrinted: false) is not { } settled)
                return null;
            if (settled.Length > 0)
                cells[column] = settled;
        }
        return cells.ToImmutable();
    }

    private RowMoved? Move(RowAddress row)
    {
        var after = wanted.After is null ? null : Row(wanted.After);
        if (fault is not null)
            return null;
        if (after == row || (after is not null && after.List != row.List))
        {
            No("A row can be moved below another row of its own list.");
            return null;
        }
        return new RowMoved(row, after);
    }

    /// <summary>Some codes of a line beside those that were said of it before, or all of them by shares.</summary>
    private LineCoded? SayCodes()
    {
        var isWhole = wanted.Of == WholeInvoice && shown.Lines.IsEmpty;
        var row = isWhole ? null : Row(wanted.Of);
        if (fault is not null)
            return null;
        if (row is { List: not BlockRule.Lines })
        {
            No("Only item rows have codes.");
            return null;
        }
        var line = isWhole ? 0 : ValueNames.Parse(wanted.Of)!.Value.Row;
        var said = invoice.Coded.GetValueOrDefault(line)?.Coding;
        if (wanted.Shares is { } shares)
            return Shared(shares) is { } all ? new LineCoded(row, all.IsEmpty ? null : new SaidCoding(all)) : null;
        if (wanted.Cells is not { Count: > 0 })
        {
            No($"Say the codes in “cells”, by name ({string.Join(", ", CodeNames.All)}), or “shares”.");
            return null;
        }
        if (said is { Shares.Length: > 1 })
        {
            No($"{ValueNames.Spoken(wanted.Of!)} is parted into {said.Shares.Length} shares; say all of them anew, or none.");
            return null;
        }
        var codes = (said?.Shares[0].Codes ?? ImmutableSortedDictionary.Create<string, string>(StringComparer.Ordinal)).ToBuilder();
        foreach (var (name, text) in wanted.Cells)
        {
            if (text.Trim().Length == 0)
                codes.Remove(name);
            else
                codes[name] = text.Trim();
        }
        if (wanted.Cells.Keys.Concat(codes.Keys).FirstOrDefault(name => !CodeNames.All.Contains(name)) is { } unknown)
        {
            No($"There is no code “{unknown}”; there are {string.Join(", ", CodeNames.All)}.");
            return null;
        }
        if (codes.Count == 0)
            return new LineCoded(row, null);
        return Shared([new SaidShare(1, codes.ToImmutable())]) is { } one ? new LineCoded(row, new SaidCoding(one)) : null;
    }

    /// <summary>What an invoice without lines is called where codes are said of it.</summary>
    public const string WholeInvoice = "invoice";

    private ImmutableArray<SaidShare>? Shared(ImmutableArray<SaidShare> shares)
    {
        if (shares.Length > CodingReader.MostShares)
            No($"A line has at most {CodingReader.MostShares} shares.");
        foreach (var share in shares)
        {
            if (!CodingReader.IsPart(share.Part))
                No("Each share needs its “part”: a number above 0, as 60. What counts is the parts' proportion.");
            foreach (var (name, code) in share.Codes)
            {
                if (!CodeNames.All.Contains(name))
                    No($"There is no code “{name}”; there are {string.Join(", ", CodeNames.All)}.");
                else if (CodingReader.FaultOf(code) is { } faulty)
                    No($"The {TradeNames.Spoken(name)} “{code}” cannot be: {faulty}");
            }
        }
        return fault is null ? [.. shares.Select(share => share with { Codes = share.Codes.ToImmutableSortedDictionary(code => code.Key, code => code.Value.Trim(), StringComparer.Ordinal) })] : null;
    }

    private FindingAccepted? Accept()
    {
        var open = invoice.Checked.Findings.Select(finding => new OutsideFinding(finding, invoice.Checked.PassingOf(finding))).Concat(outside)
            .FirstOrDefault(one => one.Finding.Code == wanted.Code && one.Finding.Message == wanted.Message && one.Finding.Severity == Severity.Hold);
        if (open is not var (finding, passing))
        {
            No("There is no such finding open on this invoice; it may have been settled, or have other figures by now.");
            return null;
        }
        if (passing == Passing.Never)
        {
            No(finding.Code is SeenBefore.Code or SeenBefore.SameFile
                ? "An invoice that came before cannot be let pass by itself: set this one aside, or approve it and say why."
                : $"This cannot be let pass, only mended: enter the value as it is, or return the invoice. {finding.Message}");
            return null;
        }
        var reason = wanted.Reason?.Trim() ?? "";
        if (!Reason.SaysSomething(reason) && passing == Passing.ForReason)
        {
            fault = new CorrectionFault(
                CorrectionFault.ReasonMissing,
                $"{(invoice.Checked.IsTie(finding) ? "Figures do not add up: say why they may pass" : "Say why this may pass")}, in words of {Reason.FewestLetters} letters at least; it is kept on record. {finding.Message}");
            return null;
        }
        return new FindingAccepted(finding.Code, finding.Message, reason);
    }
}
