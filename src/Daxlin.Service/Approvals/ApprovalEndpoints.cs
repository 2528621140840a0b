using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.People;
using Daxlin.Core.Posting.Expressions;
using Daxlin.Service.Invoices;
using Daxlin.Service.People;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Approvals;

internal static class ApprovalEndpoints
{
    public static void Map(RouteGroupBuilder api)
    {
        var invoices = api.MapGroup("/invoices").WithTags("Approvals").ChangesNeed(Right.Approve);
        invoices.MapPost("/{id:int}/approval", Approve).WithSummary("Approves an invoice for posting; where a second approver is needed, the first approval is kept until then.");
        invoices.MapPost("/{id:int}/approval/withdrawal", Withdraw).WithSummary("Takes an approval back before the invoice was posted; it is open again.");
        api.MapPost("/batches/{id:int}/approval", ApproveMany).WithTags("Approvals").ChangesNeed(Right.Approve)
            .WithSummary("Approves clear invoices of a batch, each as it was seen; one that cannot be approved keeps none of the others back.");
        api.MapGet("/batches/{id:int}/approval", Approvable).WithTags("Approvals").WithSummary("The clear invoices of a batch, what they come to by currency, and of which the sum is to be typed.");
        var rules = api.MapGroup("/approval-rules").WithTags("Approvals").ChangesNeed(Right.Administer);
        rules.MapGet("", Show).WithSummary("What approvals ask for beyond the right to approve.");
        rules.MapPut("", Say).WithSummary("Says what approvals ask for: four eyes, a second approver above an amount, sums to be typed. It holds at once.");
    }

    private static Task<Results<Ok<InvoiceDetail>, ProblemHttpResult>> Approve(
        int id, Approval approval, HttpRequest request, Actor actor, BoundActs acts, Approving approving, CancellationToken cancel) =>
        acts.Do(id, request, invoice => approving.Do(invoice, approval.Despite, actor.Approver, cancel), cancel);

    private static Task<Results<Ok<InvoiceDetail>, ProblemHttpResult>> Withdraw(
        int id, ApprovalToWithdraw wanted, HttpRequest request, Actor actor, BoundActs acts, WithdrawingApproval withdrawing, CancellationToken cancel) =>
        acts.Do(id, request, invoice => withdrawing.Do(invoice, wanted.Reason, actor.Approver.ToString(), cancel), cancel);

    private static async Task<Results<Ok<ManyApproved>, ProblemHttpResult>> ApproveMany(
        int id, ManyToApprove wanted, Actor actor, ApprovingMany approving, DaxlinDb db, CancellationToken cancel)
    {
        if (!await db.Batches.AnyAsync(batch => batch.Id == id, cancel))
            return Problem.NotThere($"batch {id}");
        var (done, refused) = await approving.Do(id, wanted, actor.Approver, cancel);
        return done is null ? refused!.ToProblem() : TypedResults.Ok(done);
    }

    private static async Task<Results<Ok<ApprovableMany>, ProblemHttpResult>> Approvable(int id, ApprovingMany approving, DaxlinDb db, CancellationToken cancel) =>
        await db.Batches.AnyAsync(batch => batch.Id == id, cancel) ? TypedResults.Ok(await approving.Approvable(id, cancel)) : Problem.NotThere($"batch {id}");

    private static async Task<Ok<ApprovalRulesRecord>> Show(ApprovalRulings rulings, HttpResponse response, CancellationToken cancel)
    {
        var newest = await rulings.Newest(cancel);
        Seen.Tag(response, newest?.Id ?? 0);
        var rules = ApprovalRulings.RulesOf(newest);
        return TypedResults.Ok(new ApprovalRulesRecord(
            rules.KeepsCorrectors, rules.KeepsTemplateMakers, rules.KeepsAccountKeepers, Shown(rules.TwoAbove), Shown(rules.TypedAbove), rules.Says, newest?.Id ?? 0, newest?.At, newest?.By ?? ""));
    }

    private static ImmutableSortedDictionary<string, string> Shown(ImmutableSortedDictionary<string, decimal> limits) =>
        limits.ToImmutableSortedDictionary(limit => limit.Key, limit => ExpressionTypes.Settled(limit.Value));

    private static async Task<Results<Ok<ApprovalRulesRecord>, ProblemHttpResult>> Say(
        ApprovalRulesToSay wanted, HttpRequest request, Actor actor, ApprovalRulings rulings, DaxlinDb db, WriteTurn turn, CancellationToken cancel)
    {
        await using var change = await turn.Take(db, cancel);
        var newest = await rulings.Newest(cancel);
        if (Seen.Refuse(request, newest?.Id ?? 0, () => $"The rules for approvals were changed by {newest!.By} since they were shown, {newest.At.ToString("yyyy-MM-dd HH:mm:ss", CultureInfo.InvariantCulture)} UTC. Look at them again.") is { } changed)
            return changed;
        if (await rulings.Say(newest, wanted, actor.Name, cancel) is { } refused)
            return refused.ToProblem();
        await change.Commit(cancel);
        return await Show(rulings, request.HttpContext.Response, cancel);
    }
}
