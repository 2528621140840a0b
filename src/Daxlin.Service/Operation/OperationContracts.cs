using System.Collections.Immutable;

namespace Daxlin.Service.Operation;

/// <summary>How the service is, for whoever keeps it running.</summary>
/// <param name="At">When it was looked.</param>
/// <param name="Troubles">What is to be looked at, a sentence each; none if all is well.</param>
internal sealed record OperationShown(DateTime At, ImmutableArray<string> Troubles, ImmutableArray<NodeShown> Nodes, WorkWaiting Waiting, StorageShown Storage, BackupShown? LastBackup);

/// <summary>One of the services on the database.</summary>
/// <param name="Name">Empty for one that stores in its own folder.</param>
/// <param name="IsThis">It is the one that answers.</param>
/// <param name="IsAway">It has not told of itself for a minute, and did not stop in order.</param>
/// <param name="Readers">How many reading processes it has at work at a time at most; <c>Reading</c> are at work now.</param>
/// <param name="Captured">Since it started, as the next two.</param>
/// <param name="Deaths">Reading processes that died on a document.</param>
/// <param name="Trouble">What is wrong with the storage as it sees it; empty if nothing is.</param>
internal sealed record NodeShown(
    string Name, bool IsThis, bool IsAway, string Version, DateTime StartedAt, DateTime SeenAt, int Readers, int Reading, long Captured, long SetAside, long Deaths, string Trouble);

/// <summary>What waits.</summary>
/// <param name="Documents">For their capture.</param>
/// <param name="OldestAt">When the one was taken in that waits longest.</param>
/// <param name="Deliveries">Of posting runs, that are tried by themselves.</param>
/// <param name="DeliveriesGivenUp">Those that a person has to look at.</param>
/// <param name="Invoices">How many there are of each state.</param>
internal sealed record WorkWaiting(int Documents, DateTime? OldestAt, int Deliveries, int DeliveriesGivenUp, ImmutableSortedDictionary<string, int> Invoices);

/// <summary>Where all is stored.</summary>
/// <param name="Database">What it is: a file, or which database on which server.</param>
/// <param name="Folder">Of the documents.</param>
/// <param name="DatabaseBytes">How large the database is.</param>
/// <param name="Documents">How many were taken in.</param>
/// <param name="DocumentBytes">How large they are together.</param>
/// <param name="FreeBytes">On the disk of the folder.</param>
/// <param name="Trouble">What is wrong, as a sentence; empty if nothing is.</param>
internal sealed record StorageShown(string Database, string Folder, long DatabaseBytes, int Documents, long DocumentBytes, long FreeBytes, string Trouble);

/// <summary>The backup that was made last.</summary>
/// <param name="Folder">Where it was put.</param>
/// <param name="Faults">How much was missing or altered already.</param>
internal sealed record BackupShown(DateTime At, string Folder, int Documents, int Invoices, int Faults);
