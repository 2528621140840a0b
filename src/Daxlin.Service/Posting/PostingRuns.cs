using System.Collections.Immutable;
using System.Globalization;
using System.Text.Json;
using Daxlin.Core.Corrections;
using Daxlin.Core.History;
using Daxlin.Core.Posting;
using Daxlin.Core.Posting.Expressions;
using Daxlin.Core.Posting.Layouts;
using Daxlin.Core.Values;
using Daxlin.Service.Batches;
using Daxlin.Service.History;
using Daxlin.Service.Posting.Coding;
using Daxlin.Service.Posting.Deliveries;
using Daxlin.Service.Posting.Layouts;
using Daxlin.Service.Posting.Lists;
using Daxlin.Service.Posting.Periods;
using Daxlin.Service.Posting.Receivers;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Posting;

/// <summary>Makes posting runs: numbered without gaps, all or none, each invoice in one of them.</summary>
/// <remarks>
/// A run, its invoices' new states, its files and its history are stored in the change that who asks has begun: a kill
/// leaves all of it or nothing.
/// </remarks>
internal sealed class PostingRuns(DaxlinDb db, LayoutShelf layouts, ListShelf lists, ClosedPeriods periods, CodingShelf coding, CodingWorker worker, ReceiverShelf receivers, DeliveryWorker deliveries, TimeProvider clock)
{
    private const int MostTold = 10;

    /// <summary>The code of a refusal that asks nobody to look.</summary>
    public const string NothingToPost = "nothing-to-post";

    public async Task<(PostingRun? Run, Refused? Refused)> Make(RunToStart wanted, string? key, string who, CancellationToken cancel)
    {
        var (draft, refused) = await Draft(wanted, cancel);
        if (draft is null)
            return (null, refused);
        var despite = wanted.Despite?.Trim() ?? "";
        if (draft.Disagreements.Count > 0 && !Reason.SaysSomething(despite))
        {
            return (null, Refused.Conflict(
                "totals-differ",
                $"What is to be posted does not come to what was stated. {string.Join(' ', draft.Disagreements)} Nothing was posted. To post it all the same, say why, in words of {Reason.FewestLetters} letters at least."));
        }
        var work = draft.Work;
        if (RefusalOf(work, draft.Plan.Run.Dates) is { } fault)
            return (null, fault);
        var run = RunOf(draft.Plan, work, wanted.Batch, who, key);
        run.Reason = draft.Disagreements.Count == 0 ? "" : $"{despite} ({string.Join(' ', draft.Disagreements)})";
        await SetStates([.. work.Posted.Select(one => one.Invoice)], InvoiceState.Posted, cancel);
        await Store(
            run, work, wanted.Deliver ?? [], HistoryActs.Posted,
            $"posted {Counted(work.Posted.Length)}{(wanted.Deliver is { IsEmpty: false } to ? $", to be delivered to {string.Join(", ", to)}" : "")}",
            work.Posted.Select(one => new Deed(HistoryStreams.Invoice(one.Invoice), run.At, who, HistoryActs.Posted, $"posted in run {run.Number}") { Before = "approved", After = "posted", Content = one.Sha256 }), cancel);
        await ManyRows.Insert(
            db, work.Posted.Select(one => new PostedInvoice { InvoiceId = one.Invoice, RunNumber = run.Number, ContentSha256 = one.Sha256, Origin = JsonSerializer.Serialize(one.Origin) }), cancel);
        db.Then(deliveries.Wake);
        return (run, null);
    }

    /// <summary>What a run would come to; nothing is stored.</summary>
    public async Task<(RehearsedRun? Run, Refused? Refused)> Rehearse(RunToStart wanted, CancellationToken cancel)
    {
        var (draft, refused) = await Draft(wanted, cancel);
        if (draft is null)
            return (null, refused);
        var (plan, work) = (draft.Plan, draft.Work);
        return (new RehearsedRun(
            plan.Run.Number, work.Totals.Invoices, work.Totals.Rows, SumsOf(work), plan.Layout?.Name ?? "", plan.LayoutVersion, [.. work.Files.Select(RehearsedFile.Of)],
            [.. work.Sums.Select(ProvedSumRecord.From)], work.Left, [.. draft.Disagreements], ToldUndated(work, plan.Run.Dates), [.. work.Altered.Select(Altered), .. work.Faults.Select(fault => fault.ToString())]), null);
    }

    /// <summary>Takes a run back, or some of its invoices: a numbered run with the other sign, by the same layout.</summary>
    public async Task<(PostingRun? Run, Refused? Refused)> Withdraw(PostingRun of, RunToWithdraw wanted, string? key, string who, CancellationToken cancel)
    {
        var reason = wanted.Reason?.Trim() ?? "";
        if (!Reason.SaysSomething(reason))
            return (null, Refused.Faulty("reason-missing", $"Say why the run is taken back, in words of {Reason.FewestLetters} letters at least; the ledger's auditor will ask."));
        if (of.Reverses is not null)
            return (null, Refused.Conflict("is-reversal", $"Run {of.Number} takes run {of.Reverses} back itself. Its invoices are approved; post them again instead."));
        var posted = await db.PostedInvoices.AsNoTracking().Where(row => row.RunNumber == of.Number && row.WithdrawnIn == null).OrderBy(row => row.InvoiceId).ToListAsync(cancel);
        if (wanted.Invoices is { } some)
        {
            if (some.FirstOrDefault(id => posted.TrueForAll(row => row.InvoiceId != id)) is var stranger and not 0)
                return (null, Refused.Conflict("not-in-run", $"Invoice {stranger} is not posted in run {of.Number}, or was taken back before."));
            posted = posted.FindAll(row => some.Contains(row.InvoiceId));
        }
        if (posted.Count == 0)
            return (null, Refused.Conflict("nothing-to-withdraw", $"Nothing of run {of.Number} is posted any more: all of it was taken back before."));
        var number = await NextNumber(cancel);
        var (dates, closed) = await DatesOf(wanted.PostingDate, cancel);
        if (closed is not null)
            return (null, closed);
        var (plan, faults) = await PlanLike(of, posted, new RunFacts(number, Today, IsReversal: true) { Dates = dates }, cancel);
        if (plan is null)
            return (null, faults);
        var ids = posted.ConvertAll(row => row.InvoiceId);
        var work = await PostingWriter.Write(plan, ids, db, cancel);
        if (RefusalOf(work, dates) is { } fault)
            return (null, fault);
        var run = RunOf(plan, work, of.BatchId, who, key);
        (run.Reverses, run.Reason) = (of.Number, reason);
        var after = wanted.Open ? "open again" : "approved";
        if (wanted.Open)
            await Reopen(ids, cancel);
        else
            await SetStates(ids, InvoiceState.Approved, cancel);
        await Store(
            run, work, [], HistoryActs.Withdrawn, $"took {Counted(posted.Count)} of run {of.Number} back",
            posted.Select(row => new Deed(HistoryStreams.Invoice(row.InvoiceId), run.At, who, HistoryActs.Withdrawn, $"taken back from run {of.Number}, in run {number}")
            {
                Before = "posted",
                After = after,
                Reason = reason,
                Content = row.ContentSha256,
            }), cancel);
        foreach (var taken in ids.Chunk(500))
        {
            await db.PostedInvoices.Where(row => row.RunNumber == of.Number && row.WithdrawnIn == null && taken.Contains(row.InvoiceId))
                .ExecuteUpdateAsync(set => set.SetProperty(row => row.WithdrawnIn, number), cancel);
        }
        db.Then(deliveries.Wake);
        if (wanted.Open)
            db.Then(worker.Wake);
        return (run, null);
    }

    /// <summary>The records of a run once more, table by table and invoice by invoice, as its layout made them.</summary>
    /// <param name="begin">Is shown each table of the layout, before its records.</param>
    /// <param name="see">Is shown each invoice, once for each table.</param>
    /// <returns>Why they cannot be made again; null if they were.</returns>
    public async Task<Refused?> Again(PostingRun run, Func<LayoutTable, Task> begin, Func<LaidOutInvoice, Task> see, CancellationToken cancel)
    {
        var posted = await db.PostedInvoices.AsNoTracking().Where(row => run.Reverses == null ? row.RunNumber == run.Number : row.WithdrawnIn == run.Number)
            .OrderBy(row => row.InvoiceId).ToListAsync(cancel);
        var (plan, refused) = await PlanLike(run, posted, new RunFacts(run.Number, DateOnly.FromDateTime(run.At), run.Reverses is not null) { Dates = DatesOf(run) }, cancel);
        if (plan is null)
            return refused;
        if (plan.Layout is null)
            return Refused.Conflict("no-layout", $"Run {run.Number} was made by no layout, so it has no records.");
        foreach (var table in plan.Layout.Tables)
        {
            await begin(table);
            if (await Again(run, plan, posted, see, cancel) is { } changed)
                return changed;
        }
        return null;
    }

    private async Task<Refused?> Again(PostingRun run, PostingPlan plan, List<PostedInvoice> posted, Func<LaidOutInvoice, Task> see, CancellationToken cancel)
    {
        var contents = posted.ToDictionary(row => row.InvoiceId, row => row.ContentSha256);
        await foreach (var (invoice, content, _) in ApprovedInvoices.Read(db, [.. posted.Select(row => row.InvoiceId)], plan.Origins, cancel))
        {
            if (contents[invoice.Id] is { Length: > 0 } known && known != content)
                return Refused.Conflict("changed-since-posted", $"Invoice {invoice.Id} is not any more as run {run.Number} posted it; the run's files have it as it was.");
            await see(LaidOut.Of(plan.Layout!, invoice.PostedBy(plan.Run.Dates) ?? invoice, plan.Lists.Lists, plan.Run, plan.Journal));
        }
        return null;
    }

    /// <summary>A plan with the layout, the lists and what was known of the invoices as they were in a run: what it wrote to an account is taken from that account.</summary>
    private async Task<(PostingPlan? Plan, Refused? Refused)> PlanLike(PostingRun of, List<PostedInvoice> posted, RunFacts facts, CancellationToken cancel)
    {
        var known = await lists.AsOf(JsonSerializer.Deserialize<ImmutableSortedDictionary<string, int>>(of.Lists)!, cancel);
        var (layout, refused) = of.Layout.Length == 0 ? (null, null) : await layouts.Find(of.Layout, of.LayoutVersion, known.Lists, cancel);
        if (refused is not null)
            return (null, refused);
        var plan = new PostingPlan(layout?.Layout, of.LayoutVersion, known, facts)
        {
            Origins = posted.Where(row => row.Origin.Length > 0).ToImmutableDictionary(row => row.InvoiceId, row => JsonSerializer.Deserialize<ApprovedOrigin>(row.Origin)!),
        };
        return (layout?.Layout.HasJournal == true ? await coding.WithJournal(plan, of.CodingVersion, (await lists.Now(cancel)).Lists, cancel) : plan, null);
    }

    /// <summary>Writes what is approved and the layout takes, and stores nothing of it.</summary>
    private async Task<(RunDraft? Draft, Refused? Refused)> Draft(RunToStart wanted, CancellationToken cancel)
    {
        foreach (var receiver in wanted.Deliver ?? [])
        {
            var (_, unfit) = await receivers.FindFor(receiver, wanted.Layout ?? "", cancel);
            if (unfit is not null)
                return (null, unfit);
        }
        var (dates, closed) = await DatesOf(wanted.PostingDate, cancel);
        if (closed is not null)
            return (null, closed);
        var invoices = db.Invoices.Where(invoice => invoice.State == InvoiceState.Approved && (wanted.Batch == null || invoice.BatchId == wanted.Batch));
        var ids = await invoices.OrderBy(invoice => invoice.Id).Select(invoice => invoice.Id).ToListAsync(cancel);
        var known = await lists.Now(cancel);
        var plan = new PostingPlan(null, 0, known, new RunFacts(await NextNumber(cancel), Today) { Dates = dates });
        if (wanted.Layout is { Length: > 0 } name)
        {
            var (layout, refused) = await layouts.FindInUse(name, known.Lists, cancel);
            if (layout is null)
                return (null, refused);
            plan = plan with { Layout = layout.Layout, LayoutVersion = layout.Version };
            if (layout.Layout.HasJournal)
                plan = await coding.WithJournal(plan, null, known.Lists, cancel);
        }
        var work = await PostingWriter.Write(plan, ids, db, cancel);
        if (work.Posted.IsEmpty && work.Altered.IsEmpty && work.Undated.IsEmpty)
        {
            return (null, Refused.Conflict(NothingToPost, work.Left == 0
                ? "There is nothing to post: no invoice is approved that was not posted before."
                : $"There is nothing to post by this layout: it takes none of the {Counted(work.Left)} that are approved."));
        }
        return (new RunDraft(plan, work, await Disagreements(work, cancel)), null);
    }

    private async Task<List<string>> Disagreements(PostingWork work, CancellationToken cancel)
    {
        var batches = new HashSet<int>();
        foreach (var some in work.Posted.Select(one => one.Invoice).Chunk(500))
            batches.UnionWith(await db.Invoices.Where(invoice => some.Contains(invoice.Id)).Select(invoice => invoice.BatchId).Distinct().ToListAsync(cancel));
        return await BatchSheets.Disagreements(batches, db, cancel);
    }

    private async Task<int> NextNumber(CancellationToken cancel) => (await db.PostingRuns.MaxAsync(run => (int?)run.Number, cancel) ?? 0) + 1;

    private DateOnly Today => DateOnly.FromDateTime(clock.GetUtcNow().UtcDateTime);

    private PostingRun RunOf(PostingPlan plan, PostingWork work, int? batch, string who, string? key) => new()
    {
        Number = plan.Run.Number,
        BatchId = batch,
        At = clock.GetUtcNow().UtcDateTime,
        By = who,
        RequestKey = key,
        Invoices = work.Totals.Invoices,
        Rows = work.Totals.Rows,
        Layout = plan.Layout?.Name ?? "",
        LayoutVersion = plan.LayoutVersion,
        CodingVersion = plan.CodingVersion,
        ClosedThrough = plan.Run.Dates.ClosedThrough,
        PostingDate = plan.Run.Dates.Otherwise,
        Lists = JsonSerializer.Serialize(plan.ListsUsed.ToImmutableSortedDictionary(name => name, name => plan.Lists.Versions[name], StringComparer.Ordinal)),
        Sums = JsonSerializer.Serialize(SumsOf(work)),
    };

    private async Task Store(PostingRun run, PostingWork work, IEnumerable<string> deliver, string act, string what, IEnumerable<Deed> ofInvoices, CancellationToken cancel)
    {
        db.PostingRuns.Add(run);
        var files = work.Files.Select(file => new PostedFile
        {
            RunNumber = run.Number,
            Name = file.Name,
            MediaType = file.MediaType,
            Records = file.Records,
            Content = file.Content,
            Sha256 = HistoryChain.ContentOf(file.Content),
        }).ToList();
        foreach (var receiver in (await ReceiverShelf.AtOnce(db, run.Layout, cancel)).Union(deliver))
            db.Deliveries.Add(Delivery.Of(run.Number, receiver, run.At, run.By));
        await db.SaveChangesAsync(cancel);
        await ManyRows.Insert(db, files, cancel);
        await HistoryLog.RecordMany(
            db,
            [
                new Deed(HistoryStreams.PostingRun(run.Number), run.At, run.By, act, what)
                {
                    After = string.Join(" and ", work.Totals.Sums.OrderBy(sum => sum.Key, StringComparer.Ordinal).Select(sum => Currency.Find(sum.Key)?.Show(sum.Value) ?? $"{ExpressionTypes.Settled(sum.Value)} {sum.Key}")),
                    Reason = run.Reason,
                    Content = files.Count == 1 ? files[0].Sha256 : HistoryChain.ContentOf(string.Join('\n', files.Select(file => $"{file.Sha256} {file.Name}"))),
                },
                .. ofInvoices,
            ],
            cancel);
        await HistoryLog.Seal(db, run.At, cancel);
    }

    private async Task SetStates(List<int> ids, InvoiceState state, CancellationToken cancel)
    {
        foreach (var some in ids.Chunk(500))
        {
            await db.Invoices.Where(invoice => some.Contains(invoice.Id)).ExecuteUpdateAsync(
                set => set.SetProperty(invoice => invoice.State, state).SetProperty(invoice => invoice.Revision, invoice => invoice.Revision + 1), cancel);
        }
    }

    /// <summary>Opens invoices again as they were before they were approved: what holds them holds them still.</summary>
    private async Task Reopen(List<int> ids, CancellationToken cancel)
    {
        foreach (var some in ids.Chunk(500))
        {
            await db.Invoices.Where(invoice => some.Contains(invoice.Id)).ExecuteUpdateAsync(
                set => set.SetProperty(invoice => invoice.State, invoice => invoice.Findings == 0 ? InvoiceState.Clear : InvoiceState.Held)
                    .SetProperty(invoice => invoice.ApprovedSha256, "").SetProperty(invoice => invoice.CodedBy, "").SetProperty(invoice => invoice.Revision, invoice => invoice.Revision + 1), cancel);
            await CodedCases.Forget(db, some, cancel);
        }
    }

    /// <summary>The days that a run posted on.</summary>
    internal static PostingDates DatesOf(PostingRun run) => new(run.ClosedThrough, run.PostingDate);

    /// <summary>The days that a run made now posts on.</summary>
    /// <param name="said">For what is dated in a closed period.</param>
    private async Task<(PostingDates Dates, Refused? Refusal)> DatesOf(DateOnly? said, CancellationToken cancel)
    {
        var dates = new PostingDates((await periods.Newest(cancel))?.Through, said);
        return (dates, said is null || !dates.IsClosed(said) ? null
            : Refused.Faulty("posting-date-closed", $"The posting date {ExpressionTypes.Settled(said)} lies in a closed period, too: all up to {ExpressionTypes.Settled(dates.ClosedThrough)} is closed."));
    }

    private static string ToldUndated(PostingWork work, PostingDates dates)
    {
        if (work.Undated.IsEmpty)
            return "";
        var told = string.Join(", ", work.Undated.Take(MostTold).Select(one => $"{(one.Number.Length > 0 ? one.Number : $"invoice {one.Invoice}")} of {(one.Date is null ? "no date" : ExpressionTypes.Settled(one.Date))}"));
        return $"All up to {ExpressionTypes.Settled(dates.ClosedThrough)} is closed, and {Counted(work.Undated.Length)} {(work.Undated.Length == 1 ? "is" : "are")} dated in that time: {told}{(work.Undated.Length > MostTold ? $", and {work.Undated.Length - MostTold} more" : "")}.";
    }

    private static Refused? RefusalOf(PostingWork work, PostingDates dates)
    {
        if (!work.Altered.IsEmpty)
            return Refused.Conflict("altered-since-approved", $"{Altered(work.Altered[0])} Nothing was posted. The history says who approved what.");
        if (!work.Undated.IsEmpty)
            return Refused.Conflict("period-closed", $"{ToldUndated(work, dates)} Nothing was posted. Say a posting date for them that is not closed.");
        if (work.Faults.IsEmpty)
            return null;
        var told = string.Join(' ', work.Faults.Take(MostTold));
        return Refused.Conflict("layout-unfit", $"The layout cannot write {(work.Faults.Length == 1 ? "this" : $"these, and {work.Faults.Length} things in all")}: {told} Nothing was posted.");
    }

    private static string Altered(int invoice) => $"The values of invoice {invoice} are not those that were approved; something else than Daxlin changed them.";

    private static ImmutableSortedDictionary<string, string> SumsOf(PostingWork work) =>
        work.Totals.Sums.ToImmutableSortedDictionary(sum => sum.Key, sum => sum.Value.ToString(CultureInfo.InvariantCulture));

    private static string Counted(int invoices) => invoices == 1 ? "1 invoice" : string.Create(CultureInfo.InvariantCulture, $"{invoices} invoices");

    private sealed record RunDraft(PostingPlan Plan, PostingWork Work, List<string> Disagreements);
}
