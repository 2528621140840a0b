using System.Collections.Immutable;
using Daxlin.Service.Posting.Layouts;
using Daxlin.Service.NamedDocuments;

namespace Daxlin.Service.Sources;

/// <summary>What became of a part of something that came: a file of an archive, an attachment.</summary>
/// <param name="Name">With the way to it, where it stood in something.</param>
/// <param name="Outcome"><c>taken</c>, <c>already-here</c> (the batch holds the same bytes), <c>cover</c> (it states what the others come to) or <c>left-out</c>.</param>
/// <param name="Reason">A sentence where it was not taken; what a cover sheet states.</param>
/// <param name="Sha256">Of its bytes; empty for what was left out.</param>
public sealed record SourcePart(string Name, string Outcome, string Reason, string Sha256);

/// <param name="Way"><c>folder</c> or <c>mailbox</c>; empty for a document that cannot be read any more.</param>
/// <param name="Place">Where that is, in a line.</param>
/// <param name="Batch">The name of the batches that it fills, as its document says it.</param>
/// <param name="State"><c>watched</c>, <c>resting</c> (outside of its hours), <c>paused</c>, <c>trouble</c> or <c>retired</c>.</param>
/// <param name="Trouble">Why it could not be looked at the last time; empty if it could.</param>
/// <param name="Items">How many files or messages have come from it.</param>
/// <param name="Documents">How many documents of them were taken in.</param>
/// <param name="LeftOut">How many parts were left out.</param>
public sealed record SourceSummary(
    string Name, int Version, DateTime SavedAt, string SavedBy, string Note, string Way, string Place, string Batch, string State, string Trouble, DateTime? TroubleSince, DateTime? LookedAt, DateTime? TakenAt,
    int Items, int Documents, int LeftOut);

/// <param name="Newest">The newest version's number, which acts are bound to.</param>
/// <param name="Text">The document as it was saved.</param>
/// <param name="Says">Sentences that say what is done.</param>
/// <param name="SecretsMissing">Names of secrets that it needs and that are not kept yet.</param>
public sealed record SourceDetail(
    string Name, int Version, int Newest, DateTime SavedAt, string SavedBy, string Note, string State, string Trouble, DateTime? TroubleSince, DateTime? LookedAt, DateTime? TakenAt, string Text,
    ImmutableArray<string> Says, ImmutableArray<string> SecretsMissing);

/// <param name="Document">The source's document, as text.</param>
public sealed record SourceToCheck(string? Document = null);

/// <summary>What a source's document says, and what is wrong with it; nothing is stored, and nothing is looked at.</summary>
/// <param name="Says">Sentences that say what would be done; empty if the document has faults.</param>
/// <param name="Secrets">The names of the secrets that it needs.</param>
/// <param name="SecretsMissing">Those of them that are not kept yet.</param>
public sealed record CheckedSource(
    string Name, ImmutableArray<DocumentFaultRecord> DocumentFaults, ImmutableArray<string> Says, ImmutableArray<string> Secrets, ImmutableArray<string> SecretsMissing);

/// <summary>A file or a message that came.</summary>
/// <param name="From">Whom a message is from; empty for a file.</param>
/// <param name="Batch">The name of the batch that its documents went into; empty if none did.</param>
/// <param name="Answer">How it stands with the answer to a message: <c>none</c>, <c>waiting</c>, <c>sent</c> or <c>given-up</c>.</param>
/// <param name="AnswerTo">Whom it goes to; empty for nobody.</param>
/// <param name="AnswerSays">What the mail server said, or why there is none.</param>
/// <param name="HasOriginal">Whether its bytes are kept as they came.</param>
public sealed record SourceItemRecord(
    int Id, string Name, string From, DateTime At, long Size, int? BatchId, string Batch, int Documents, int LeftOut, ImmutableArray<SourcePart> Parts, string Answer, string AnswerTo, string AnswerSays,
    bool HasOriginal);

/// <summary>What came of looking at a source.</summary>
/// <param name="Taken">How many files or messages were taken.</param>
/// <param name="Documents">How many documents of them.</param>
/// <param name="LeftOut">How many parts were left out.</param>
/// <param name="Waiting">How many files are there that have not settled yet.</param>
/// <param name="Says">The same in a sentence, or what stood in the way.</param>
public sealed record LookedAtSource(bool IsReached, int Taken, int Documents, int LeftOut, int Waiting, string Says);
