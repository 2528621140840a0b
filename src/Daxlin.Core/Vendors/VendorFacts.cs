using System.Collections.Immutable;

namespace Daxlin.Core.Vendors;

/// <summary>What is known of a vendor when one of its invoices is looked at.</summary>
/// <param name="Name">As its record says.</param>
/// <param name="OtherNames">Other spellings that its invoices may bear.</param>
/// <param name="TaxIds">Its tax numbers; empty while none is on record.</param>
/// <param name="Accounts">IBANs that two persons confirmed.</param>
/// <param name="AccountsBefore">Without a confirmed one: IBANs that earlier invoices bear.</param>
/// <param name="Currency">ISO 4217; empty if it may be any.</param>
/// <param name="Terms">Null if none are on record.</param>
/// <param name="NumbersBefore">The numbers of its invoices that persons approved, the newest first.</param>
public sealed record VendorFacts(
    string Name, ImmutableArray<string> OtherNames, ImmutableArray<string> TaxIds, ImmutableArray<string> Accounts, ImmutableArray<string> AccountsBefore, string Currency,
    PaymentTerms? Terms, ImmutableArray<string> NumbersBefore);
