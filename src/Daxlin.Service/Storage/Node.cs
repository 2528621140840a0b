namespace Daxlin.Service.Storage;

/// <summary>One of the services that share a database, as it tells of itself while it runs; its row goes when it stops in order.</summary>
public sealed class Node
{
    /// <summary>As <c>--node</c> says it.</summary>
    public required string Name { get; set; }

    /// <summary>The program's.</summary>
    public required string Version { get; set; }

    /// <summary>By the clock of the database's server, as <see cref="SeenAt"/>.</summary>
    public required DateTime StartedAt { get; set; }

    /// <summary>When it told of itself last.</summary>
    public required DateTime SeenAt { get; set; }

    /// <summary>How many reading processes it has at work at a time at most.</summary>
    public int Readers { get; set; }

    /// <summary>How many were at work when it told of itself last.</summary>
    public int Reading { get; set; }

    /// <summary>How many documents it has captured since it started.</summary>
    public long Captured { get; set; }

    /// <summary>How many it has set aside.</summary>
    public long SetAside { get; set; }

    /// <summary>How many reading processes died on a document.</summary>
    public long Deaths { get; set; }

    /// <summary>What is wrong with the storage as it sees it, as a sentence; empty if nothing is.</summary>
    public string Trouble { get; set; } = "";
}
