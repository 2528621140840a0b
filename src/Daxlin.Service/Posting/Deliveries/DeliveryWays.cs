using Daxlin.Core.Posting.Receivers;
using Daxlin.Service.Posting.Deliveries.Ways;
using Daxlin.Service.Posting.Receivers;

namespace Daxlin.Service.Posting.Deliveries;

/// <summary>All ways on which runs are delivered.</summary>
internal sealed class DeliveryWays(FolderDelivery folder, WebhookDelivery webhook, MailDelivery mail, SftpDelivery sftp, TableDelivery table)
{
    /// <summary>A receiver that does not answer is asked no longer.</summary>
    private static readonly TimeSpan Patience = TimeSpan.FromMinutes(2);

    public Task Prepare(Parcel parcel, CancellationToken cancel) => Bounded(
        parcel.Receiver.Way switch
        {
            FolderWay way => stop => Asked(folder.Prepare(parcel, way, stop)),
            WebhookWay way => stop => Asked(webhook.Prepare(parcel, way, stop)),
            MailWay way => stop => Asked(mail.Prepare(parcel, way, stop)),
            SftpWay way => stop => Asked(sftp.Prepare(parcel, way, stop)),
            TableWay way => stop => Asked(table.Prepare(parcel, way, stop)),
            _ => throw Unknown(parcel.Receiver),
        },
        cancel);

    public Task<string> HandOver(Parcel parcel, bool isResumed, CancellationToken cancel) => Bounded(
        parcel.Receiver.Way switch
        {
            FolderWay way => stop => folder.HandOver(parcel, way, isResumed, stop),
            WebhookWay way => stop => webhook.HandOver(parcel, way, isResumed, stop),
            MailWay way => stop => mail.HandOver(parcel, way, isResumed, stop),
            SftpWay way => stop => sftp.HandOver(parcel, way, isResumed, stop),
            TableWay way => stop => table.HandOver(parcel, way, isResumed, stop),
            _ => throw Unknown(parcel.Receiver),
        },
        cancel);

    public async Task<ReachedReceiver> Reach(Receiver receiver, CancellationToken cancel)
    {
        try
        {
            return new ReachedReceiver(true, await Bounded(
                receiver.Way switch
                {
                    FolderWay way => stop => folder.Reach(way, stop),
                    WebhookWay way => stop => webhook.Reach(way, stop),
                    MailWay way => stop => mail.Reach(way, stop),
                    SftpWay way => stop => sftp.Reach(way, stop),
                    TableWay way => stop => table.Reach(way, stop),
                    _ => throw Unknown(receiver),
                },
                cancel));
        }
        catch (DeliveryFaultException error)
        {
            return new ReachedReceiver(false, error.Message);
        }
    }

    private static async Task<string> Asked(Task work)
    {
        await work;
        return "";
    }

    private static async Task<string> Bounded(Func<CancellationToken, Task<string>> work, CancellationToken cancel)
    {
        using var bound = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        bound.CancelAfter(Patience);
        try
        {
            return await work(bound.Token);
        }
        catch (OperationCanceledException error) when (!cancel.IsCancellationRequested)
        {
            throw new DeliveryFaultException($"The receiver did not answer within {Patience.TotalMinutes:0} minutes.", inner: error);
        }
    }

    private static InvalidOperationException Unknown(Receiver receiver) => new($"No way leads to {receiver.Way.Word}.");
}
