using System.Collections.Immutable;
using Daxlin.Service.Invoices;
using Daxlin.Service.Posting.Layouts;
using Daxlin.Service.NamedDocuments;

namespace Daxlin.Service.Posting.Coding;

/// <summary>The coding rules, or one version of them.</summary>
/// <param name="Version">0 if there are none yet.</param>
/// <param name="Newest">The newest version's number, which acts are bound to.</param>
/// <param name="Text">The document as it was saved.</param>
/// <param name="Waiting">How many open invoices are not coded by the newest rules, lists and layouts yet.</param>
public sealed record CodingDetail(int Version, int Newest, DateTime? SavedAt, string SavedBy, string Note, string Text, int Waiting);

/// <summary>How far open invoices are coded anew.</summary>
/// <param name="Waiting">How many are not coded by the newest rules, lists and layouts yet.</param>
public sealed record CodingProgress(int Waiting);

public sealed record CodingVersionRecord(int Version, DateTime SavedAt, string SavedBy, string Note);

/// <param name="IsNew">False if the newest version says the same already.</param>
public sealed record CodingSaved(int Version, bool IsNew);

/// <summary>Coding rules to be tried; nothing is stored.</summary>
/// <param name="Document">The document, as text.</param>
/// <param name="Invoices">On these invoices; left out for the open ones taken in last, or those approved last where none is open.</param>
public sealed record CodingToTry(string? Document = null, ImmutableArray<int>? Invoices = null);

/// <summary>What coding rules make of some invoices.</summary>
/// <param name="DocumentFaults">What is wrong with the document; then it is tried on nothing.</param>
/// <param name="Rules">How many lines each rule was of, from the first.</param>
public sealed record TriedCoding(ImmutableArray<DocumentFaultRecord> DocumentFaults, ImmutableArray<TriedCodedInvoice> Invoices, ImmutableArray<TriedRule> Rules, int Lines);

/// <param name="Of">What its lines are, in its own words.</param>
/// <param name="Lines">Of so many lines it says a code.</param>
public sealed record TriedRule(int Number, string Of, int Lines);

/// <param name="Findings">Lines without a code that is needed, what flags say, and rules that cannot be worked out.</param>
public sealed record TriedCodedInvoice(int Id, string Vendor, string InvoiceNumber, string Currency, ImmutableArray<TriedCodedLine> Lines, ImmutableArray<FindingRecord> Findings);

/// <param name="Text">What the line is: its description, or its item code.</param>
public sealed record TriedCodedLine(int Line, string Text, ImmutableArray<CodedPartRecord> Parts);

/// <summary>What was said by hand of most lines like a line before. It is shown, and never counts by itself.</summary>
/// <param name="Line">Its number; 0 is the invoice as a whole.</param>
/// <param name="Agree">So many of the lines like it were coded so.</param>
/// <param name="Of">So many lines were like it, the newest fifty.</param>
/// <param name="Says">The whole of it in a sentence.</param>
public sealed record CodeProposalRecord(int Line, ImmutableArray<SaidShareRecord> Shares, int Agree, int Of, string Says);
