namespace Daxlin.Service.Storage;

/// <summary>How a schedule is at the moment.</summary>
public sealed class ScheduleState : PausableState
{
    /// <summary>When it is due next; null until that is reckoned, and of one that is paused.</summary>
    public DateTime? NextAt { get; set; }

    /// <summary>When it last had its turn by itself; null for never.</summary>
    public DateTime? LastAt { get; set; }
}
