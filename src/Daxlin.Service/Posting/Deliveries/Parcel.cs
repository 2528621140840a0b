using System.Collections.Immutable;
using Daxlin.Core.Posting.Receivers;
using Daxlin.Service.Storage;

namespace Daxlin.Service.Posting.Deliveries;

/// <summary>What is handed to a receiver.</summary>
/// <param name="Key">By which the receiver knows the delivery again, however often it is tried.</param>
internal sealed record Parcel(string Key, Receiver Receiver, PostingRun Run, ImmutableArray<PostedFile> Files);
