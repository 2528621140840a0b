using System.Text.Json;
using Daxlin.Core.Posting.Receivers;
using Daxlin.Service.Invoices;
using Daxlin.Service.Nodes;
using Daxlin.Service.Posting.Deliveries;
using Daxlin.Service.Outgoing;
using Daxlin.Service.Posting.Receivers;
using Daxlin.Service.Storage;
using Daxlin.Service.Work;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Captures.Notices;

/// <summary>Tells receivers that documents are captured, which other programs sent.</summary>
/// <remarks>A notice may be sent again after a death in the middle, under the same key: by it the receiver takes each once.</remarks>
internal sealed class CaptureNotices(IDbContextFactory<DaxlinDb> databases, SignedRequests requests, WriteTurn turn, Leases leases, TimeProvider clock, ILogger<CaptureNotices> log) : RegularWork(TimeSpan.FromSeconds(1), clock, log)
{
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(30);

    /// <summary>So many are sent at a time.</summary>
    private const int Some = 20;

    protected override async Task Do(CancellationToken cancel)
    {
        await Task.WhenAll((await Due(cancel)).Select(id => Send(id, cancel)));
    }

    private async Task<List<int>> Due(CancellationToken cancel)
    {
        var now = Clock.GetUtcNow().UtcDateTime;
        await using var db = await databases.CreateDbContextAsync(cancel);
        return await db.CaptureNotices
            .Where(notice => notice.State == NoticeState.Waiting && notice.NextAt <= now && db.Intakes.Any(intake => intake.Id == notice.IntakeId && intake.State != IntakeState.Waiting))
            .OrderBy(notice => notice.NextAt).Select(notice => notice.Id).Take(Some).ToListAsync(cancel);
    }

    private async Task Send(int id, CancellationToken cancel)
    {
        if (!await leases.Take(Leases.Notice, id, cancel))
            return;
        using var patience = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        patience.CancelAfter(Patience);
        try
        {
            var (notice, way, body) = await Written(id, cancel);
            if (notice.State != NoticeState.Waiting)
                return;
            var status = await requests.Send(way, notice.Key, body, patience.Token);
            await Change(id, row => (row.State, row.Says) = (NoticeState.Sent, $"{way.Place} answered {status}."), cancel);
        }
        catch (DeliveryFaultException error)
        {
            await Change(id, row => Fail(row, error.Message), cancel);
        }
        catch (OperationCanceledException) when (!cancel.IsCancellationRequested)
        {
            await Change(id, row => Fail(row, $"The receiver did not answer within {Patience.TotalSeconds:F0} seconds."), cancel);
        }
        finally
        {
            await leases.End(Leases.Notice, id, CancellationToken.None);
        }
    }

    private void Fail(CaptureNotice row, string why)
    {
        row.Attempts++;
        row.Says = why;
        if (DeliveryPatience.After(row.Attempts) is { } wait)
            row.NextAt = Clock.GetUtcNow().UtcDateTime + wait;
        else
            row.State = NoticeState.GivenUp;
    }

    private async Task<(CaptureNotice Notice, WebhookWay Way, ReadOnlyMemory<byte> Body)> Written(int id, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var notice = await db.CaptureNotices.AsNoTracking().SingleAsync(row => row.Id == id, cancel);
        var newest = await ReceiverShelf.Newest(db).AsNoTracking().SingleAsync(row => row.Name == notice.Receiver, cancel);
        if (newest.IsRetired || ReceiverShelf.Read(newest) is not { Way: WebhookWay way })
            throw new DeliveryFaultException($"The receiver “{notice.Receiver}” is retired, or is no web address any more.", nothingReached: true);
        var intake = await db.Intakes.AsNoTracking().SingleAsync(row => row.Id == notice.IntakeId, cancel);
        var batch = await db.Batches.Where(row => row.Id == intake.BatchId).Select(row => row.Name).SingleAsync(cancel);
        var invoices = await db.Invoices.AsNoTracking().Where(row => row.IntakeId == intake.Id).OrderBy(row => row.FirstPage).ThenBy(row => row.Id)
            .Select(row => new { row.Id, row.State, row.Vendor, row.InvoiceNumber, row.Total, row.Currency, row.FirstFinding }).ToListAsync(cancel);
        return (notice, way, JsonSerializer.SerializeToUtf8Bytes(
            new
            {
                type = "capture.done",
                timestamp = Clock.GetUtcNow().UtcDateTime,
                data = new
                {
                    id = intake.Id,
                    file = intake.FileName,
                    sha256 = intake.Sha256,
                    batchId = intake.BatchId,
                    batch,
                    state = CaptureEndpoints.Word(intake.State),
                    reason = intake.Reason,
                    address = CaptureEndpoints.AddressOf(intake.Id),
                    invoices = invoices.ConvertAll(row => new
                    {
                        id = row.Id,
                        state = InvoiceDetails.Word(row.State),
                        vendor = row.Vendor,
                        invoiceNumber = row.InvoiceNumber,
                        total = row.Total,
                        currency = row.Currency,
                        finding = row.FirstFinding,
                    }),
                },
            },
            JsonSerializerOptions.Web));
    }

    private async Task Change(int id, Action<CaptureNotice> act, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        await using var change = await turn.Take(db, cancel);
        act(await db.CaptureNotices.SingleAsync(row => row.Id == id, cancel));
        await db.SaveChangesAsync(cancel);
        await change.Commit(cancel);
    }
}
