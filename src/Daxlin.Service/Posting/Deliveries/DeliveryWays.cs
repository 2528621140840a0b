using Daxlin.Core.Posting.Receivers;
using Daxlin.Service.Posting.Deliveries.Ways;
using Daxlin.Service.Posting.Receivers;

namespace Daxlin.Service.Posting.Deliveries;

/// <summary>All ways on which runs are delivered.</summary>
internal sealed class DeliveryWays(FolderDelivery folder, WebhookDelivery webhook, MailDelivery mail, SftpDelivery sftp, TableDelivery table)
{
    /// <summary>A receiver that does not answer is asked no longer.</summary>
    private static readonly TimeSpan Patience = TimeSpan.FromMinutes(2);

    /// <inheritdoc cref="IDeliveryWay{TWay}.Prepare"/>
    public Task Prepare(Parcel parcel, CancellationToken cancel) => Bounded(
        async stop =>
        {
            await Of(parcel.Receiver.Way).Prepare(parcel, stop);
            return "";
        },
        cancel);

    /// <inheritdoc cref="IDeliveryWay{TWay}.HandOver"/>
    public Task<string> HandOver(Parcel parcel, bool isResumed, CancellationToken cancel) => Bounded(stop => Of(parcel.Receiver.Way).HandOver(parcel, isResumed, stop), cancel);

    public async Task<ReachedReceiver> Reach(Receiver receiver, CancellationToken cancel)
    {
        try
        {
            return new ReachedReceiver(true, await Bounded(Of(receiver.Way).Reach, cancel));
        }
        catch (DeliveryFaultException error)
        {
            return new ReachedReceiver(false, error.Message);
        }
    }

    private IChosenWay Of(ReceivingWay way) => way switch
    {
        FolderWay own => new ChosenWay<FolderWay>(folder, own),
        WebhookWay own => new ChosenWay<WebhookWay>(webhook, own),
        MailWay own => new ChosenWay<MailWay>(mail, own),
        SftpWay own => new ChosenWay<SftpWay>(sftp, own),
        TableWay own => new ChosenWay<TableWay>(table, own),
        _ => throw new InvalidOperationException($"No way leads to {way.Word}."),
    };

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

    /// <summary>A way with what the document says of it.</summary>
    private interface IChosenWay
    {
        Task Prepare(Parcel parcel, CancellationToken cancel);

        Task<string> HandOver(Parcel parcel, bool isResumed, CancellationToken cancel);

        Task<string> Reach(CancellationToken cancel);
    }

    private sealed class ChosenWay<TWay>(IDeliveryWay<TWay> delivery, TWay way) : IChosenWay
        where TWay : ReceivingWay
    {
        public Task Prepare(Parcel parcel, CancellationToken cancel) => delivery.Prepare(parcel, way, cancel);

        public Task<string> HandOver(Parcel parcel, bool isResumed, CancellationToken cancel) => delivery.HandOver(parcel, way, isResumed, cancel);

        public Task<string> Reach(CancellationToken cancel) => delivery.Reach(way, cancel);
    }
}
