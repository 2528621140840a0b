using System.Collections.Immutable;

namespace Daxlin.Core.People;

/// <summary>What a department asks of approvals beyond the right to approve: four eyes, and a second approver for large sums.</summary>
/// <param name="KeepsCorrectors">Who corrected an invoice's values does not approve it.</param>
/// <param name="KeepsTemplateMakers">Who made the template version that captured it does not approve it.</param>
/// <param name="KeepsAccountKeepers">Who added or confirmed the account that it is paid to does not approve it.</param>
/// <param name="TwoAbove">Amounts by currency above which an invoice takes two approvers; of other currencies, none does.</param>
/// <param name="TypedAbove">Amounts by currency above which who approves many at once types their sum.</param>
public sealed record ApprovalRules(
    bool KeepsCorrectors, bool KeepsTemplateMakers, bool KeepsAccountKeepers, ImmutableSortedDictionary<string, decimal> TwoAbove, ImmutableSortedDictionary<string, decimal> TypedAbove)
{
    /// <summary>Nothing is asked but what always is: two approvers for the first payment to a changed account.</summary>
    public static ApprovalRules None { get; } = new(false, false, false, ImmutableSortedDictionary<string, decimal>.Empty, ImmutableSortedDictionary<string, decimal>.Empty);
}
