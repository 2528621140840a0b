namespace Daxlin.Service.Storage;

/// <summary>How a source is at the moment, whatever its document says.</summary>
public sealed class SourceState
{
    /// <summary>Under which it is leased to the service that looks at it.</summary>
    public int Id { get; set; }

    /// <summary>Of the source; unique.</summary>
    public required string Name { get; set; }

    public bool IsPaused { get; set; }

    /// <summary>When it was last looked at.</summary>
    public DateTime? LookedAt { get; set; }

    /// <summary>When something was last taken in from it.</summary>
    public DateTime? TakenAt { get; set; }

    /// <summary>How far into a mailbox it came: the server's number for the folder, and of the last message. Null for a folder, and before the first.</summary>
    public string? Reached { get; set; }

    /// <summary>Why it could not be looked at the last time; empty if it could.</summary>
    public string Trouble { get; set; } = "";

    /// <summary>Since when it cannot be looked at; null if it can.</summary>
    public DateTime? TroubleSince { get; set; }
}
