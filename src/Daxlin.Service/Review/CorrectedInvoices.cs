using System.Collections.Immutable;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using Daxlin.Core.Capture;
using Daxlin.Core.Corrections;
using Daxlin.Core.Electronic;
using Daxlin.Core.Recognition;
using Daxlin.Core.Templates;
using Daxlin.Core.Templates.Json;
using Daxlin.Service.Invoices;
using Daxlin.Service.Posting.Coding;
using Daxlin.Service.Storage;
using Daxlin.Service.Work;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Review;

/// <summary>Works out what an invoice comes to with all that persons said of it, and puts that into its row.</summary>
/// <remarks>
/// The row's record is what counts: it is shown, approved and posted. What it was made of is kept beside it and only ever
/// added to: captures and corrections. So capturing again takes all corrections over the new values.
/// </remarks>
internal static class CorrectedInvoices
{
    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web);

    public static string ToJson(Correction correction) => JsonSerializer.Serialize(correction, Json);

    /// <summary>A stored correction as it counts.</summary>
    public static MadeCorrection Of(InvoiceCorrection row) =>
        new(row.Id, row.Undoes is null ? JsonSerializer.Deserialize<Correction>(row.Act, Json)! : null, row.Undoes);

    /// <summary>What was captured from an invoice last, and what of a person's corrections holds.</summary>
    /// <returns>Null if it was captured by an earlier release, whose records cannot be corrected, or by no template.</returns>
    public static async Task<CorrectableInvoice?> Of(Invoice row, DaxlinDb db, CancellationToken cancel)
    {
        if (await TemplateOf(row, db, cancel) is not { } template)
            return null;
        var made = await db.Corrections.Where(correction => correction.InvoiceId == row.Id).OrderBy(correction => correction.Id).ToListAsync(cancel);
        var stored = made.Count == 0 ? null : await Newest(row.Id, db, cancel);
        var record = InvoiceRecords.FromJson(stored?.Record ?? row.Record);
        return record.Findings.Any(finding => finding.Origin.Length == 0) ? null : new CorrectableInvoice(CapturedRecords.Of(record, template), made, record);
    }

    /// <summary>The version that captured an invoice, or what stands in the place of one.</summary>
    private static async Task<Template?> TemplateOf(Invoice row, DaxlinDb db, CancellationToken cancel)
    {
        if (row.Template == ElectronicTemplate.Name)
            return ElectronicTemplate.Of(row.Vendor, row.Currency);
        var document = await db.Templates.Where(version => version.Name == row.Template && version.Version == row.TemplateVersion)
            .Select(version => version.Document).SingleOrDefaultAsync(cancel);
        return document is null ? null : TemplateReader.Check(document).Template;
    }

    private static Task<StoredCapture?> Newest(int invoice, DaxlinDb db, CancellationToken cancel) =>
        db.Captures.Where(capture => capture.InvoiceId == invoice).OrderByDescending(capture => capture.Id).FirstOrDefaultAsync(cancel);

    /// <summary>Keeps what was captured before the first correction covers it.</summary>
    public static async Task Keep(Invoice row, DaxlinDb db, CancellationToken cancel)
    {
        // What other invoices say is no part of what was captured from this one.
        var record = InvoiceRecords.FromJson(row.Record);
        var json = InvoiceRecords.ToJson(record with { Findings = record.Findings.RemoveAll(finding => finding.Origin == InvoiceRecords.FromStore), Coding = [] });
        var hash = Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(json)));
        if ((await Newest(row.Id, db, cancel))?.Sha256 == hash)
            return;
        db.Captures.Add(new StoredCapture
        {
            InvoiceId = row.Id,
            At = row.CapturedAt,
            Template = row.Template,
            TemplateVersion = row.TemplateVersion,
            Record = json,
            Sha256 = hash,
        });
    }

    /// <summary>Takes a person's corrections over what was just captured anew. The row holds that capture.</summary>
    public static async Task TakeOver(Invoice row, DaxlinDb db, CancellationToken cancel)
    {
        if (row.Template.Length == 0 || !await db.Corrections.AnyAsync(correction => correction.InvoiceId == row.Id, cancel))
            return;
        await Keep(row, db, cancel);
        await db.SaveChangesAsync(cancel);
        if (await Of(row, db, cancel) is { } invoice)
            Fill(row, invoice);
    }

    /// <summary>Puts what an invoice comes to into its row. What other invoices say of it is to be found anew.</summary>
    public static void Fill(Invoice row, CorrectableInvoice of) =>
        // The signs of a changed layout are those of the capture, whatever a person made of it.
        (InvoiceOutcome.OfCaptured(row.FirstPage, row.LastPage, row.TemplateVersion, of.Corrected.Checked, RecordOf(of.Corrected, of)) with { Traits = row.Traits }).Fill(row);

    private static InvoiceRecord RecordOf(CorrectedInvoice corrected, CorrectableInvoice of)
    {
        var by = of.Made.ToDictionary(correction => correction.Id);
        var record = InvoiceRecords.Of(corrected.Checked);
        // Where a file was parted is worth knowing only while something is wrong.
        var ofFile = of.Record.Findings.Where(finding => finding.Origin == InvoiceRecords.FromFile && (finding.Code != Parting.Code || !corrected.Checked.IsClear));
        return record with
        {
            Findings = record.Findings.AddRange(ofFile),
            Entered = corrected.Entered.ToImmutableSortedDictionary(
                one => one.Key, one => Entered(one.Key, one.Value, corrected.Checked.Captured, by[one.Value.Correction]), StringComparer.Ordinal),
            CodedByHand = [.. corrected.Coded.Select(line => CodingRecords.Of(line.Key, line.Value.Coding, by[line.Value.Correction].By, by[line.Value.Correction].At))],
            Struck = [.. corrected.Struck.Select(row => new StruckRecord(row.List, InvoiceRecords.Of(row.Line), by[row.Correction].By, by[row.Correction].At))],
            Accepted =
            [
                .. corrected.Accepted.Select(one => new AcceptedRecord(
                    one.Finding.Code, one.Finding.Message, one.Finding.About, one.Reason, by[one.Correction].By, by[one.Correction].At)),
            ],
        };
    }

    private static EnteredRecord Entered(string name, EnteredValue value, CapturedInvoice invoice, InvoiceCorrection made)
    {
        var captured = value.Captured is { } one ? InvoiceRecords.Of(one) : null;
        return new EnteredRecord(
            invoice.Named(name)?.Value ?? "", captured?.Value ?? "", captured?.Raw ?? "",
            captured?.Box is { } box ? new PlaceRecord(captured.Page, box) : null, made.By, made.At);
    }
}
