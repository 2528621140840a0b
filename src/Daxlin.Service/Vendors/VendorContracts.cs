using System.Collections.Immutable;
using Daxlin.Core.Vendors;

namespace Daxlin.Service.Vendors;

/// <summary>A vendor as a list shows it.</summary>
/// <param name="Terms">"30 days net"; empty if none are agreed.</param>
/// <param name="Accounts">How many confirmed accounts it has.</param>
/// <param name="AccountsWaiting">How many accounts wait for a second person.</param>
/// <param name="Invoices">How many of its invoices were taken in and not returned.</param>
/// <param name="Held">How many of them are held.</param>
public sealed record VendorSummary(int Id, string Name, string Currency, string Terms, string LedgerAccount, int Accounts, int AccountsWaiting, int Invoices, int Held, int Revision);

/// <summary>A vendor's record.</summary>
/// <param name="Revision">Counts its changes; its ETag. A change says by If-Match which one was seen.</param>
/// <param name="Templates">The names of its templates.</param>
/// <param name="AccountsSeen">Accounts on its invoices that its record does not know, each with how many invoices bear it.</param>
/// <param name="Group">Whose its invoices are; empty if nobody's in particular.</param>
/// <param name="MovedInvoices">After a change: how many of its open invoices are held or clear now that were not before.</param>
public sealed record VendorDetail(
    int Id, int Revision, string Name, ImmutableArray<string> OtherNames, ImmutableArray<string> TaxIds, string Currency, TermsRecord? Terms, string LedgerAccount, string TaxCode,
    ImmutableArray<AccountRecord> Accounts, ImmutableArray<AccountSeen> AccountsSeen, ImmutableArray<string> Templates, int Invoices, int Held, int MovedInvoices, string Group);

/// <param name="Days">After the invoice's date, from 0 to 366.</param>
/// <param name="FromMonthEnd">Counted from the last day of the invoice's month.</param>
public sealed record TermsRecord(int Days, bool FromMonthEnd);

/// <summary>A bank account of a vendor.</summary>
/// <param name="State"><c>waiting</c> for a second person, <c>confirmed</c>, or <c>ended</c>.</param>
/// <param name="Reason">How the first person knows that it is right.</param>
public sealed record AccountRecord(string Iban, string State, DateTime AddedAt, string AddedBy, string Reason, DateTime? ConfirmedAt, string ConfirmedBy, DateTime? EndedAt, string EndedBy);

public sealed record AccountSeen(string Iban, int Invoices);

/// <summary>What a vendor's record is to say; accounts have acts of their own.</summary>
/// <param name="Currency">ISO 4217; empty if its invoices may be in any.</param>
/// <param name="Terms">Null if none are agreed.</param>
public sealed record VendorToKeep(
    string? Name, ImmutableArray<string>? OtherNames = null, ImmutableArray<string>? TaxIds = null, string? Currency = null, TermsRecord? Terms = null, string? LedgerAccount = null, string? TaxCode = null)
{
    internal VendorRecord Record => new(
        Name ?? "", OtherNames ?? [], TaxIds ?? [], Currency ?? "", Terms is { } terms ? new PaymentTerms(terms.Days, terms.FromMonthEnd) : null, LedgerAccount ?? "", TaxCode ?? "");
}

/// <summary>A bank account to be added; it counts when another person has confirmed it.</summary>
/// <param name="Reason">How it is known to be right, in five letters at least; it is kept on record.</param>
public sealed record AccountToAdd(string? Iban, string? Reason);

/// <param name="Iban">Of an account of this vendor.</param>
/// <param name="Reason">How the second person knows, or why it is ended, in five letters at least.</param>
public sealed record AccountDecision(string? Iban, string? Reason);

/// <summary>What became of one row of an imported file.</summary>
/// <param name="Row">From 1, the heading left out.</param>
/// <param name="Outcome"><c>added</c>, <c>changed</c>, <c>same</c> or <c>refused</c>.</param>
/// <param name="Reason">A sentence if it was refused.</param>
public sealed record ImportedVendor(int Row, string Name, string Outcome, string Reason);
