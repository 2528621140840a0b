using System.Collections.Immutable;

namespace Daxlin.Service.Approvals;

/// <summary>What approvals ask for beyond the right to approve.</summary>
/// <param name="KeepsCorrectors">Who corrected an invoice's values does not approve it.</param>
/// <param name="KeepsTemplateMakers">Who made the template version that captured it does not approve it.</param>
/// <param name="KeepsAccountKeepers">Who added or confirmed the account that it is paid to does not approve it.</param>
/// <param name="TwoAbove">Amounts by currency (ISO 4217) above which an invoice takes two approvers.</param>
/// <param name="TypedAbove">Amounts by currency above which who approves many at once types their sum.</param>
/// <param name="Says">The same in sentences, with what is always asked.</param>
/// <param name="Revision">Counts the changes; its ETag.</param>
/// <param name="By">Who said so; empty if nobody ever said anything.</param>
public sealed record ApprovalRulesRecord(
    bool KeepsCorrectors, bool KeepsTemplateMakers, bool KeepsAccountKeepers, ImmutableSortedDictionary<string, string> TwoAbove, ImmutableSortedDictionary<string, string> TypedAbove,
    ImmutableArray<string> Says, int Revision, DateTime? At, string By);

/// <summary>What approvals are to ask for; what is left out is not asked.</summary>
public sealed record ApprovalRulesToSay(
    bool KeepsCorrectors = false, bool KeepsTemplateMakers = false, bool KeepsAccountKeepers = false, ImmutableSortedDictionary<string, string>? TwoAbove = null,
    ImmutableSortedDictionary<string, string>? TypedAbove = null);

/// <summary>Invoices of a batch that are approved together.</summary>
/// <param name="Invoices">Each with the revision that was seen.</param>
/// <param name="Sums">What they come to by currency, as the person typed it; needed where the sum is large.</param>
public sealed record ManyToApprove(ImmutableArray<SeenInvoice>? Invoices, ImmutableSortedDictionary<string, string>? Sums = null);

/// <summary>The clear invoices of a batch, as they can be approved together.</summary>
/// <param name="Sums">What they come to, by currency.</param>
/// <param name="ToType">The currencies of which the sum is large, so that who approves types it.</param>
public sealed record ApprovableMany(ImmutableArray<SeenInvoice> Invoices, ImmutableSortedDictionary<string, string> Sums, ImmutableArray<string> ToType);

public sealed record SeenInvoice(int Id, int Revision);

/// <summary>What became of each.</summary>
/// <param name="Approved">Those that can be posted now.</param>
/// <param name="First">Those that a second person has to approve, too, each with why.</param>
/// <param name="Refused">Those that were not approved, each with why.</param>
/// <param name="Sums">What the approved ones come to, by currency.</param>
public sealed record ManyApproved(ImmutableArray<int> Approved, ImmutableArray<ToldInvoice> First, ImmutableArray<ToldInvoice> Refused, ImmutableSortedDictionary<string, string> Sums);

public sealed record ToldInvoice(int Id, string Code, string Sentence);

/// <summary>Why an approval is taken back before it was posted.</summary>
/// <param name="Reason">At least five letters; it is kept on record.</param>
public sealed record ApprovalToWithdraw(string? Reason);
