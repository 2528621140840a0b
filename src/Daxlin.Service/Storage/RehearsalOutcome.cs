using Daxlin.Core.Rehearsal;

namespace Daxlin.Service.Storage;

/// <summary>What a rehearsed draft would do to one invoice.</summary>
public sealed class RehearsalOutcome
{
    public int Id { get; set; }
    public int RehearsalId { get; set; }
    public int InvoiceId { get; set; }

    /// <summary>As a number, since the gravest go first.</summary>
    public Verdict Verdict { get; set; }

    public InvoiceState Before { get; set; }

    /// <summary>Unplaced, held or clear.</summary>
    public InvoiceState After { get; set; }

    /// <summary>The first thing that would hold it, or what recognises it no more.</summary>
    public string FirstFinding { get; set; } = "";

    /// <summary>Value by value, as JSON.</summary>
    public string Changes { get; set; } = "[]";
}
