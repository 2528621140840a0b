using Daxlin.Core.Posting.Receivers;

namespace Daxlin.Service.Posting.Deliveries;

/// <summary>Hands runs to receivers of one kind, so that the receiver sees each once, whenever this process dies.</summary>
/// <remarks>
/// First all is made ready that the receiver cannot see; then it is stored that handing over begins; then it is handed over. After a
/// death in between, handing over is asked for again as resumed, and has to find out what the receiver has: a file that was made
/// ready and is gone was renamed into its place; a database knows the run's number; a web address knows the delivery's key.
/// </remarks>
internal interface IDeliveryWay<in TWay>
    where TWay : ReceivingWay
{
    /// <summary>Makes ready what the receiver cannot see. May be asked for again.</summary>
    /// <exception cref="DeliveryFaultException">It cannot.</exception>
    Task Prepare(Parcel parcel, TWay way, CancellationToken cancel);

    /// <summary>Hands over.</summary>
    /// <param name="isResumed">Says that an attempt before may have handed over some or all of it.</param>
    /// <returns>The receipt: what the receiver has, as a sentence.</returns>
    /// <exception cref="DeliveryFaultException">It failed.</exception>
    Task<string> HandOver(Parcel parcel, TWay way, bool isResumed, CancellationToken cancel);

    /// <summary>Asks whether the receiver can be reached, and says what it said.</summary>
    /// <exception cref="DeliveryFaultException">It cannot.</exception>
    Task<string> Reach(TWay way, CancellationToken cancel);
}
