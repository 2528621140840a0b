using System.Collections.Immutable;
using System.Text.Json;
using Daxlin.Core.History;
using Daxlin.Core.People;
using Daxlin.Core.Posting.Expressions;
using Daxlin.Core.Values;
using Daxlin.Service.History;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Approvals;

/// <summary>The rules that an administrator sets for approvals.</summary>
internal sealed class ApprovalRulings(DaxlinDb db, TimeProvider clock)
{
    /// <summary>What was said last; null if nobody ever said anything.</summary>
    public Task<ApprovalRuling?> Newest(CancellationToken cancel) => db.ApprovalRulings.AsNoTracking().OrderByDescending(row => row.Id).FirstOrDefaultAsync(cancel);

    public static ApprovalRules RulesOf(ApprovalRuling? row) => row is null ? ApprovalRules.None : JsonSerializer.Deserialize<ApprovalRules>(row.Rules, JsonSerializerOptions.Web)!;

    /// <param name="newest">What was seen; the turn to write is held by who asks.</param>
    public async Task<Refused?> Say(ApprovalRuling? newest, ApprovalRulesToSay wanted, string who, CancellationToken cancel)
    {
        var (two, twoFault) = Limits(wanted.TwoAbove, "twoAbove");
        var (typed, typedFault) = Limits(wanted.TypedAbove, "typedAbove");
        if ((twoFault ?? typedFault) is { } fault)
            return fault;
        var rules = new ApprovalRules(wanted.KeepsCorrectors, wanted.KeepsTemplateMakers, wanted.KeepsAccountKeepers, two, typed);
        var (before, after) = (string.Join(' ', RulesOf(newest).Says), string.Join(' ', rules.Says));
        if (before == after)
            return null;
        var now = clock.GetUtcNow().UtcDateTime;
        db.ApprovalRulings.Add(new ApprovalRuling { Id = (newest?.Id ?? 0) + 1, Rules = JsonSerializer.Serialize(rules, JsonSerializerOptions.Web), At = now, By = who });
        await HistoryLog.Record(db, new Deed(HistoryStreams.ApprovalRules, now, who, HistoryActs.ApprovalRulesSaid, "said what approvals ask for") { Before = before, After = after }, cancel);
        await db.SaveChangesAsync(cancel);
        return null;
    }

    private static (ImmutableSortedDictionary<string, decimal> Limits, Refused? Fault) Limits(ImmutableSortedDictionary<string, string>? said, string key)
    {
        var limits = ImmutableSortedDictionary.CreateBuilder<string, decimal>(StringComparer.Ordinal);
        foreach (var (code, text) in said ?? ImmutableSortedDictionary<string, string>.Empty)
        {
            if (Currency.Find(code) is not { } currency)
                return (limits.ToImmutable(), Refused.Faulty("currency-unknown", $"“{code}” under “{key}” is no currency of ISO 4217."));
            if (ExpressionType.Number.Read(text ?? "") is not decimal limit || limit < 0)
                return (limits.ToImmutable(), Refused.Faulty("limit-faulty", $"“{text}” is no amount; one is written as 10000.00."));
            // With the digits that its currency has: 10000 EUR is 10,000.00 EUR.
            limits[currency.Code] = limit + (0 * currency.MinorUnit);
        }
        return (limits.ToImmutable(), null);
    }
}
