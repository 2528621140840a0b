using System.Collections.Immutable;
using System.Globalization;
using System.Text.Json;
using Daxlin.Core;
using Daxlin.Core.Capture;
using Daxlin.Core.Checks;
using Daxlin.Core.Pages;
using Daxlin.Core.Recognition;
using Daxlin.Service.Storage;

namespace Daxlin.Service.Invoices;

/// <summary>Puts a checked invoice into the interface's form, and that form into the database and back.</summary>
internal static class InvoiceRecords
{
    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web);

    public static InvoiceRecord Of(CheckedInvoice invoice) => new(
        invoice.Captured.IsCreditNote ? "creditNote" : "invoice",
        invoice.Captured.Fields.ToImmutableSortedDictionary(field => field.Name, Of, StringComparer.Ordinal),
        [.. invoice.Captured.Lines.Select(Of)],
        [.. invoice.Captured.Taxes.Select(Of)],
        [.. invoice.Captured.Others.Select(Of)],
        [.. invoice.Findings.Select(finding => Of(finding, OriginOf(finding, invoice)) with { Passing = Word(invoice.PassingOf(finding)) })],
        // What an electronic invoice agrees in is told by its own sentence: an equation a figure would hide the sums.
        [.. invoice.Ties.Where(tie => tie is not AgreesWithElectronic).Select(Of)],
        [.. invoice.Tied.Order(StringComparer.Ordinal)],
        invoice.Unproved,
        [.. invoice.Captured.LeftOut.Select(line => new LeftOutRecord(
            line.Block, line.Place.Page, Of(line.Place.Box), line.Text, line.Why))])
    {
        Proof = Of(Proof.Of(invoice)),
        Unsure = [.. invoice.Unsure.Order(StringComparer.Ordinal)],
        Sums = [.. invoice.Captured.Sums.Select(sum => new SumRecord(
            sum.Block, sum.Text, sum.Place.Page, Of(sum.Place.Box), Text(sum.Stated), Text(sum.Counted)))],
        Electronic = [.. invoice.Captured.Electronic.Select(file => ElectronicRecord.Of(file, invoice))],
    };

    private static ProofRecord Of(Proof proof) => new(proof.Numbers, proof.Tied, proof.Sentence);

    public static FindingRecord Of(Finding finding, string origin) =>
        new(finding.Code, finding.Severity.ToString().ToLowerInvariant(), finding.Message, finding.About, origin, Readings: finding.Readings.IsEmpty ? null : finding.Readings);

    /// <summary>As the interface names it.</summary>
    public static string Word(Passing passing) => JsonNamingPolicy.CamelCase.ConvertName(passing.ToString());

    /// <summary>What is found of an invoice that no template captured.</summary>
    public static ImmutableArray<FindingRecord> OfFile(ImmutableArray<Finding> findings) => [.. findings.Select(finding => Of(finding, FromFile))];

    private static string OriginOf(Finding finding, CheckedInvoice invoice) => InvoicePath.IsOfFile(finding) ? FromFile
        : invoice.Captured.Findings.Any(one => ReferenceEquals(one, finding)) ? FromCapture
        : invoice.IsTie(finding) ? FromTie : FromCheck;

    /// <summary>What the findings of a record make of an invoice: its state, how many hold it, the first of them, and the codes of all.</summary>
    public static (InvoiceState State, int Findings, string First, string Codes) HeldBy(InvoiceRecord record)
    {
        var holds = record.Findings.Where(finding => finding.Severity == "hold").ToList();
        return (holds.Count == 0 ? InvoiceState.Clear : InvoiceState.Held, holds.Count, holds.Count == 0 ? "" : holds[0].Message,
            string.Join(',', holds.Select(finding => finding.Code).Distinct().Order(StringComparer.Ordinal)));
    }

    public const string FromCapture = "capture";
    public const string FromCheck = "check";
    public const string FromTie = "tie";
    public const string FromFile = "file";
    public const string FromStore = "store";

    public static string ToJson(InvoiceRecord record) => JsonSerializer.Serialize(record, Json);

    public static byte[] ToUtf8(InvoiceRecord record) => JsonSerializer.SerializeToUtf8Bytes(record, Json);

    public static InvoiceRecord FromJson(string json) => Whole(JsonSerializer.Deserialize<InvoiceRecord>(json, Json)!);

    /// <summary>A record stored by an earlier version, with what it did not know yet left empty.</summary>
    private static InvoiceRecord Whole(InvoiceRecord record) => record with
    {
        Fields = record.Fields.ToImmutableSortedDictionary(field => field.Key, field => Whole(field.Value), StringComparer.Ordinal),
        Lines = [.. record.Lines.Select(Whole)],
        Taxes = [.. record.Taxes.Select(Whole)],
        Others = record.Others.IsDefault ? [] : record.Others,
        Findings = [.. record.Findings.Select(finding => finding.Origin is null ? finding with { Origin = "" } : finding)],
        Unproved = record.Unproved.IsDefault ? [] : record.Unproved,
    };

    private static LineRecord Whole(LineRecord line) => line with
    {
        Cells = line.Cells.ToImmutableSortedDictionary(cell => cell.Key, cell => Whole(cell.Value), StringComparer.Ordinal),
        Under = line.Under.IsDefault ? [] : line.Under,
    };

    private static ValueRecord Whole(ValueRecord value) => value.Tidied.IsDefault ? value with { Tidied = [] } : value;

    public static LineRecord Of(CapturedLine line) => new(
        line.Block, line.Number, CellsOf(line),
        [.. line.Under.Select(under => new UnderRecord(under.Name, under.Flat.ToString().ToLowerInvariant(), [.. under.Rows.Select(CellsOf)]))]);

    private static ImmutableSortedDictionary<string, ValueRecord> CellsOf(CapturedLine line) =>
        line.Cells.ToImmutableSortedDictionary(cell => cell.Name, Of, StringComparer.Ordinal);

    public static ValueRecord Of(CapturedValue value)
    {
        var places = value.Trace.Places;
        return new ValueRecord(
            value.Value, value.Trace.Raw, value.Kind.ToString().ToLowerInvariant(),
            places.IsEmpty ? 0 : places[0].Page, places.IsEmpty ? null : Of(places[0].Box),
            value.Trace.Whereabouts, value.Trace.Confidence,
            [.. value.Trace.Steps.Select(step => new TidiedRecord(step.Step, step.Text))],
            [.. places.Skip(1).Select(place => new PlaceRecord(place.Page, Of(place.Box)))]);
    }

    private static string Text(decimal number) => number.ToString(CultureInfo.InvariantCulture);

    /// <summary>Hundredths of a point are finer than any screen or printer.</summary>
    public static BoxRecord Of(Box box) =>
        new(Math.Round(box.Left, 2), Math.Round(box.Top, 2), Math.Round(box.Right, 2), Math.Round(box.Bottom, 2));

    private static TieRecord Of(Tie tie) => new(
        tie.Equation, tie.Currency.Settled(tie.Left), tie.Currency.Settled(tie.Right), tie.Currency.Settled(tie.Difference), tie.Holds, tie.Members);
}
