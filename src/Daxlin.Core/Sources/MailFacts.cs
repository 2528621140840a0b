using System.Collections.Immutable;

namespace Daxlin.Core.Sources;

/// <summary>What rules ask of a message.</summary>
/// <param name="From">The senders' bare addresses.</param>
/// <param name="To">All whom it was sent to, open copies among them.</param>
/// <param name="HasAttachment">Whether anything is attached to it.</param>
public sealed record MailFacts(ImmutableArray<string> From, ImmutableArray<string> To, string Subject, bool HasAttachment);
