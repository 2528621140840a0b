using System.Collections.Immutable;
using Daxlin.Service.Figures;

namespace Daxlin.Service.Batches;

/// <summary>What a batch comes to.</summary>
/// <param name="Revision">Counts changes of its control totals; the ETag of this sheet.</param>
/// <param name="States">Invoices and sums in each state and currency; those without a currency are unplaced.</param>
/// <param name="Vendors">The same by vendor.</param>
/// <param name="Reasons">What holds invoices, the most frequent first. An invoice that is held by two things counts twice.</param>
/// <param name="Held">What is held or unplaced, by the names of the files; 500 at most.</param>
/// <param name="ControlTotals">What the batch was to come to, and what it comes to.</param>
/// <param name="Covers">What was stated of its invoices by what they came with.</param>
/// <param name="Unreadable">Files that were set aside.</param>
public sealed record BatchSheet(
    int Id, string Name, DateTime CreatedAt, int Revision, int Documents, int Waiting, ImmutableArray<StateTotal> States, ImmutableArray<VendorTotal> Vendors,
    ImmutableArray<ReasonCount> Reasons, ImmutableArray<HeldInvoice> Held, ImmutableArray<ControlTotal> ControlTotals, ImmutableArray<CoverTotal> Covers, ImmutableArray<SetAsideFile> Unreadable);

/// <param name="Sum">Credit notes taken off.</param>
public sealed record StateTotal(string State, string Currency, int Invoices, string Sum);

/// <param name="Untouched">How many are clear, approved or posted, and no person has changed anything of them.</param>
/// <param name="Held">How many are held.</param>
public sealed record VendorTotal(string Vendor, string Currency, int Invoices, int Untouched, int Held, string Sum);

public sealed record HeldInvoice(int Id, string File, string Vendor, string InvoiceNumber, string State, string Finding, int Findings);

public sealed record SetAsideFile(string File, string Reason);

/// <summary>What a batch was said to come to in one currency, and what all its invoices but the returned come to.</summary>
/// <param name="StatedInvoices">Null if no count was stated.</param>
/// <param name="StatedSum">Null if no sum was stated.</param>
/// <param name="Says">What does not agree, in figures; empty if all does or nothing was stated.</param>
public sealed record ControlTotal(string Currency, int? StatedInvoices, string? StatedSum, int Invoices, string Sum, string Says);

/// <summary>What was stated in one currency by the subject of a message, or by a cover sheet in a message, an archive or a folder, and what the invoices come to that came with it.</summary>
/// <param name="Source">The source that it came from.</param>
/// <param name="ItemId">What came from there; its original is kept.</param>
/// <param name="Name">A message's subject, or a file's place.</param>
/// <param name="From">Whom a message is from; empty for a file.</param>
public sealed record CoverTotal(string Source, int ItemId, string Name, string From, DateTime At, ControlTotal Total);

/// <summary>What a batch is to come to, by currency; an empty list takes all of it back.</summary>
public sealed record TotalsToState(ImmutableArray<TotalToState> Totals);

/// <param name="Currency">ISO 4217.</param>
/// <param name="Invoices">How many invoices; null if only the sum is known.</param>
/// <param name="Sum">Credit notes taken off, as "1204.50"; null if only the count is known.</param>
public sealed record TotalToState(string? Currency, int? Invoices = null, string? Sum = null);
