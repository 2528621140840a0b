using System.Collections.Immutable;
using Daxlin.Core.Values;

namespace Daxlin.Core.People;

/// <summary>What is known of an invoice and of who has had a hand in it, when someone approves it.</summary>
/// <param name="Invoice">As a sentence names it: "Invoice 7".</param>
/// <param name="Currency">Null if it is not known.</param>
/// <param name="Total">Null if it is not known. Its size counts: a large credit note is as grave as a large invoice.</param>
/// <param name="CorrectedBy">Who corrected its values.</param>
/// <param name="TemplateBy">Who made the template version that captured it; empty if none did.</param>
/// <param name="AccountBy">Who added and who confirmed the account that it is paid to.</param>
/// <param name="IsAccountChanged">Says that the vendor was paid to other accounts before, and never yet to this one.</param>
/// <param name="First">Who approved it first, as it is now; null if nobody did.</param>
public sealed record ApprovalFacts(
    string Invoice, Currency? Currency, decimal? Total, ImmutableArray<string> CorrectedBy, string TemplateBy, ImmutableArray<string> AccountBy, bool IsAccountChanged, Approver? First)
{
    /// <summary>Whether a person's approval counts, and whether it is enough.</summary>
    /// <remarks>
    /// Names are compared without regard to capitals. Who is refused as the first is refused as the second, too: 12,500.00 EUR over a limit
    /// of 10,000.00 EUR, corrected by Berta, takes two others. Who stands in for another is refused for what either of both had a hand in.
    /// </remarks>
    public ApprovalVerdict Of(Approver person, ApprovalRules rules)
    {
        if (rules.KeepsCorrectors && Of(person, CorrectedBy) is { } corrector)
            return ApprovalVerdict.Refused($"{Invoice} was corrected by {corrector}, who therefore does not approve it as well.");
        if (rules.KeepsTemplateMakers && Of(person, [TemplateBy]) is { } maker)
            return ApprovalVerdict.Refused($"{Invoice} was captured by a template that {maker} made, who therefore does not approve it as well.");
        if (rules.KeepsAccountKeepers && Of(person, AccountBy) is { } keeper)
            return ApprovalVerdict.Refused($"{Invoice} is paid to an account that {keeper} added or confirmed, who therefore does not approve it as well.");
        if (WhyTwo(rules) is not { } why)
            return ApprovalVerdict.Enough;
        if (First is null)
            return ApprovalVerdict.First(why);
        return person.Shares(First.Names) ? ApprovalVerdict.Refused($"{Invoice} was approved by {First} already, and takes a second approver: {why}.") : ApprovalVerdict.Enough;
    }

    /// <summary>The first whose approval it is of those who had a hand in it; null if none had.</summary>
    private static string? Of(Approver person, ImmutableArray<string> hands) => person.Names.FirstOrDefault(name => hands.Contains(name, StringComparer.OrdinalIgnoreCase));

    private string? WhyTwo(ApprovalRules rules) =>
        IsAccountChanged ? "it is the first to be paid to a changed account"
        : rules.TwoAbove.IsEmpty ? null
        // What no limit can be held against may be above any.
        : Currency is not { } currency || Total is not { } total ? "what it comes to is not known"
        : rules.TwoAbove.TryGetValue(currency.Code, out var limit) && Math.Abs(total) > limit ? $"{currency.Show(Math.Abs(total))} is more than {currency.Show(limit)}"
        : null;
}
