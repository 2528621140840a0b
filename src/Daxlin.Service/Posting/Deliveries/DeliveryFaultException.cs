namespace Daxlin.Service.Posting.Deliveries;

/// <summary>A delivery failed, for a reason that a clerk is told.</summary>
/// <param name="nothingReached">Says that the receiver has surely seen nothing of it.</param>
/// <param name="isUnsure">Says that nobody here can tell whether the receiver has it: trying again by itself might deliver it twice.</param>
public sealed class DeliveryFaultException(string sentence, bool nothingReached = false, bool isUnsure = false, Exception? inner = null) : Exception(sentence, inner)
{
    public bool NothingReached => nothingReached;

    public bool IsUnsure => isUnsure;
}
