using System.Collections.Immutable;
using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.People;

/// <summary>The database as a person sees it who is held to some groups: what lies outside them is not there.</summary>
/// <remarks>
/// An invoice is within reach if its batch or its vendor is of one of the groups; a batch or a document of no such group, if one of its
/// invoices is, with nothing else of it; a posting run, if its batch is of a group. Only looked into: acts work on the whole of it, since an invoice that nobody here may see can
/// be the one that this one repeats.
/// </remarks>
internal sealed class HeldDb(DbContextOptions<DaxlinDb> options, ImmutableArray<string> groups, List<int> ownBatches) : DaxlinDb(options)
{
    /// <summary>A list, since the database is asked for what is in it.</summary>
    private List<string> Groups { get; } = [.. groups];

    /// <summary>The batches that are of the groups, whole.</summary>
    public List<int> OwnBatches { get; } = ownBatches;

    protected override void OnModelCreating(ModelBuilder builder)
    {
        base.OnModelCreating(builder);
        builder.Entity<Batch>().HasQueryFilter(row => OwnBatches.Contains(row.Id) || Invoices.Any(invoice => invoice.BatchId == row.Id));
        builder.Entity<Invoice>().HasQueryFilter(row => OwnBatches.Contains(row.BatchId) || Vendors.Any(vendor => vendor.Id == row.VendorId && Groups.Contains(vendor.Group)));
        builder.Entity<Intake>().HasQueryFilter(row => OwnBatches.Contains(row.BatchId) || Invoices.Any(invoice => invoice.IntakeId == row.Id));
        builder.Entity<StoredCapture>().HasQueryFilter(row => Invoices.Any(invoice => invoice.Id == row.InvoiceId));
        builder.Entity<InvoiceCorrection>().HasQueryFilter(row => Invoices.Any(invoice => invoice.Id == row.InvoiceId));
        builder.Entity<CodedCase>().HasQueryFilter(row => Invoices.Any(invoice => invoice.Id == row.InvoiceId));
        builder.Entity<RehearsalOutcome>().HasQueryFilter(row => Invoices.Any(invoice => invoice.Id == row.InvoiceId));
        builder.Entity<DeskDraft>().HasQueryFilter(row => Invoices.Any(invoice => invoice.Id == row.InvoiceId));
        builder.Entity<PostedInvoice>().HasQueryFilter(row => Invoices.Any(invoice => invoice.Id == row.InvoiceId));
        builder.Entity<TemplateChoice>().HasQueryFilter(row => Intakes.Any(intake => intake.Id == row.IntakeId));
        builder.Entity<LetterToVendor>().HasQueryFilter(row => Invoices.Any(invoice => invoice.Id == row.InvoiceId));
        builder.Entity<CaptureNotice>().HasQueryFilter(row => Intakes.Any(intake => intake.Id == row.IntakeId));
        builder.Entity<PostingRun>().HasQueryFilter(row => row.BatchId != null && OwnBatches.Contains(row.BatchId.Value));
        builder.Entity<PostedFile>().HasQueryFilter(row => PostingRuns.Any(run => run.Number == row.RunNumber));
        builder.Entity<Delivery>().HasQueryFilter(row => PostingRuns.Any(run => run.Number == row.RunNumber));
        builder.Entity<HistoryRow>().HasQueryFilter(row =>
            row.Stream.StartsWith("invoice/") ? Invoices.Any(invoice => "invoice/" + invoice.Id.ToString() == row.Stream)
            : row.Stream.StartsWith("batch/") ? Batches.Any(batch => "batch/" + batch.Id.ToString() == row.Stream && OwnBatches.Contains(batch.Id))
            : !row.Stream.StartsWith("posting-run/") || PostingRuns.Any(run => "posting-run/" + run.Number.ToString() == row.Stream));
    }
}
