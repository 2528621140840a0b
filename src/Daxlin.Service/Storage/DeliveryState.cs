namespace Daxlin.Service.Storage;

/// <summary>How far the delivery of a run is.</summary>
public enum DeliveryState
{
    /// <summary>It is tried by itself, at once or later.</summary>
    Waiting,

    /// <summary>The receiver has it.</summary>
    Delivered,

    /// <summary>It failed too often, or nobody can tell whether the receiver has it; a person says how to go on.</summary>
    GivenUp,

    /// <summary>A person ended it: the receiver has the run in another way, or is not to have it.</summary>
    Settled,
}
