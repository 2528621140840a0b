namespace Daxlin.Service.Storage;

/// <summary>One version of a translation list that layouts look words up in. Only ever added: what takes a run back needs the one that wrote it.</summary>
public sealed class ListVersion
{
    public int Id { get; set; }
    public required string Name { get; set; }

    /// <summary>From 1.</summary>
    public int Version { get; set; }

    /// <summary>A JSON list of <see cref="Posting.Lists.ListEntryRecord"/>.</summary>
    public required string Entries { get; set; }

    public int Count { get; set; }
    public required DateTime SavedAt { get; set; }
    public required string SavedBy { get; set; }
}
