namespace Daxlin.Service.Storage;

/// <summary>A template draft that is tried over the invoices that were captured before. It changes none of them.</summary>
public sealed class Rehearsal
{
    public int Id { get; set; }

    /// <summary>The template's name.</summary>
    public required string Template { get; set; }

    /// <summary>The version that was the newest when it began; 0 for a new template.</summary>
    public int BaseVersion { get; set; }

    /// <summary>The draft's document.</summary>
    public required string Document { get; set; }

    /// <summary>Null for the invoices of all batches.</summary>
    public int? BatchId { get; set; }

    public required DateTime At { get; set; }
    public required string By { get; set; }

    /// <summary>The Idempotency-Key of the request that began it; null for none.</summary>
    public string? RequestKey { get; set; }

    public RehearsalState State { get; set; }

    /// <summary>Why it failed, as a sentence; else empty.</summary>
    public string Failure { get; set; } = "";

    /// <summary>How many documents it goes over, and how many of them are done.</summary>
    public int Documents { get; set; }
    public int Done { get; set; }

    /// <summary>The last document that is done: after a kill it goes on behind it.</summary>
    public int LastIntakeId { get; set; }

    /// <summary>How many invoices come out as they were; the others each have a <see cref="RehearsalOutcome"/>.</summary>
    public int Same { get; set; }

    /// <summary>How many invoices of its own template, or of earlier versions, it went over, and how many of them it recognises.</summary>
    public int Own { get; set; }
    public int OwnRecognised { get; set; }

    /// <summary>How many invoices of other templates it went over, and how many of them it would claim.</summary>
    public int Others { get; set; }
    public int OthersRecognised { get; set; }

    /// <summary>How many documents could not be read.</summary>
    public int Unreadable { get; set; }
}
