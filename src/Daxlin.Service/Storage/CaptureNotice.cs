namespace Daxlin.Service.Storage;

/// <summary>A receiver is to be told once a document is captured that another program sent.</summary>
public sealed class CaptureNotice
{
    public int Id { get; set; }
    public required int IntakeId { get; set; }

    /// <summary>The name of the receiver. Each is told once of a document.</summary>
    public required string Receiver { get; set; }

    /// <summary>By which the receiver knows the notice again, however often it is sent.</summary>
    public required string Key { get; set; }

    public NoticeState State { get; set; }

    /// <summary>What the receiver said, or what stood in the way the last time.</summary>
    public string Says { get; set; } = "";

    public int Attempts { get; set; }
    public required DateTime NextAt { get; set; }
}

/// <summary>How it stands with a notice.</summary>
public enum NoticeState
{
    Waiting,
    Sent,

    /// <summary>It was tried for a day, or cannot be sent; a person has to look.</summary>
    GivenUp,
}
