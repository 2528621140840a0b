using System.Collections.Immutable;
using System.Globalization;
using System.Text.Encodings.Web;
using System.Text.Json;
using Daxlin.Core;
using Daxlin.Core.Capture;
using Daxlin.Core.Checks;
using Daxlin.Core.Drafting;
using Daxlin.Core.Drift;
using Daxlin.Core.Recognition;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;
using Daxlin.Core.Vendors;
using Daxlin.Service.Invoices;
using Daxlin.Service.Storage;

namespace Daxlin.Service.Work;

/// <summary>What the capture of a document came to, as a reading process hands it to the service.</summary>
/// <param name="Pages">How many pages it has.</param>
internal sealed record DocumentOutcome(int Pages, ImmutableArray<InvoiceOutcome> Invoices)
{
    /// <summary>A record is JSON within JSON, and nobody but the service reads it: a quotation mark takes two bytes, not six.</summary>
    public static JsonSerializerOptions Json { get; } = new() { Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping };
}

/// <summary>What the capture of one invoice came to, in the form in which it is stored.</summary>
/// <param name="Findings">How many findings hold it.</param>
/// <param name="Record">All of it, as JSON.</param>
internal sealed record InvoiceOutcome(
    int FirstPage, int LastPage, InvoiceState State, string Template, int TemplateVersion, string Vendor, string InvoiceNumber, string InvoiceDate,
    string Currency, string Total, bool IsCreditNote, int Lines, int Findings, string FirstFinding, string Record)
{
    /// <summary>The vendor that an unplaced invoice looks like one of; empty for others.</summary>
    public string LooksLike { get; init; } = "";

    /// <summary>What can be its vendor's name, of an unplaced one, the most likely first.</summary>
    public ImmutableArray<string> Names { get; init; } = [];

    /// <summary>What it looks like: the bytes of <see cref="InvoiceLooks"/>.</summary>
    public byte[] Looks { get; init; } = [];

    /// <summary>When it is due, as yyyy-MM-dd; empty if unknown.</summary>
    public string DueDate { get; init; } = "";

    /// <summary>What other invoices and the vendor's record can speak against, as JSON; empty for an unplaced one.</summary>
    public string Stated { get; init; } = "";

    /// <summary>The ways of rounding under which its taxes hold.</summary>
    public TaxRoundings TaxRounding { get; init; } = TaxRoundings.Any;

    /// <summary>The codes of what holds it, each once, parted by commas.</summary>
    public string HeldBy { get; init; } = "";

    /// <summary>How many numbers were captured, and how many of them stand in sums that hold.</summary>
    public int Numbers { get; init; }
    public int NumbersTied { get; init; }

    /// <summary>How it was captured, as JSON; empty for an unplaced one.</summary>
    public string Traits { get; init; } = "";

    /// <param name="versionOf">The version of a template.</param>
    public static InvoiceOutcome Of(TakenInvoice taken, Func<Template, int> versionOf) =>
        (taken.Checked is { } invoice ? Captured(taken, invoice, versionOf(invoice.Captured.Template)) : Unplaced(taken)) with { Looks = InvoiceLooks.Of(taken.Found.Pages).ToBytes() };

    private static InvoiceOutcome Captured(TakenInvoice taken, CheckedInvoice invoice, int version) =>
        OfCaptured(taken.FirstPage, taken.LastPage, version, invoice, InvoiceRecords.Of(invoice)) with { Traits = JsonSerializer.Serialize(InvoiceTraits.Of(invoice), DocumentOutcome.Json) };

    /// <summary>An invoice that a template captured, with or without what persons said of it.</summary>
    /// <param name="record">All of it; its findings are those that count.</param>
    public static InvoiceOutcome OfCaptured(int firstPage, int lastPage, int version, CheckedInvoice invoice, InvoiceRecord record)
    {
        var (captured, template) = (invoice.Captured, invoice.Captured.Template);
        var number = captured.Find(TradeNames.InvoiceNumber)?.Value ?? "";
        var (state, findings, first, codes) = InvoiceRecords.HeldBy(record);
        var stated = StatedBy(captured) with { TaxRounding = RoundedTax.Of(invoice) };
        return new InvoiceOutcome(
            firstPage, lastPage, state, template.Name, version, template.Vendor.Length > 0 ? template.Vendor : captured.Find(TradeNames.VendorName)?.Value ?? "",
            number, captured.Find(TradeNames.InvoiceDate)?.Value ?? "",
            captured.Find(TradeNames.Currency)?.Value ?? template.Reads.Currency.Code, captured.Find(TradeNames.Total)?.Value ?? "",
            captured.IsCreditNote, captured.Lines.Length,
            findings, first, InvoiceRecords.ToJson(record))
        {
            DueDate = captured.Find(TradeNames.DueDate) is { Kind: ValueKind.Date, Value: var due } ? due : "",
            Stated = JsonSerializer.Serialize(stated, DocumentOutcome.Json),
            TaxRounding = stated.TaxRounding,
            HeldBy = codes,
            Numbers = record.Proof.Numbers,
            NumbersTied = record.Proof.Tied,
        };
    }

    private static StatedFacts StatedBy(CapturedInvoice invoice) => new(
        TextOf(invoice, TradeNames.InvoiceNumber), DayOf(invoice, TradeNames.InvoiceDate), DayOf(invoice, TradeNames.DueDate), TextOf(invoice, TradeNames.VendorName),
        TextOf(invoice, TradeNames.VendorTaxId), Iban.Bare(TextOf(invoice, TradeNames.Iban)), invoice.Find(TradeNames.Currency)?.Value ?? invoice.Template.Reads.Currency.Code,
        invoice.Amount(TradeNames.Total), invoice.IsCreditNote, TextOf(invoice, TradeNames.CreditedInvoice));

    private static string TextOf(CapturedInvoice invoice, string name) => invoice.Find(name)?.Value ?? "";

    private static DateOnly? DayOf(CapturedInvoice invoice, string name) =>
        invoice.Find(name) is { Kind: ValueKind.Date, Value: var text } && DateOnly.TryParseExact(text, "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out var day) ? day : null;

    private static InvoiceOutcome Unplaced(TakenInvoice taken)
    {
        ImmutableArray<string> names = taken.Found.Matches.IsEmpty ? Drafter.VendorsOf(taken.Found.Pages) : [];
        var looksLike = names.FirstOrDefault("");
        var findings = Placing.FindingsOf(taken.Found, looksLike);
        return new InvoiceOutcome(
            taken.FirstPage, taken.LastPage, InvoiceState.Unplaced, "", 0, "", "", "", "", "", false, 0, findings.Length, findings[0].Message,
            InvoiceRecords.ToJson(InvoiceRecord.Empty with { Findings = InvoiceRecords.OfFile(findings) }))
        {
            LooksLike = looksLike,
            Names = names,
            HeldBy = string.Join(',', findings.Select(finding => finding.Code).Distinct().Order(StringComparer.Ordinal)),
        };
    }

    /// <summary>An unplaced invoice that looks like one of another vendor than the name that stands out on it says.</summary>
    public InvoiceOutcome LookingLike(string vendor)
    {
        // A template that nearly recognises it is worth more than what it looks like.
        if (FirstFinding != Placing.Unrecognised(LooksLike).Message)
            return this with { LooksLike = vendor };
        var (record, said) = (InvoiceRecords.FromJson(Record), Placing.Unrecognised(vendor));
        return this with
        {
            LooksLike = vendor,
            FirstFinding = said.Message,
            Record = InvoiceRecords.ToJson(record with { Findings = record.Findings.SetItem(0, InvoiceRecords.Of(said, InvoiceRecords.FromFile)) }),
        };
    }

    /// <summary>Puts what was captured into the invoice's row.</summary>
    public void Fill(Invoice row)
    {
        (row.FirstPage, row.LastPage, row.State) = (FirstPage, LastPage, State);
        (row.Template, row.TemplateVersion, row.Vendor) = (Template, TemplateVersion, Vendor);
        (row.InvoiceNumber, row.InvoiceDate, row.Currency, row.Total) = (InvoiceNumber, InvoiceDate, Currency, Total);
        (row.Stated, row.IsCreditNote, row.Lines) = (Stated, IsCreditNote, Lines);
        (row.Findings, row.FirstFinding, row.Record, row.LooksLike, row.Looks, row.Traits) = (Findings, FirstFinding, Record, LooksLike, Looks, Traits);
        (row.HeldBy, row.Numbers, row.NumbersTied, row.TaxRounding) = (HeldBy, Numbers, NumbersTied, TaxRounding);
        row.SortBy(DueDate);
    }
}
