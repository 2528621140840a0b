namespace Daxlin.Service.Storage;

/// <summary>What a schedule did at one time: stored in one change with what it did, so that each time has one turn.</summary>
public sealed class ScheduledTurn : IMailedOnce
{
    public int Id { get; set; }
    public required string Schedule { get; set; }

    /// <summary>Of its document.</summary>
    public required int Version { get; set; }

    /// <summary>When it was due.</summary>
    public required DateTime DueAt { get; set; }

    public required DateTime At { get; set; }

    /// <summary>Who had it done at once; empty for one that did it by itself.</summary>
    public string By { get; set; } = "";

    public TurnOutcome Outcome { get; set; }

    /// <summary>The numbers of the posting runs that it made: a JSON list.</summary>
    public string Runs { get; set; } = "[]";

    /// <summary>What came of it, in sentences; of a message that was sent, what the mail server said.</summary>
    public string Says { get; set; } = "";

    /// <summary>The message that it sends; empty for none.</summary>
    public string Subject { get; set; } = "";
    public string Text { get; set; } = "";

    public MailState State { get; set; }
    public int Attempts { get; set; }
    public DateTime? NextAt { get; set; }
    public DateTime? SentAt { get; set; }
}
