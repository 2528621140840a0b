using System.Globalization;
using Daxlin.Core.Templates;
using Microsoft.AspNetCore.Identity.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Storage;

/// <summary>The service's database.</summary>
public class DaxlinDb(DbContextOptions<DaxlinDb> options) : IdentityUserContext<Person, int>(options)
{
    public DbSet<Batch> Batches => Set<Batch>();
    public DbSet<Intake> Intakes => Set<Intake>();
    public DbSet<Invoice> Invoices => Set<Invoice>();
    public DbSet<HistoryRow> History => Set<HistoryRow>();
    public DbSet<Vendor> Vendors => Set<Vendor>();
    public DbSet<VendorSpelling> VendorSpellings => Set<VendorSpelling>();
    public DbSet<VendorAccount> VendorAccounts => Set<VendorAccount>();
    public DbSet<StoredCapture> Captures => Set<StoredCapture>();
    public DbSet<InvoiceCorrection> Corrections => Set<InvoiceCorrection>();
    public DbSet<TemplateChoice> TemplateChoices => Set<TemplateChoice>();
    public DbSet<TemplateVersion> Templates => Set<TemplateVersion>();
    public DbSet<DeskDraft> DeskDrafts => Set<DeskDraft>();
    public DbSet<Rehearsal> Rehearsals => Set<Rehearsal>();
    public DbSet<RehearsalOutcome> RehearsalOutcomes => Set<RehearsalOutcome>();
    public DbSet<PostingRun> PostingRuns => Set<PostingRun>();
    public DbSet<PostedInvoice> PostedInvoices => Set<PostedInvoice>();
    public DbSet<PostedFile> PostedFiles => Set<PostedFile>();
    public DbSet<ReceiverVersion> Receivers => Set<ReceiverVersion>();
    public DbSet<Delivery> Deliveries => Set<Delivery>();
    public DbSet<LayoutVersion> Layouts => Set<LayoutVersion>();
    public DbSet<PeriodClosing> PeriodClosings => Set<PeriodClosing>();
    public DbSet<CodingVersion> Codings => Set<CodingVersion>();
    public DbSet<CodedCase> CodedCases => Set<CodedCase>();
    public DbSet<ListVersion> Lists => Set<ListVersion>();
    public DbSet<ApprovalRuling> ApprovalRulings => Set<ApprovalRuling>();
    public DbSet<SignIn> SignIns => Set<SignIn>();
    public DbSet<StandIn> StandIns => Set<StandIn>();
    public DbSet<AccessKey> AccessKeys => Set<AccessKey>();
    public DbSet<Lease> Leases => Set<Lease>();
    public DbSet<SourceVersion> Sources => Set<SourceVersion>();
    public DbSet<SourceState> SourceStates => Set<SourceState>();
    public DbSet<CaptureNotice> CaptureNotices => Set<CaptureNotice>();
    public DbSet<LetterToVendor> LettersToVendors => Set<LetterToVendor>();
    public DbSet<SourceItem> SourceItems => Set<SourceItem>();
    public DbSet<ScheduleVersion> Schedules => Set<ScheduleVersion>();
    public DbSet<ScheduleState> ScheduleStates => Set<ScheduleState>();
    public DbSet<ScheduledTurn> ScheduledTurns => Set<ScheduledTurn>();
    public DbSet<Node> Nodes => Set<Node>();

    /// <summary>Rows of a table are of services that run, and are no one's memory: they are neither backed up nor moved.</summary>
    internal static bool IsPassing(Type row) => row == typeof(Lease) || row == typeof(Node);

    /// <summary>The change that this context is in; null where it only looks.</summary>
    internal Change? Change { get; set; }

    /// <summary>Has something done once the change that this context is in is stored: <see cref="Change.Then"/>.</summary>
    internal void Then(Action act) => (Change ?? throw new InvalidOperationException("Nothing is changed outside a change.")).Then(act);

    public override Task<int> SaveChangesAsync(bool acceptAllChangesOnSuccess, CancellationToken cancellationToken = default)
    {
        foreach (var entry in ChangeTracker.Entries<Invoice>().Where(entry => entry.State == EntityState.Modified))
        {
            // When it was captured, and by which rules it was last coded, shows nowhere, so it changes nothing that a person could have seen.
            if (entry.Properties.Any(property => property.IsModified && property.Metadata.Name is not (nameof(Invoice.CapturedAt) or nameof(Invoice.CodedBy) or nameof(Invoice.Revision))))
                entry.Entity.Revision++;
            // What was approved first was approved as it was.
            if (entry.Property(row => row.Record).IsModified && !entry.Property(row => row.FirstApprovedSha256).IsModified)
                (entry.Entity.FirstApprovedBy, entry.Entity.FirstApprovedFor, entry.Entity.FirstApprovedSha256) = ("", "", "");
        }
        if (ChangeTracker.Entries<HistoryRow>().Any(entry => entry.State is EntityState.Modified or EntityState.Deleted))
            throw new InvalidOperationException("The history is only ever added to.");
        return base.SaveChangesAsync(acceptAllChangesOnSuccess, cancellationToken);
    }

    protected override void ConfigureConventions(ModelConfigurationBuilder configurationBuilder) =>
        configurationBuilder.Properties<DateTime>().HaveConversion<UtcTime>();

    protected override void OnModelCreating(ModelBuilder builder)
    {
        base.OnModelCreating(builder);
        PeopleTables.Make(builder);
        builder.Entity<Batch>().HasIndex(batch => batch.Name).IsUnique();
        builder.Entity<Intake>(intake =>
        {
            intake.HasIndex(row => new { row.BatchId, row.Sha256 }).IsUnique();
            intake.HasIndex(row => row.State);
            intake.HasIndex(row => row.Sha256);
            intake.Property(row => row.State).HasConversion<string>();
            intake.HasOne<Batch>().WithMany().HasForeignKey(row => row.BatchId);
        });
        builder.Entity<Invoice>(invoice =>
        {
            invoice.HasIndex(row => new { row.BatchId, row.State });
            invoice.HasIndex(row => row.SeenKey);
            invoice.HasIndex(row => row.LikeKey);
            invoice.HasIndex(row => new { row.VendorId, row.State, row.Id });
            invoice.HasIndex(row => new { row.VendorId, row.IntakeId });
            invoice.HasIndex(row => new { row.VendorId, row.State, row.Iban, row.HeldBy });
            invoice.HasIndex(row => new { row.VendorId, row.IsCreditNote, row.State });
            invoice.HasIndex(row => new { row.VendorId, row.State, row.TaxRounding });
            invoice.Property(row => row.TaxRounding).HasDefaultValue(TaxRoundings.Any).HasSentinel(TaxRoundings.Any);
            invoice.Property(row => row.DueDate).HasDefaultValue(Invoice.NeverDue);
            invoice.HasIndex(row => new { row.State, row.DueDate, row.Id });
            invoice.HasIndex(row => new { row.State, row.TotalSize, row.Id });
            invoice.HasIndex(row => new { row.State, row.Vendor, row.Id });
            invoice.HasIndex(row => new { row.State, row.LooksLike });
            invoice.HasIndex(row => new { row.State, row.CodedBy });
            invoice.Property(row => row.CodedBy).HasDefaultValue("");
            invoice.Property(row => row.State).HasConversion<string>();
            // A database writes a row anew as a whole. A record has tens of kilobytes, and a state changes without it.
            invoice.SplitToTable("InvoiceRecords", record => record.Property(row => row.Record));
            invoice.HasOne(row => row.Intake).WithMany().HasForeignKey(row => row.IntakeId);
        });
        builder.Entity<HistoryRow>(history =>
        {
            history.ToTable("History");
            history.HasIndex(row => new { row.Stream, row.Number }).IsUnique();
        });
        builder.Entity<Vendor>(vendor =>
        {
            vendor.HasIndex(row => row.Key).IsUnique();
            vendor.HasIndex(row => row.Name);
        });
        builder.Entity<VendorSpelling>(spelling =>
        {
            spelling.HasKey(row => row.Key);
            spelling.HasIndex(row => row.VendorId);
            spelling.HasIndex(row => row.Name);
            spelling.HasOne<Vendor>().WithMany().HasForeignKey(row => row.VendorId);
        });
        builder.Entity<VendorAccount>(account =>
        {
            // One that was ended can be added anew.
            account.HasIndex(row => new { row.VendorId, row.Iban }).IsUnique().HasFilter("\"EndedAt\" IS NULL");
            account.HasOne<Vendor>().WithMany().HasForeignKey(row => row.VendorId);
        });
        builder.Entity<StoredCapture>().HasIndex(capture => capture.InvoiceId);
        builder.Entity<InvoiceCorrection>().HasIndex(correction => correction.InvoiceId);
        // Two persons who take the same back at once take it back once.
        builder.Entity<InvoiceCorrection>().HasIndex(correction => correction.Undoes).IsUnique();
        builder.Entity<TemplateChoice>().HasIndex(choice => choice.IntakeId);
        builder.Entity<TemplateVersion>().HasIndex(template => new { template.Name, template.Version }).IsUnique();
        builder.Entity<Invoice>().HasIndex(invoice => new { invoice.Template, invoice.TemplateVersion, invoice.IntakeId });
        builder.Entity<DeskDraft>().HasIndex(draft => draft.Key).IsUnique();
        builder.Entity<Rehearsal>().HasIndex(rehearsal => rehearsal.RequestKey).IsUnique();
        builder.Entity<Rehearsal>().Property(rehearsal => rehearsal.State).HasConversion<string>();
        builder.Entity<RehearsalOutcome>(outcome =>
        {
            outcome.HasIndex(row => new { row.RehearsalId, row.Verdict, row.InvoiceId });
            outcome.Property(row => row.Before).HasConversion<string>();
            outcome.Property(row => row.After).HasConversion<string>();
            outcome.HasOne<Rehearsal>().WithMany().HasForeignKey(row => row.RehearsalId);
        });
        builder.Entity<Invoice>().Property(invoice => invoice.Revision).HasDefaultValue(1);
        builder.Entity<PostingRun>().HasKey(run => run.Number);
        builder.Entity<PostingRun>().HasIndex(run => run.RequestKey).IsUnique();
        builder.Entity<PostingRun>().Property(run => run.Number).ValueGeneratedNever();
        builder.Entity<PostingRun>().HasIndex(run => run.Reverses);
        builder.Entity<PostedInvoice>().HasIndex(posted => posted.InvoiceId).IsUnique().HasFilter("\"WithdrawnIn\" IS NULL");
        builder.Entity<PostedInvoice>().HasIndex(posted => posted.RunNumber);
        builder.Entity<PostedFile>().HasIndex(file => new { file.RunNumber, file.Name }).IsUnique();
        builder.Entity<LayoutVersion>().HasIndex(layout => new { layout.Name, layout.Version }).IsUnique();
        builder.Entity<ReceiverVersion>().HasIndex(receiver => new { receiver.Name, receiver.Version }).IsUnique();
        builder.Entity<Delivery>(delivery =>
        {
            delivery.HasIndex(row => row.RunNumber);
            delivery.HasIndex(row => new { row.State, row.Receiver, row.Id });
            delivery.Property(row => row.State).HasConversion<string>();
            delivery.HasOne<PostingRun>().WithMany().HasForeignKey(row => row.RunNumber);
        });
        builder.Entity<CodingVersion>().HasKey(coding => coding.Version);
        builder.Entity<CodingVersion>().Property(coding => coding.Version).ValueGeneratedNever();
        builder.Entity<ApprovalRuling>().Property(ruling => ruling.Id).ValueGeneratedNever();
        builder.Entity<PeriodClosing>().Property(closing => closing.Id).ValueGeneratedNever();
        builder.Entity<CodedCase>().HasIndex(one => new { one.VendorId, one.Like });
        builder.Entity<CodedCase>().HasIndex(one => one.InvoiceId);
        builder.Entity<ListVersion>().HasIndex(list => new { list.Name, list.Version }).IsUnique();
        builder.Entity<SourceVersion>().HasIndex(source => new { source.Name, source.Version }).IsUnique();
        builder.Entity<SourceState>().HasIndex(source => source.Name).IsUnique();
        builder.Entity<SourceItem>(item =>
        {
            // Nothing is taken twice, whoever looks, and whatever dies between taking it and putting it away.
            item.HasIndex(row => new { row.Source, row.Key }).IsUnique();
            item.HasIndex(row => new { row.Source, row.Id });
            item.HasIndex(row => new { row.Source, row.Stamp });
            item.HasIndex(row => row.AnswerState);
            item.Property(row => row.AnswerState).HasConversion<string>();
            item.HasOne<Batch>().WithMany().HasForeignKey(row => row.BatchId);
        });
        builder.Entity<CaptureNotice>(notice =>
        {
            notice.HasIndex(row => new { row.IntakeId, row.Receiver }).IsUnique();
            notice.HasIndex(row => new { row.State, row.NextAt });
            notice.Property(row => row.State).HasConversion<string>();
            notice.HasOne<Intake>().WithMany().HasForeignKey(row => row.IntakeId);
        });
        builder.Entity<LetterToVendor>(letter =>
        {
            letter.HasIndex(row => row.InvoiceId);
            letter.HasIndex(row => row.State);
            letter.Property(row => row.State).HasConversion<string>();
            letter.HasOne<Invoice>().WithMany().HasForeignKey(row => row.InvoiceId);
        });
        builder.Entity<ScheduleVersion>().HasIndex(schedule => new { schedule.Name, schedule.Version }).IsUnique();
        builder.Entity<ScheduleState>().HasIndex(schedule => schedule.Name).IsUnique();
        builder.Entity<ScheduledTurn>(turn =>
        {
            turn.HasIndex(row => new { row.Schedule, row.Id });
            turn.HasIndex(row => row.State);
            turn.Property(row => row.State).HasConversion<string>();
            turn.Property(row => row.Outcome).HasConversion<string>();
        });
        builder.Entity<Node>().HasKey(node => node.Name);
        builder.Entity<Lease>().HasKey(lease => new { lease.Work, lease.Of });
        builder.Entity<Lease>().HasIndex(lease => lease.Node);
        if (Database.IsNpgsql())
        {
            // The chain hashes times as they were, to the last of their seven digits; a server's own times have six.
            builder.Entity<HistoryRow>().Property(row => row.At).HasConversion(
                time => time.ToUniversalTime().ToString("O", CultureInfo.InvariantCulture), text => DateTime.Parse(text, CultureInfo.InvariantCulture, DateTimeStyles.RoundtripKind));
            CompareByBytes(builder);
        }
    }

    /// <summary>Texts are alike, and follow each other, by their bytes, whatever language the database server speaks: as in a file of SQLite.</summary>
    private static void CompareByBytes(ModelBuilder builder)
    {
        foreach (var property in builder.Model.GetEntityTypes().SelectMany(type => type.GetProperties()))
        {
            if ((property.GetProviderClrType() ?? property.ClrType) == typeof(string))
                property.SetCollation("C");
        }
    }
}
