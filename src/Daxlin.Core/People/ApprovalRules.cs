using System.Collections.Immutable;
using Daxlin.Core.Values;

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
    /// <summary>What is asked, a sentence each; at least what always is.</summary>
    public ImmutableArray<string> Says
    {
        get
        {
            var says = ImmutableArray.CreateBuilder<string>();
            if (KeepsCorrectors)
                says.Add("Who corrected an invoice does not approve it.");
            if (KeepsTemplateMakers)
                says.Add("Who made the template that captured it does not approve it.");
            if (KeepsAccountKeepers)
                says.Add("Who added or confirmed the account that it is paid to does not approve it.");
            if (!TwoAbove.IsEmpty)
                says.Add($"Two approvers above {Told(TwoAbove)}.");
            if (!TypedAbove.IsEmpty)
                says.Add($"Who approves many at once types their sum above {Told(TypedAbove)}.");
            says.Add("The first invoice to be paid to a changed account takes two approvers, always.");
            return says.DrainToImmutable();
        }
    }

    /// <summary>Says that a sum is so large that who approves it types it.</summary>
    public bool IsTyped(string currency, decimal sum) => TypedAbove.TryGetValue(currency, out var limit) && Math.Abs(sum) > limit;

    private static string Told(ImmutableSortedDictionary<string, decimal> limits) =>
        string.Join(" and ", limits.Select(limit => Currency.Find(limit.Key)?.Show(limit.Value) ?? limit.Key));

    /// <summary>Nothing is asked but what always is: two approvers for the first payment to a changed account.</summary>
    public static ApprovalRules None { get; } = new(false, false, false, ImmutableSortedDictionary<string, decimal>.Empty, ImmutableSortedDictionary<string, decimal>.Empty);
}
