namespace Daxlin.Service.Storage;

/// <summary>A key by which a program acts for a person. The key itself is kept nowhere.</summary>
public sealed class AccessKey : IRevised
{
    public int Id { get; set; }
    public int PersonId { get; set; }

    /// <summary>What it is for, in its owner's words; it stands in the history beside the owner's name.</summary>
    public required string Name { get; set; }

    /// <summary>Its first letters, by which its owner knows it again.</summary>
    public required string Beginning { get; set; }

    /// <summary>The SHA-256 of all of it, in hexadecimal letters. It is random, so that nothing slower is needed.</summary>
    public required string Sha256 { get; set; }

    /// <summary>The words of the rights that it gives, with commas between; never more than its owner has.</summary>
    public required string RightWords { get; set; }

    public DateTime MadeAt { get; set; }
    public DateTime ExpiresAt { get; set; }

    /// <summary>To the hour.</summary>
    public DateTime? LastUsedAt { get; set; }

    /// <summary>The address that it was last used from; empty if it never was.</summary>
    public string LastUsedFrom { get; set; } = "";

    public DateTime? RevokedAt { get; set; }
    public int Revision { get; set; } = 1;
}
