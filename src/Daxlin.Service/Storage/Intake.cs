using Daxlin.Core.Capture;

namespace Daxlin.Service.Storage;

/// <summary>A document taken into a batch.</summary>
public sealed class Intake
{
    public int Id { get; set; }
    public int BatchId { get; set; }

    /// <summary>The document's bytes are kept under this.</summary>
    public required string Sha256 { get; set; }

    /// <summary>Its name as received, without any folder.</summary>
    public required string FileName { get; set; }

    public long Size { get; set; }
    public required DateTime ReceivedAt { get; set; }
    public IntakeState State { get; set; }

    /// <summary>
    /// How often the process that worked on it died. The first time something else may have been at fault, so it is tried
    /// again, alone; a stop or a kill of the service counts nothing.
    /// </summary>
    public int Attempts { get; set; }

    public int Pages { get; set; }

    /// <summary>
    /// The number that its first invoice gets: invoices are numbered in the order of their files, whichever capture ends
    /// first. 0 for documents that were taken in before there were such numbers.
    /// </summary>
    public int InvoiceNumber { get; set; }

    /// <summary>Why it is unreadable: a stable word, and a sentence.</summary>
    public string ReasonCode { get; set; } = "";
    public string Reason { get; set; } = "";

    /// <summary>
    /// Counts how often it was put back to wait. What a capture came to is stored only if it is still the round that it began
    /// in: one that began before a template was saved must not end the waiting for that template.
    /// </summary>
    public int Round { get; set; }

    /// <summary>What is known of the document without reading it.</summary>
    /// <param name="batch">The name of its batch.</param>
    internal DocumentFacts Facts(string batch) => new(FileName, batch, DateOnly.FromDateTime(ReceivedAt));

    /// <summary>Puts it back to wait for its capture, whatever it came to before or is coming to.</summary>
    public void Again()
    {
        (State, Attempts, Reason, ReasonCode) = (IntakeState.Waiting, 0, "", "");
        Round++;
    }
}
