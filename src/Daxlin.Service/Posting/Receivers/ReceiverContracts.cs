using System.Collections.Immutable;
using Daxlin.Service.Posting.Layouts;
using Daxlin.Service.NamedDocuments;

namespace Daxlin.Service.Posting.Receivers;

/// <param name="Way"><c>folder</c>, <c>webhook</c>, <c>mail</c>, <c>sftp</c> or <c>postgresql</c>; empty for a document that cannot be read any more.</param>
/// <param name="Place">Where that is, in a line.</param>
/// <param name="Layout">It gets the runs by this layout; empty for all runs.</param>
/// <param name="AtOnce">Whether each new run is delivered by itself.</param>
/// <param name="Waiting">How many deliveries wait for it.</param>
/// <param name="GivenUp">How many deliveries to it were given up; a person says how to go on.</param>
public sealed record ReceiverSummary(
    string Name, int Version, DateTime SavedAt, string SavedBy, string Note, bool IsRetired, string Way, string Place, string Layout, bool AtOnce, int Waiting, int GivenUp);

/// <param name="Newest">The newest version's number, which acts are bound to.</param>
/// <param name="Text">The document as it was saved.</param>
/// <param name="SecretsMissing">Names of secrets that it needs and that are not kept yet.</param>
public sealed record ReceiverDetail(
    string Name, int Version, int Newest, DateTime SavedAt, string SavedBy, string Note, bool IsRetired, string Text, ImmutableArray<string> SecretsMissing);

/// <param name="Document">The receiver's document, as text.</param>
public sealed record ReceiverToCheck(string? Document = null);

/// <summary>What a receiver's document says, and what is wrong with it; nothing is stored, and nobody is asked.</summary>
/// <param name="Says">Sentences that say what would be done; empty if the document has faults.</param>
/// <param name="Secrets">The names of the secrets that it needs.</param>
/// <param name="SecretsMissing">Those of them that are not kept yet.</param>
public sealed record CheckedReceiver(
    string Name, ImmutableArray<DocumentFaultRecord> DocumentFaults, ImmutableArray<string> Says, ImmutableArray<string> Secrets, ImmutableArray<string> SecretsMissing);

/// <summary>Whether a receiver can be reached.</summary>
/// <param name="Says">What it said, or what stands in the way.</param>
public sealed record ReachedReceiver(bool IsReached, string Says);

/// <summary>A secret by its name; what it says is never handed out.</summary>
public sealed record SecretRecord(string Name, DateTime KeptAt);
