using System.Collections.Immutable;

namespace Daxlin.Core.Sources;

/// <summary>What is asked of a message before it is opened.</summary>
/// <param name="From">The senders' bare addresses.</param>
/// <param name="To">All whom it was sent to, open copies among them, and whom it was delivered to.</param>
/// <param name="HasAttachment">Whether anything is attached to it.</param>
public sealed record MailFacts(ImmutableArray<string> From, ImmutableArray<string> To, string Subject, bool HasAttachment)
{
    /// <summary>Where answers are wanted; empty if nothing is said of it.</summary>
    public ImmutableArray<string> ReplyTo { get; init; } = [];

    /// <summary>Its header lines that <see cref="AutomaticMail"/> asks for.</summary>
    public ImmutableArray<(string Field, string Value)> Headers { get; init; } = [];
}
