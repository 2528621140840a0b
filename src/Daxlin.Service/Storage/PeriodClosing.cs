namespace Daxlin.Service.Storage;

/// <summary>What a person said of closed periods; the newest counts. Only ever added.</summary>
public sealed class PeriodClosing
{
    /// <summary>From 1.</summary>
    public int Id { get; set; }

    /// <summary>All days up to this one are closed; null for none.</summary>
    public DateOnly? Through { get; set; }

    public required DateTime At { get; set; }
    public required string By { get; set; }
    public string Reason { get; set; } = "";
}
