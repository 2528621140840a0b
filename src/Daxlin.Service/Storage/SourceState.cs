namespace Daxlin.Service.Storage;

/// <summary>How a source is at the moment. By its number it is leased to the service that looks at it.</summary>
public sealed class SourceState : PausableState
{
    /// <summary>When it was last looked at.</summary>
    public DateTime? LookedAt { get; set; }

    /// <summary>When something was last taken in from it.</summary>
    public DateTime? TakenAt { get; set; }

    /// <summary>How far into a mailbox it came: the server's number for the folder, and of the last message. Null for a folder, and before the first.</summary>
    public string? Reached { get; set; }
}
