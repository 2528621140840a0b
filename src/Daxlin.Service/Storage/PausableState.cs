namespace Daxlin.Service.Storage;

/// <summary>How something is at the moment that is done by itself, whatever its document says.</summary>
public abstract class PausableState
{
    public int Id { get; set; }

    /// <summary>Of the document; unique.</summary>
    public string Name { get; set; } = "";

    public bool IsPaused { get; set; }

    /// <summary>Why nothing came of it the last time; empty if something did.</summary>
    public string Trouble { get; set; } = "";

    /// <summary>Since when nothing comes of it; null if something does.</summary>
    public DateTime? TroubleSince { get; set; }
}
