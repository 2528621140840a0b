namespace Daxlin.Service.Storage;

/// <summary>Work that one of several services does at the moment. It is free again once it was not renewed for a while: whoever had it is dead.</summary>
public sealed class Lease
{
    /// <summary>What is done: <c>capture</c>.</summary>
    public required string Work { get; set; }

    /// <summary>The number of what it is done with.</summary>
    public int Of { get; set; }

    /// <summary>The name of the service that does it.</summary>
    public required string Node { get; set; }

    /// <summary>By the clock of the database's server, which all of them share.</summary>
    public required DateTime Until { get; set; }
}
