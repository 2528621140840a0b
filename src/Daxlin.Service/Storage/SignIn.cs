namespace Daxlin.Service.Storage;

/// <summary>A browser that a person signed in with. Its cookie names it, and is worth nothing once it has ended.</summary>
public sealed class SignIn
{
    /// <summary>128 random bits, in hexadecimal letters.</summary>
    public required string Id { get; set; }

    public int PersonId { get; set; }
    public DateTime BegunAt { get; set; }

    /// <summary>When it ends at the latest, however much it is used.</summary>
    public DateTime Until { get; set; }

    /// <summary>The address that it came from; empty if it was begun by an earlier release.</summary>
    public string From { get; set; } = "";

    public DateTime? EndedAt { get; set; }
}
