using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.Posting.Layouts;
using Daxlin.Service.Posting.Files;

namespace Daxlin.Service.Posting;

/// <summary>Which approved invoices are posted; one of the two has to be said.</summary>
/// <param name="Batch">Those of this batch.</param>
/// <param name="AllBatches">True for those of all batches.</param>
/// <param name="Despite">Why a batch is posted that does not come to what was stated of it; it is kept on record.</param>
/// <param name="Layout">The layout that writes the files; left out for one CSV file of every value.</param>
/// <param name="Deliver">Receivers that get the run beside those that get each run at once.</param>
/// <param name="PostingDate">The day that invoices dated in a closed period are posted on; the others are posted on their own.</param>
public sealed record RunToStart(
    int? Batch = null, bool AllBatches = false, string? Despite = null, string? Layout = null, ImmutableArray<string>? Deliver = null, DateOnly? PostingDate = null);

/// <summary>A posting run with its control totals.</summary>
/// <param name="Invoices">How many invoices are in it.</param>
/// <param name="Rows">How many records its files have, headings left out.</param>
/// <param name="Sums">The sum of the totals by currency, credit notes taken off; less than nothing for a run that takes another back.</param>
/// <param name="Layout">The layout that wrote its files; empty for a file of every value.</param>
/// <param name="Reverses">The run that it takes back, as a whole or in part; null for one that posts.</param>
/// <param name="Reason">Why it takes a run back, or posts what does not come to what was stated.</param>
/// <param name="Withdrawn">How many of its invoices were taken back.</param>
/// <param name="PostingDate">The day that its invoices of closed periods are posted on; null if none was said.</param>
public sealed record PostingRunSummary(
    int Number, int? Batch, DateTime At, string By, int Invoices, int Rows, ImmutableSortedDictionary<string, string> Sums, string Layout, int LayoutVersion, int? Reverses, string Reason,
    int Withdrawn, DateOnly? PostingDate);

/// <summary>A posting run with all that an auditor asks for.</summary>
/// <param name="LayoutSha256">Of the layout's document; empty for a file of every value.</param>
/// <param name="CodingVersion">The version of the coding rules whose accounts its journals have; 0 where it has none.</param>
/// <param name="Lists">The versions of the translation lists that it looked words up in, by name.</param>
public sealed record PostingManifest(
    PostingRunSummary Run, string LayoutSha256, ImmutableSortedDictionary<string, int> Lists, int CodingVersion, ImmutableArray<PostedFileRecord> Files, ImmutableArray<PostedInvoiceRecord> Invoices);

/// <param name="Records">How many records it holds, headings left out.</param>
public sealed record PostedFileRecord(string Name, string MediaType, int Records, int Bytes, string Sha256);

/// <param name="ContentSha256">Of the values that were approved and posted; empty for one that an earlier release posted.</param>
/// <param name="WithdrawnIn">The run that took it back; null while it is posted.</param>
/// <param name="PostingDate">The day that it is posted on by this run; null for one without a date.</param>
public sealed record PostedInvoiceRecord(
    int Id, string Vendor, string InvoiceNumber, string InvoiceDate, string Currency, string Total, bool IsCreditNote, string ApprovedBy, DateTime? ApprovedAt, string ContentSha256, int? WithdrawnIn,
    DateOnly? PostingDate);

/// <summary>What a run would come to, which is not made.</summary>
/// <param name="Number">The number that it would get, unless another is made first.</param>
/// <param name="Files">What it would write, with the first lines of text files.</param>
/// <param name="Left">Approved invoices that the layout does not take.</param>
/// <param name="Disagreements">Batches that do not come to what was stated of them, in sentences: a reason would be asked for.</param>
/// <param name="PeriodClosed">Says which invoices are dated in a closed period, so that a posting date has to be said; empty if none is.</param>
/// <param name="Faults">Why it would be refused; empty if it would be made.</param>
public sealed record RehearsedRun(
    int Number, int Invoices, int Rows, ImmutableSortedDictionary<string, string> Sums, string Layout, int LayoutVersion, ImmutableArray<RehearsedFile> Files, ImmutableArray<ProvedSumRecord> Proved, int Left,
    ImmutableArray<string> Disagreements, string PeriodClosed, ImmutableArray<string> Faults);

/// <param name="Begins">The first lines; empty for a spreadsheet.</param>
public sealed record RehearsedFile(string Name, string MediaType, int Records, int Bytes, string Begins)
{
    /// <summary>So much of a text file is shown.</summary>
    private const int LongestBegin = 4000;

    internal static RehearsedFile Of(WrittenFile file)
    {
        var text = file.Encoding is { } encoding ? encoding.GetString(file.Content.AsSpan(0, Math.Min(file.Content.Length, LongestBegin * 2))) : "";
        return new RehearsedFile(file.Name, file.MediaType, file.Records, file.Content.Length, text.Length > LongestBegin ? text[..LongestBegin] : text);
    }
}

/// <summary>A proving column held against its control total.</summary>
/// <param name="Of"><c>invoices</c> or <c>creditNotes</c>.</param>
/// <param name="Proves"><c>total</c>, <c>lines</c>, <c>tax</c> or <c>journal</c>.</param>
/// <param name="Says">The same in a sentence.</param>
public sealed record ProvedSumRecord(string Table, string Column, string Proves, string Of, string Currency, string ControlTotal, string Written, bool Holds, string Says)
{
    internal static ProvedSumRecord From(ProvedSum sum) => new(
        sum.Table, sum.Column, sum.Proves.Word(), sum.IsOfCreditNotes ? "creditNotes" : "invoices", sum.Currency, sum.Wanted.ToString(CultureInfo.InvariantCulture),
        sum.Written.ToString(CultureInfo.InvariantCulture), sum.Holds, $"“{sum.Column}” of {sum.Table}: {sum.Says}");
}

/// <summary>What is taken back of a run.</summary>
/// <param name="Reason">Why; it is kept on record.</param>
/// <param name="Invoices">These of its invoices; left out for all that are posted still.</param>
/// <param name="PostingDate">The day that is taken for what was posted in a period that is closed by now.</param>
/// <param name="Open">True if they are to be open again, to be corrected; else they stay approved, to be posted anew.</param>
public sealed record RunToWithdraw(string? Reason = null, ImmutableArray<int>? Invoices = null, bool Open = false, DateOnly? PostingDate = null);
