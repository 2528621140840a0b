using System.Collections.Immutable;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Vendors;

/// <summary>What is known of a vendor when one of its invoices is looked at.</summary>
/// <param name="Accounts">IBANs without blanks that two persons confirmed and nobody ended.</param>
/// <param name="AccountsBefore">While the record never had a confirmed account: those that earlier invoices bear.</param>
/// <param name="HadAccounts">Says that the record had a confirmed account, whether it still has one or not.</param>
/// <param name="NumbersBefore">The numbers of its invoices that persons approved, the newest first.</param>
public sealed record VendorFacts(
    VendorRecord Record, ImmutableArray<string> Accounts, ImmutableArray<string> AccountsBefore, bool HadAccounts, ImmutableArray<string> NumbersBefore)
{
    /// <summary>The ways of rounding under which the taxes of all its approved invoices hold; any while they tell nothing, none if it uses several.</summary>
    public TaxRoundings TaxRounding { get; init; } = TaxRoundings.Any;

    /// <summary>What an invoice's account is held against.</summary>
    public ImmutableArray<string> KnownAccounts => HadAccounts ? Accounts : AccountsBefore;

    /// <summary>Says that an account is none of the vendor's. A record of which every account was ended knows none, and is not one that never had any.</summary>
    public bool IsForeign(string iban) => iban.Length > 0 && !KnownAccounts.Contains(iban) && (HadAccounts || !KnownAccounts.IsEmpty);
}
