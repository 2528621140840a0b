namespace Daxlin.Service.Storage;

/// <summary>Documents taken in together.</summary>
public sealed class Batch : IGrouped
{
    public int Id { get; set; }

    /// <summary>Unique; a clerk's own words.</summary>
    public required string Name { get; set; }

    public required DateTime CreatedAt { get; set; }

    /// <summary>What the clerk says the batch comes to: a JSON list of <see cref="Core.Posting.StatedTotal"/>.</summary>
    public string ControlTotals { get; set; } = "[]";

    /// <summary>Counts changes of the control totals from 1.</summary>
    public int Revision { get; set; } = 1;

    /// <summary>Whose it is; empty if it is of no group. People can be held to groups.</summary>
    public string Group { get; set; } = "";
}
