namespace Daxlin.Service.Storage;

/// <summary>An approver who is away gives the right to another for a time.</summary>
public sealed class StandIn : IRevised
{
    public int Id { get; set; }
    public int AbsentId { get; set; }
    public int StandInId { get; set; }
    public DateTime From { get; set; }

    /// <summary>From this moment on the right is the absent person's alone again.</summary>
    public DateTime Until { get; set; }

    public DateTime? EndedAt { get; set; }
    public int Revision { get; set; } = 1;
}
