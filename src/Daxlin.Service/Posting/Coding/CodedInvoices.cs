using System.Collections.Immutable;
using Daxlin.Core.Checks;
using Daxlin.Core.Posting;
using Daxlin.Core.Posting.Coding;
using Daxlin.Service.Invoices;
using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Posting.Coding;

/// <summary>Codes invoices by the rules and by what persons said, and tells which lines lack a code.</summary>
internal static class CodedInvoices
{
    /// <summary>Says of a stored record, without reading it, that codes stand in it.</summary>
    public static bool HasCodes(string json) => json.Contains("\"coding\":[{", StringComparison.Ordinal) || json.Contains("\"codedByHand\":[{", StringComparison.Ordinal);

    /// <summary>The record with its coding, and what is to be looked at.</summary>
    /// <param name="row">With its intake.</param>
    public static async Task<(InvoiceRecord Record, ImmutableArray<Finding> Findings)> Code(Invoice row, InvoiceRecord record, CodingFacts facts, DaxlinDb db, CancellationToken cancel)
    {
        var invoice = await InvoiceOf(row, record, db, cancel);
        var (coded, findings) = Code(invoice, record.CodedByHand, facts);
        return (record with { Coding = [.. coded.Coding.Select(CodingRecords.Of)] }, findings);
    }

    /// <summary>An invoice as rules look at it, its codes left out.</summary>
    public static async Task<ApprovedInvoice> InvoiceOf(Invoice row, InvoiceRecord record, DaxlinDb db, CancellationToken cancel)
    {
        var vendor = row.VendorId is { } id ? await db.Vendors.FindAsync([id], cancel) : null;
        var batch = await db.Batches.FindAsync([row.BatchId], cancel);
        return new ApprovedRecordReader().Read(row.Id, row.Vendor, row.IsCreditNote, row.Currency, (row.Intake.FileName, row.Intake.Sha256), InvoiceRecords.ToUtf8(record with { Coding = [] })) with
        {
            Origin = new ApprovedOrigin(batch!.Name, "", null, DateOnly.FromDateTime(row.Intake.ReceivedAt), vendor?.LedgerAccount ?? "", vendor?.TaxCode ?? ""),
        };
    }

    public static (ApprovedInvoice Coded, ImmutableArray<Finding> Findings) Code(ApprovedInvoice invoice, ImmutableArray<CodedByHandRecord> said, CodingFacts facts)
    {
        var coding = InvoiceCoding.Of(invoice, facts.Rules, facts.Lists, said.ToDictionary(line => line.Line, CodingRecords.Of), out var faults);
        var coded = invoice with { Coding = coding };
        var findings = ImmutableArray.CreateBuilder<Finding>();
        if (facts.Fault is { } fault)
            findings.Add(fault);
        findings.AddRange(faults.Select(told => Finding.Hold(CodingFacts.Faulty, told)));
        findings.AddRange(Flagged.Of(invoice, facts.Rules, facts.Lists, out var unflagged));
        findings.AddRange(unflagged.Select(told => Finding.Hold(CodingFacts.Faulty, told)));
        findings.AddRange(Uncoded.Of(coded, facts.Rules, facts.Layouts, facts.Lists));
        // What nothing codes is kept as nothing, not as rows without codes.
        return (coding.All(line => line.Parts.All(part => part.Codes.IsEmpty)) ? coded with { Coding = [] } : coded, findings.DrainToImmutable());
    }
}
