namespace Daxlin.Service.Storage;

/// <summary>A file that a posting run wrote, kept so that it can be fetched and delivered again at any time. Only ever added.</summary>
public sealed class PostedFile
{
    public int Id { get; set; }
    public int RunNumber { get; set; }
    public required string Name { get; set; }
    public required string MediaType { get; set; }

    /// <summary>How many records it holds, headings left out.</summary>
    public int Records { get; set; }

    public required byte[] Content { get; set; }

    /// <summary>Of the content; empty for one of an earlier release, until a start fills it in.</summary>
    public required string Sha256 { get; set; }
}
