using System.Collections.Immutable;

namespace Daxlin.Service.Invoices;

/// <summary>An invoice as a list shows it.</summary>
/// <param name="State">unplaced, held, clear, approved, posted or returned.</param>
/// <param name="Kind"><c>invoice</c> or <c>creditNote</c>.</param>
/// <param name="FirstPage">Its first page in the file, from 1.</param>
/// <param name="LastPage">Its last page in the file.</param>
/// <param name="FilePages">How many pages the file has: more than these, if it holds several invoices.</param>
/// <param name="Findings">How many findings hold it.</param>
/// <param name="FirstFinding">The first of them, or empty.</param>
/// <param name="Revision">As in <see cref="InvoiceDetail"/>.</param>
/// <param name="Numbers">How many numbers were captured.</param>
/// <param name="FirstApprovedBy">Who approved an open one that takes a second approver; empty for nobody.</param>
/// <param name="NumbersTied">How many of them stand in sums that hold.</param>
/// <param name="LooksLike">The vendor whose invoices an unplaced one looks like, or whose name stands out on it; empty if none does, and for others.</param>
public sealed record InvoiceSummary(
    int Id, string State, string Kind, string File, int FirstPage, int LastPage, int FilePages, string Vendor, string InvoiceNumber, string InvoiceDate, string Currency,
    string Total, int Lines, int Findings, string FirstFinding, int Batch, int Revision, string LooksLike, int Numbers, int NumbersTied, string FirstApprovedBy);

/// <summary>The document that an invoice came in.</summary>
public sealed record InvoiceDocument(string File, string Sha256, long Size, DateTime ReceivedAt);

/// <summary>Something that a person decided.</summary>
/// <param name="Letter">What the vendor was told; empty where nothing was.</param>
public sealed record DecisionRecord(DateTime At, string By, string What, string Before, string After, string Reason, string Letter);

/// <summary>An invoice with everything that is known of it.</summary>
/// <param name="Revision">Counts its changes; its ETag. A decision says by If-Match which one was seen.</param>
/// <param name="Pages">How many pages the document has.</param>
/// <param name="FirstPage">The invoice's first page in the document, from 1.</param>
/// <param name="LastPage">Its last page in the document.</param>
/// <param name="Template">The template that captured it, or empty; <c>electronic invoice</c> for one that came as such.</param>
/// <param name="Unproved">Names of the captured numbers that no sum checks.</param>
/// <param name="Unsure">Names of header values that were found in a later of their whereabouts only, and that no sum holds.</param>
/// <param name="PostingRun">The number of the run it was posted in, or null.</param>
/// <param name="Entered">Values that a person entered, by name, each with what was captured in its place.</param>
/// <param name="Struck">Captured rows that a person said are none.</param>
/// <param name="Accepted">Findings that a person let pass.</param>
/// <param name="Proof">How far its numbers are proved.</param>
/// <param name="CodedByHand">What persons said of its lines' codes.</param>
/// <param name="Coding">The codes of its lines, each with who says it; empty where nothing codes them.</param>
/// <param name="Electronic">The electronic invoices that the document carries, and what they say of it.</param>
/// <param name="VendorId">The vendor's record; null for an unplaced invoice.</param>
/// <param name="HandedTo">Who is to look at it; empty for nobody in particular.</param>
public sealed record InvoiceDetail(
    int Id,
    int Revision,
    string State,
    string Kind,
    int Batch,
    string BatchName,
    InvoiceDocument Document,
    int Pages,
    int FirstPage,
    int LastPage,
    string Template,
    int TemplateVersion,
    string Vendor,
    string Currency,
    ImmutableSortedDictionary<string, ValueRecord> Fields,
    ImmutableArray<LineRecord> Lines,
    ImmutableArray<LineRecord> Taxes,
    ImmutableArray<LineRecord> Others,
    ImmutableArray<FindingRecord> Findings,
    ImmutableArray<TieRecord> Ties,
    ImmutableArray<string> Tied,
    ImmutableArray<string> Unproved,
    ImmutableArray<LeftOutRecord> LeftOut,
    ImmutableArray<DecisionRecord> Decisions,
    int? PostingRun,
    ImmutableSortedDictionary<string, EnteredRecord> Entered,
    ImmutableArray<StruckRecord> Struck,
    ImmutableArray<AcceptedRecord> Accepted,
    string HandedTo,
    int? VendorId,
    ProofRecord Proof,
    ImmutableArray<string> Unsure,
    ImmutableArray<CodedByHandRecord> CodedByHand,
    ImmutableArray<CodedLineRecord> Coding,
    ImmutableArray<ElectronicRecord> Electronic)
{
    /// <summary>Who approved it as it is, where a second approver is needed; empty for nobody.</summary>
    public string FirstApprovedBy { get; init; } = "";

    /// <summary>Letters to the vendor that were to be sent from here, of a returned invoice; else empty.</summary>
    public ImmutableArray<SentLetter> Letters { get; init; } = [];

    /// <summary>The document's pages that are the invoice's own, without covers and annexes: pages that a template names count among these. Of an invoice that is tried only; else empty.</summary>
    public ImmutableArray<int> CapturedPages { get; init; } = [];
}

/// <summary>A person's approval.</summary>
/// <param name="Despite">Why the invoice is right although findings are open; empty for a clear one.</param>
public sealed record Approval(string? Despite);

/// <summary>Why a person sets an invoice aside.</summary>
/// <param name="Reason">At least five letters; it is kept on record.</param>
public sealed record SetAside(string? Reason);

/// <summary>An invoice that goes back to its vendor.</summary>
/// <param name="Reason">At least five letters; it is kept on record.</param>
/// <param name="Letter">What the vendor is told, at most 20,000 characters; it is kept on record.</param>
/// <param name="SendTo">The address that the letter is sent to; left out, it is not sent.</param>
public sealed record ReturnToVendor(string? Reason, string? Letter = null, string? SendTo = null);

/// <summary>A letter about a returned invoice.</summary>
/// <param name="State"><c>waiting</c>, <c>sent</c> or <c>given-up</c>.</param>
/// <param name="Says">What the mail server said, or what stood in the way; empty before it was tried.</param>
public sealed record SentLetter(string To, string State, string Says);
