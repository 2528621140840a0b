namespace Daxlin.Service.Storage;

/// <summary>What a person said that approvals ask for; the newest counts. Only ever added.</summary>
public sealed class ApprovalRuling
{
    /// <summary>From 1.</summary>
    public int Id { get; set; }

    /// <summary>The rules, as JSON.</summary>
    public required string Rules { get; set; }

    public required DateTime At { get; set; }
    public required string By { get; set; }
}
