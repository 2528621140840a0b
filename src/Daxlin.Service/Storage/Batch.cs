namespace Daxlin.Service.Storage;

/// <summary>Documents taken in together.</summary>
public sealed class Batch
{
    public int Id { get; set; }

    /// <summary>Unique; a clerk's own words.</summary>
    public required string Name { get; set; }

    public required DateTime CreatedAt { get; set; }
}
