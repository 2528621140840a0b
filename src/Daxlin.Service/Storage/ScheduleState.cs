namespace Daxlin.Service.Storage;

/// <summary>How a schedule is at the moment, whatever its document says.</summary>
public sealed class ScheduleState
{
    public int Id { get; set; }

    /// <summary>Of the schedule; unique.</summary>
    public required string Name { get; set; }

    public bool IsPaused { get; set; }

    /// <summary>When it is due next; null until that is reckoned, and of one that is paused.</summary>
    public DateTime? NextAt { get; set; }

    /// <summary>When it last had its turn by itself; null for never.</summary>
    public DateTime? LastAt { get; set; }

    /// <summary>Why nothing came of its last turn; empty if something did.</summary>
    public string Trouble { get; set; } = "";

    public DateTime? TroubleSince { get; set; }
}
