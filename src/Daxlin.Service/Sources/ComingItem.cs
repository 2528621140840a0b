using System.Security.Cryptography;
using System.Text;
using Daxlin.Core.Sources;

namespace Daxlin.Service.Sources;

/// <summary>A file or a message that came from a source and is not taken in yet.</summary>
/// <param name="Key">What it is known by in its source, so that it is taken once; see <see cref="KeyOf"/>.</param>
/// <param name="Name">As one line that can be stored.</param>
/// <param name="Sha256">Under which its bytes are kept; empty for one that is too large.</param>
/// <param name="Batch">The name of the batch that its documents go into.</param>
internal sealed record ComingItem(string Source, string Key, string Name, string Sha256, long Size, string Batch)
{
    /// <summary>The longest name, in letters.</summary>
    public const int LongestName = 500;

    /// <summary>Says that it is a message as a mail server hands it out.</summary>
    public bool IsMessage { get; init; }

    /// <summary>Says that it stays where it is: what comes from its place later is it, changed.</summary>
    public bool Stays { get; init; }

    /// <summary>Where it is stated what its invoices come to.</summary>
    public SourceTotals Totals { get; init; } = SourceTotals.None;

    /// <summary>The template that its documents are sent for; empty for none.</summary>
    public string Template { get; init; } = "";

    /// <summary>A file's place, size and time, as a key; empty for a message.</summary>
    public string Stamp { get; init; } = "";

    /// <summary>Whom a message is from.</summary>
    public string From { get; init; } = "";

    /// <summary>A message's own id.</summary>
    public string MessageId { get; init; } = "";

    public AnswerAddress Answer { get; init; } = AnswerAddress.Nobody;

    /// <summary>What identifies something, of one length however long that is: databases index no text of any length.</summary>
    public static string KeyOf(params ReadOnlySpan<string> parts) => Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(string.Join('\n', parts))));
}
